using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>
/// A three-phase cage induction motor with three leads, or with six for star-delta starting. Its windings are coupled through the rotor:
/// positive- and
/// negative-sequence impedance differ once it turns, which is why a running motor feeds a lost phase back. Speed
/// follows from the torque balance, the negative sequence included.
/// </summary>
internal sealed partial class Motor : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Kilowatts = ParameterSpec.Number("kilowatts", "Rated power", "kW", 4, 0.02, 1000);
        public static readonly NumberSpec Volts = ParameterSpec.Number(
            "volts",
            "Voltage phase to phase of the connection fitted",
            "V",
            400,
            100,
            1000
        );
        public static readonly NumberSpec Amps = ParameterSpec.Number("amps", "Nameplate current at that voltage", "A", 8.1, 0.05, 2000);
        public static readonly NumberSpec CosPhi = ParameterSpec.Number("cosPhi", "Nameplate power factor", "", 0.82, 0.4, 0.99);
        public static readonly NumberSpec Rpm = ParameterSpec.Number("rpm", "Nameplate speed", "1/min", 1440, 100, 3600);
        public static readonly NumberSpec SynchronousRpm = ParameterSpec.Number(
            "synchronousRpm",
            "Synchronous speed",
            "1/min",
            1500,
            125,
            3600
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec StartingMultiple = ParameterSpec.Number(
            "startingMultiple",
            "Starting current over nameplate current",
            "",
            6,
            3,
            10
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec Load = ParameterSpec.Number("load", "Load torque over rated torque", "", 0.7, 0, 3) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec BreakawayLoad = ParameterSpec.Number(
            "breakawayLoad",
            "Torque that its load holds at standstill over rated torque; 0: as while it runs",
            "",
            0,
            0,
            3
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Shaft = ParameterSpec.Word("shaft", "Whether its shaft can turn", "free", "free", "jammed") with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec StatorOhms = ParameterSpec.Number(
            "statorOhms",
            "Stator resistance per phase of an equivalent star; 0: from the nameplate",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec WindingOhms = ParameterSpec.Number(
            "windingOhms",
            "What an ohmmeter finds per phase of an equivalent star, half of what it reads between two terminals; 0: the stator resistance",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec RotorOhms = ParameterSpec.Number(
            "rotorOhms",
            "Rotor resistance, referred to the stator; 0: from the nameplate",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec RotorLockedOhms = ParameterSpec.Number(
            "rotorLockedOhms",
            "Rotor resistance at standstill, referred; 0: as running, or from the nameplate",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec StatorReactance = ParameterSpec.Number(
            "statorReactance",
            "Stator leakage reactance; 0: from the nameplate",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec RotorReactance = ParameterSpec.Number(
            "rotorReactance",
            "Rotor leakage reactance, referred; 0: from the nameplate",
            "ohm",
            0,
            0,
            10000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec MagnetisingReactance = ParameterSpec.Number(
            "magnetisingReactance",
            "Magnetising reactance; 0: from the nameplate",
            "ohm",
            0,
            0,
            100000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Connection = ParameterSpec.Word(
            "connection",
            "How the windings are connected; with six leads the starter connects them",
            "star",
            "star",
            "delta"
        );
        public static readonly NumberSpec Leads = ParameterSpec.Number("leads", "Leads brought out; six for star-delta", "", 3, 3, 6);
        public static readonly NumberSpec CoastSeconds = ParameterSpec.Number("coastSeconds", "Time it runs down in", "s", 0, 0, 600) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec StartSeconds = ParameterSpec.Number(
            "startSeconds",
            "Time from standstill to its speed at full voltage",
            "s",
            1,
            0,
            120
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Brake = ParameterSpec.Word("brake", "Tag of the brake on its shaft; none when empty", "");
    }

    public override string Id => "motor";
    public override Wording Name => "motor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        .. Given,
        Plate.Load,
        .. WorkedOut,
        Plate.Connection,
        Plate.Leads,
        Plate.StartSeconds,
        Plate.CoastSeconds,
        Plate.Brake,
        Plate.BreakawayLoad,
        Plate.Shaft,
        Copper.Known,
    ];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [.. Leads(device).Select(lead => new Element(lead, Inner(lead), ElementRole.Link))];

    private static ImmutableArray<string> Leads(Device device) => HasSixLeads(device) ? ["U1", "V1", "W1"] : ["U", "V", "W"];

    private static bool HasSixLeads(Device device) => device[Plate.Leads] == 6;

    private static string Inner(string lead) => $"~{char.ToLowerInvariant(lead[0])}";

    public override bool IsSlow => true;

    public override string Heard(string before, string after) => MotorSounds.Between(this, before, after);

    public override bool IsWorking(string appearance) => appearance.StartsWith("runs", StringComparison.Ordinal);

    public override bool IsStalled(string appearance) => appearance.StartsWith("hums", StringComparison.Ordinal);

    public override bool IsRough(string appearance) => appearance == "runs rough";

    public override MotorPlate? PlateOf(Device device) =>
        new(device[Plate.Kilowatts], new Volts(device[Plate.Volts]), new Amps(device[Plate.Amps]), device[Plate.CosPhi], Plate.Amps.Name)
        {
            StartingMultiple = device[Plate.StartingMultiple],
            Rpm = device[Plate.Rpm],
            SynchronousRpm = device[Plate.SynchronousRpm],
            RpmParameter = Plate.Rpm.Name,
            LeadShare = HasSixLeads(device) ? 1 / Math.Sqrt(3) : 1,
        };

    public override Device FullyLoaded(Device device) => device.With(Plate.Load.Name, 1.0);

    /// <summary>What the nameplate is fitted from, and what is worked out of it.</summary>
    private static readonly NumberSpec[] Given =
        [Plate.Kilowatts, Plate.Volts, Plate.Amps, Plate.CosPhi, Plate.Rpm, Plate.SynchronousRpm, Plate.StartingMultiple],
        WorkedOut =

        [
            Plate.StatorOhms,
            Plate.WindingOhms,
            Plate.RotorOhms,
            Plate.RotorLockedOhms,
            Plate.StatorReactance,
            Plate.RotorReactance,
            Plate.MagnetisingReactance,
        ];

    public override IEnumerable<string> FollowFrom(string parameter) =>
        Given.Any(p => p.Name == parameter) ? WorkedOut.Select(p => p.Name) : [];

    public override Device Complete(Device device)
    {
        var complete = device[Plate.StatorOhms] > 0 ? device : Machine.Fit(device).Describe(device);
        return complete[Plate.WindingOhms] > 0 ? complete : complete.With(Plate.WindingOhms.Name, complete[Plate.StatorOhms]);
    }

    public override Device AsInstalled(Device device, Scatter scatter)
    {
        var installed = scatter.Multiplied(device, Plate.WindingOhms, Copper.Spread(device, Copper.OfMotor));
        foreach (var spec in new[] { Plate.StatorReactance, Plate.RotorReactance, Plate.MagnetisingReactance, Plate.StatorOhms })
        {
            installed = scatter.Multiplied(installed, spec, 1.1);
        }

        return scatter.Multiplied(installed, Plate.Load, 1.3) is var loaded && loaded[Plate.Load] > 1 ? installed : loaded;
    }

    public override Device WithMoreCopper(Device device) =>
        device.With(Plate.WindingOhms.Name, device[Plate.WindingOhms] * Copper.Spread(device, Copper.OfMotor));

    public override ImmutableArray<string> Terminals(Device device) =>
        [.. Leads(device).Concat(HasSixLeads(device) ? ["U2", "V2", "W2", "PE"] : ["PE"]).Select(device.Printed)];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "coasting"];

    public override IEnumerable<string> CoupledTo(Device device) => device[Plate.Brake] is { Length: > 0 } brake ? [brake] : [];

    /// <summary>A motor ends the path: three leads, no way on.</summary>
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Appearances =>
        ["stopped", "runs", "runs rough", "hums, does not start", "runs reverse", "runs in star", "coasts", "runs, way not known"];

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            new("shaft", $"Turn the shaft of {device.Tag} by hand", "turns freely", "heavy", "jammed", "drives nothing")
            {
                DeadOnly = true,
                Minutes = 2,
            },
        ];

    private static readonly (string From, string To)[] Open = [("~u", "U2"), ("~v", "V2"), ("~w", "W2")],
        Delta = [("~u", "V"), ("~v", "W"), ("~w", "U")],
        Star = [("~u", "~star"), ("~v", "~star"), ("~w", "~star")];

    private static (string From, string To)[] Windings(Device device) =>
        HasSixLeads(device) ? Open
        : device[Plate.Connection] == "delta" ? Delta
        : Star;
}
