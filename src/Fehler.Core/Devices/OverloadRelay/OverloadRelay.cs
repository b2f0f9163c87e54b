using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A thermal overload relay. It does not break the motor's current itself: its contact 95-96 has to stand in the
/// control circuit.
/// </summary>
internal sealed partial class OverloadRelay : CompleteKind
{
    private const int Set = 0,
        Tripped = 1;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec SettingAmps = ParameterSpec.Number("settingAmps", "Current on the dial", "A", 8, 0.05, 1600) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec TripClass = ParameterSpec.Number("tripClass", "Trip class", "", 10, 5, 40) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec Type = ParameterSpec.Word(
            "type",
            "How it senses the current",
            "bimetal",
            "bimetal",
            "melting alloy",
            "electronic"
        );
        public static readonly WordSpec Reset = ParameterSpec.Word("reset", "Reset mode", "hand", "hand", "automatic") with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec PhaseLossSensitive = ParameterSpec.Word(
            "phaseLossSensitive",
            "Trips early with a phase lost",
            "yes",
            "yes",
            "no"
        );
        public static readonly WordSpec TestTrip = ParameterSpec.Word("testTrip", "Test trip", "one", "one", "per element");
    }

    public override string Id => "overload-relay";
    public override Wording Name => "overload relay";

    public override LadderShape LadderShapeOf(Element? element) =>
        element?.Role == ElementRole.Link ? LadderShape.Heater : base.LadderShapeOf(element);

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [Plate.SettingAmps, Plate.TripClass, Plate.Type, Plate.Reset, Plate.PhaseLossSensitive, Plate.TestTrip];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            new("1", "2", ElementRole.Link),
            new("3", "4", ElementRole.Link),
            new("5", "6", ElementRole.Link),
            new("95", "96", ElementRole.NormallyClosed),
            new("97", "98", ElementRole.NormallyOpen),
        ];

    public override bool ResetsByItself(Device device) => device[Plate.Reset] == "automatic";

    public override Dial? DialOf(Device device) =>
        new(new Amps(device[Plate.SettingAmps]), Elements(device)[0], Plate.SettingAmps.Name) { TripClass = device[Plate.TripClass] };

    public override ImmutableArray<string> Positions(Device device) => ["reset", "tripped"];

    public override ImmutableArray<string> TriedOneByOne(Device device) =>
        device[Plate.TestTrip] == "per element" ? [.. Poles(device).Select(p => $"element {p.Line}-{p.Load}")] : [];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("tripped", "Operate the test trip", false), new("reset", "Press Reset", false, Resets: true)];

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            new("flag", $"Trip flag of {device.Tag}", "not tripped", "tripped") { WipedByReset = true },
            new(
                "dial",
                FormattableString.Invariant($"Dial of {device.Tag}: set to {device[Plate.SettingAmps]:0.##} A?"),
                "as it should be",
                "lower",
                "higher"
            ),
            new(
                "class",
                FormattableString.Invariant($"Class printed or set on {device.Tag}: {device[Plate.TripClass]:0}?"),
                "as it should be",
                "quicker",
                "slower"
            ),
            new("reset-mode", $"Reset of {device.Tag} set to {device[Plate.Reset]}?", "as it should be", "the other one"),
        ];

    public override IEnumerable<Wording> Cautions(Device device) =>
        device[Plate.Reset] == "automatic"
            ? [$"{device.Tag} resets by itself when it has cooled: a motor without {Term.RetainingContact} then starts."]
            : [$"Resetting {device.Tag} may start the motor and wipes the evidence: look and measure first."];
}
