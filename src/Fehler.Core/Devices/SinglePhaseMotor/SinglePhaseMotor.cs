using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>A single-phase motor with a capacitor-fed auxiliary winding: without it the motor hums and does not start.</summary>
internal sealed partial class SinglePhaseMotor : CompleteKind
{
    /// <summary>Starting current over nameplate, and its power factor (common practice).</summary>
    private const double StartMultiple = 5,
        StartCos = 0.6;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Kilowatts = ParameterSpec.Number("kilowatts", "Rated power", "kW", 0.75, 0.02, 15);
        public static readonly NumberSpec Volts = ParameterSpec.Number("volts", "Rated voltage", "V", 230, 50, 500);
        public static readonly NumberSpec Amps = ParameterSpec.Number("amps", "Nameplate current", "A", 5, 0.1, 100);
        public static readonly NumberSpec CosPhi = ParameterSpec.Number("cosPhi", "Nameplate power factor", "", 0.85, 0.4, 0.99);
        public static readonly NumberSpec WindingOhms = ParameterSpec.Number(
            "windingOhms",
            "Main winding at direct current; 0: from the nameplate",
            "ohm",
            0,
            0,
            1000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec Load = ParameterSpec.Number("load", "Load torque over rated torque", "", 0.7, 0, 3) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Auxiliary = ParameterSpec.Word(
            "auxiliary",
            "Auxiliary winding: inside with its capacitor, or brought out as Z1-Z2 to one, in circuit for good or only to start",
            "inside",
            "inside",
            "run",
            "start"
        );
        public static readonly WordSpec Switch = ParameterSpec.Word(
            "startSwitch",
            "Switch that takes a starting winding out once the motor turns",
            "sound",
            "sound",
            "stuck closed"
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Capacitor = ParameterSpec.Word(
            "capacitor",
            "Whether the auxiliary winding's capacitor is sound",
            "sound",
            "sound",
            "open"
        ) with
        {
            Group = PlateGroup.Expert,
        };
    }

    /// <summary>Least share of rated voltage at which it starts, and at which it keeps turning.</summary>
    private const double Starts = 0.6,
        Keeps = 0.4;

    public override string Id => "single-phase-motor";
    public override Wording Name => "single-phase motor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        Plate.Kilowatts,
        Plate.Volts,
        Plate.Amps,
        Plate.CosPhi,
        Plate.WindingOhms,
        Plate.Load,
        Plate.Auxiliary,
        Plate.Switch,
        Plate.Capacitor,
        Copper.Known,
    ];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        HasAuxiliary(device) ? [new("U1", "U2", ElementRole.Load), new("Z1", "Z2", ElementRole.Load)] : [new("U1", "U2", ElementRole.Load)];

    private static bool HasAuxiliary(Device device) => device[Plate.Auxiliary] != "inside";

    public override ImmutableArray<string> Terminals(Device device) =>
        [.. OwnElements(device).SelectMany(e => new[] { e.A, e.B }).Append("PE").Select(device.Printed)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["standing", "running", "running in reverse"];

    public override ImmutableArray<string> Appearances =>
        ["stopped", "runs", "runs reverse", "hums, does not start", "runs, way not known"];
    public override bool IsSlow => true;

    public override string Heard(string before, string after) => MotorSounds.Between(this, before, after);

    public override bool IsWorking(string appearance) => appearance.StartsWith("runs", StringComparison.Ordinal);

    public override bool IsStalled(string appearance) => appearance.StartsWith("hums", StringComparison.Ordinal);

    public override Device AsInstalled(Device device, Scatter scatter) =>
        scatter.Multiplied(device, Plate.WindingOhms, Copper.Spread(device, Copper.OfMotor));

    public override Device WithMoreCopper(Device device) =>
        device.With(Plate.WindingOhms.Name, device[Plate.WindingOhms] * Copper.Spread(device, Copper.OfMotor));

    public override Device FullyLoaded(Device device) => device.With(Plate.Load.Name, 1.0);

    public override string? RatedVoltsParameter => Plate.Volts.Name;

    public override IEnumerable<string> FollowFrom(string parameter) =>
        parameter == Plate.Volts.Name || parameter == Plate.Amps.Name ? [Plate.WindingOhms.Name] : [];

    public override Device Complete(Device device) =>
        device[Plate.WindingOhms] > 0
            ? device
            : device.With(
                Plate.WindingOhms.Name,
                Math.Round(0.5 * device[Plate.Volts] / (StartMultiple * device[Plate.Amps]) * StartCos, 2)
            );

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("shaft", $"Turn the shaft of {device.Tag} by hand", "turns freely", "heavy", "jammed") { DeadOnly = true, Minutes = 2 }];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"The capacitor of {device.Tag} keeps its charge: discharge it before touching its terminals."];
}
