using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>
/// What has a coil and an armature, whatever hangs on it: contactors, relays, timers, brakes. An alternating-current coil
/// draws about tenfold VA until the armature has closed, so that a series resistance may keep it from pulling in and
/// still hold it; a direct-current coil is its resistance.
/// </summary>
internal abstract partial class CoilOperated : CompleteKind
{
    private protected const int Out = 0,
        In = 1;
    private const int CoilElement = 0;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class CoilPlate
    {
        public static readonly WordSpec Current = ParameterSpec.Word(
            "coil",
            "Coil for alternating or direct current",
            "ac",
            "ac",
            "dc"
        ) with
        {
            Group = PlateGroup.Coil,
        };
        public static readonly WordSpec Input = ParameterSpec.Word(
            "coilInput",
            "What an ohmmeter finds at the coil: its winding, or electronics that read OL",
            "winding",
            "winding",
            "electronic"
        ) with
        {
            Group = PlateGroup.Coil,
        };
        public static readonly NumberSpec Volts = ParameterSpec.Number("coilVolts", "Rated coil voltage", "V", 230, 5, 690) with
        {
            Group = PlateGroup.Coil,
        };
        public static readonly NumberSpec PullInVa = ParameterSpec.Number(
            "coilPullInVa",
            "Coil, armature open; a direct-current coil's power in W",
            "VA",
            70,
            0.1,
            5000
        ) with
        {
            Group = PlateGroup.Coil,
        };
        public static readonly NumberSpec PullInCos = ParameterSpec.Number(
            "coilPullInCos",
            "Power factor, armature open",
            "",
            0.75,
            0.1,
            1
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec SealedVa = ParameterSpec.Number(
            "coilSealedVa",
            "Coil, armature closed (alternating current)",
            "VA",
            8,
            0.1,
            1000
        ) with
        {
            Group = PlateGroup.Coil,
        };
        public static readonly NumberSpec SealedCos = ParameterSpec.Number(
            "coilSealedCos",
            "Power factor, armature closed",
            "",
            0.3,
            0.05,
            1
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec Ohms = ParameterSpec.Number(
            "coilOhms",
            "Coil resistance at direct current, 20 °C; 0: estimated from the pull-in data",
            "ohm",
            0,
            0,
            1000000
        ) with
        {
            Group = PlateGroup.Expert,
        };
    }

    private protected abstract ImmutableArray<ParameterSpec> OwnParameters { get; }
    private protected virtual (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 70, 8);

    /// <summary>Coil terminals as they are marked.</summary>
    private protected virtual (string A, string B) CoilTerminals => ("A1", "A2");

    public override ImmutableArray<ParameterSpec> Parameters =>
        [
            .. OwnParameters,
            CoilPlate.Current,
            CoilPlate.Volts with
            {
                Default = UsualCoil.Volts,
            },
            CoilPlate.PullInVa with
            {
                Default = UsualCoil.PullInVa,
            },
            CoilPlate.PullInCos,
            CoilPlate.SealedVa with
            {
                Default = UsualCoil.SealedVa,
            },
            CoilPlate.SealedCos,
            CoilPlate.Ohms,
            CoilPlate.Input,
            Copper.Known,
        ];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [new(CoilTerminals.A, CoilTerminals.B, ElementRole.Load), .. Contacts(device)];

    /// <summary>Everything but the coil.</summary>
    private protected abstract ImmutableArray<Element> Contacts(Device device);

    public override ImmutableArray<string> Positions(Device device) => ["out", "in"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("in", "Press the armature in by hand", true, DeadOnly: true)];

    public override ImmutableArray<string> Appearances => ["out", "in", "buzzes", "hums", "chatters"];

    public override string Heard(string before, string after) =>
        after switch
        {
            _ when after == before => after is "buzzes" or "hums" or "chatters" ? $"still {after}" : "",
            "in" => "a clack, and quiet",
            "out" => "a clack as it lets go",
            "off" or "on" => "a click",
            "buzzes" or "hums" or "chatters" => after,
            _ => "",
        };

    /// <summary>Whether the armature is closed in this position.</summary>
    private protected virtual bool IsClosed(DeviceState state) => state.Position == In && !state.Moving;

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            new(
                "coil-label",
                FormattableString.Invariant($"Voltage printed on the coil of {device.Tag}: {device[CoilPlate.Volts]:0} V?"),
                "as drawn",
                "another voltage"
            ),
            .. PressedToTry(device)
                .Select(a => new Look(
                    ArmatureLook,
                    $"With the supply isolated, press the armature of {device.Tag} in by hand",
                    "moves and springs back",
                    "does not move",
                    "is in and stays in"
                )
                {
                    DeadOnly = true,
                    PressedTo = a.Position,
                    Minutes = 0.5,
                }),
        ];

    /// <summary>
    /// The ways of pressing it by hand that nothing comes of but that it is felt to move; none where that sets something free (a brake that is
    /// lifted lets its load down).
    /// </summary>
    private protected virtual IEnumerable<Actuation> PressedToTry(Device device) =>
        Actuations(device).Where(a => a is { DeadOnly: true, Returns: true });

    /// <summary>The armature pressed in by hand: what an electrician does before blaming a coil (common practice).</summary>
    private protected const string ArmatureLook = "armature";

    /// <summary>
    /// Direct-current resistance of the coil. Without a measured value an alternating-current coil is taken as most of the resistive
    /// part at pull-in, the middle of what makes show (common practice: tens to hundreds of ohm, far below volts over amps).
    /// </summary>
    public override Device Complete(Device device) =>
        device[CoilPlate.Ohms] > 0
            ? device
            : device.With(
                CoilPlate.Ohms.Name,
                Math.Round(
                    Math.Pow(device[CoilPlate.Volts], 2)
                        / device[CoilPlate.PullInVa]
                        * (IsDirect(device) ? 1 : CopperOfPullIn * device[CoilPlate.PullInCos]),
                    1
                )
            );

    /// <summary>Share of the losses at pull-in that is in the copper; the rest is in iron and shading ring (common practice).</summary>
    private const double CopperOfPullIn = 0.7;

    public override Device WithMoreCopper(Device device) =>
        device.With(
            CoilPlate.Ohms.Name,
            device[CoilPlate.Ohms] * Copper.Spread(device, IsDirect(device) ? Copper.OfDcCoil : Copper.OfAcCoil)
        );

    public override Device AsInstalled(Device device, Scatter scatter)
    {
        device = scatter.Multiplied(device, CoilPlate.Ohms, Copper.Spread(device, IsDirect(device) ? Copper.OfDcCoil : Copper.OfAcCoil));
        return IsDirect(device)
            ? device
            : scatter.Multiplied(scatter.Multiplied(device, CoilPlate.PullInVa, 1.25), CoilPlate.SealedVa, 1.25);
    }

    public override RatedCoil? CoilOf(Device device) =>
        new(
            Elements(device)[CoilElement],
            new Volts(device[CoilPlate.Volts]),
            IsDirect(device),
            CoilPlate.Volts.Name,
            device[CoilPlate.PullInVa],
            IsDirect(device) ? device[CoilPlate.PullInVa] : device[CoilPlate.SealedVa]
        );

    public override string? RatedVoltsParameter => CoilPlate.Volts.Name;

    public override IEnumerable<string> FollowFrom(string parameter) =>
        parameter == CoilPlate.Volts.Name
        || parameter == CoilPlate.Current.Name
        || parameter == CoilPlate.PullInVa.Name
        || parameter == CoilPlate.PullInCos.Name
            ? [CoilPlate.Ohms.Name]
            : [];

    private protected static bool IsDirect(Device device) => device[CoilPlate.Current] == "dc";
}
