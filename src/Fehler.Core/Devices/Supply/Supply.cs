using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// The incoming supply and how it is earthed: star with its star point earthed, delta unearthed, delta with one corner earthed,
/// high-leg delta (the middle of one side earthed, 240 V systems of North America), or one phase. The source's own
/// windings stay connected when the panel is isolated; that is why what is above the isolator stays live.
/// </summary>
internal sealed partial class Supply : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec LineVolts = ParameterSpec.Number(
            "lineVolts",
            "Voltage phase to phase; of a single phase, to neutral",
            "V",
            400,
            100,
            1000
        );
        public static readonly NumberSpec SourceOhms = ParameterSpec.Number(
            "sourceOhms",
            "Resistance of the feeder per line; its reactance is taken as 0.4 of it",
            "ohm",
            0.05,
            0.0001,
            5
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec Frequency = ParameterSpec.Number("frequency", "Frequency", "Hz", 50, 16, 400);
        public static readonly WordSpec Sequence = ParameterSpec.Word(
            "sequence",
            "Order of the phases",
            "L1-L2-L3",
            "L1-L2-L3",
            "L1-L3-L2"
        );
        public static readonly WordSpec System = ParameterSpec.Word(
            "system",
            "How the supply is earthed",
            "star",
            "star",
            "delta",
            "corner-earthed",
            "high-leg",
            "single-phase"
        );
        public static readonly WordSpec LowPhase = ParameterSpec.Word(
            "lowPhase",
            "Phase that is lower than the others, loaded or not",
            "none",
            "none",
            "L1",
            "L2",
            "L3"
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec LowPercent = ParameterSpec.Number("lowPercent", "By how much it is lower", "%", 0, 0, 90) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Neutral = ParameterSpec.Word(
            "neutral",
            "Whether the neutral of a star or high-leg supply comes into the panel",
            "yes",
            "yes",
            "no"
        );
    }

    public override string Id => "supply";
    public override Wording Name => "incoming supply";
    public override Wording ReplaceableUnit => "incoming supply";
    public override bool IsSupply => true;

    public override SourceRating? SourceOf(Device device) => new(new Volts(device[Plate.LineVolts]), device[Plate.Frequency]);

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [Plate.LineVolts, Plate.Frequency, Plate.Sequence, Plate.System, Plate.SourceOhms, Plate.LowPhase, Plate.LowPercent, Plate.Neutral];

    /// <summary>Star point, or the point the phases are measured from; where it is brought out a neutral leads from it to the terminal N.</summary>
    private const string Middle = "~n";

    private static bool HasNeutral(Device device) =>
        device[Plate.System] is "single-phase" || (device[Plate.System] is "star" or "high-leg" && device[Plate.Neutral] == "yes");

    private static int Phases(Device device) => device[Plate.System] == "single-phase" ? 1 : 3;

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            .. Enumerable.Range(1, Phases(device)).Select(k => new Element(Middle, $"L{k}", ElementRole.Source)),
            .. device[Plate.System] switch
            {
                "delta" => [new("L1", "PE", ElementRole.Load), new("L2", "PE", ElementRole.Load), new("L3", "PE", ElementRole.Load)],
                "corner-earthed" => [new("L2", "PE", ElementRole.Link)],
                _ when !HasNeutral(device) => [new(Middle, "PE", ElementRole.Link)],
                _ => new Element[] { new(Middle, "N", ElementRole.Link), new(Middle, "PE", ElementRole.Link) },
            },
        ];

    public override ImmutableArray<string> Terminals(Device device) =>
        device[Plate.System] switch
        {
            "single-phase" => ["L1", "N", "PE"],
            _ when !HasNeutral(device) => ["L1", "L2", "L3", "PE"],
            _ => ["L1", "L2", "L3", "N", "PE"],
        };

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["on", "lost", .. Missing(device)];

    private static IEnumerable<string> Missing(Device device) =>
        Enumerable.Range(1, Phases(device)).Where(_ => Phases(device) > 1).Select(k => $"L{k} missing");

    /// <summary>Switched off elsewhere.</summary>
    public override (string Off, string On, int Rank)? IsolatingPositions => ("lost", "on", 2);

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [
            new("lost", "Supply is lost", false),
            new("on", "Supply comes back", false),
            .. Missing(device).Select(m => new Actuation(m, $"Take {m[..2]} away (its fuse out)", false) { IsHarsh = true }),
        ];

    /// <summary>A rotation indicator, put on at the three lines.</summary>
    public override ImmutableArray<Look> Looks(Device device) =>
        Phases(device) == 1
            ? []
            :
            [
                new("rotation", $"Rotation indicator on {device.Tag}:L1, L2 and L3", "L1-L2-L3", "L1-L3-L2", "a phase is missing")
                {
                    Measured = true,
                    Minutes = 2,
                },
            ];
}
