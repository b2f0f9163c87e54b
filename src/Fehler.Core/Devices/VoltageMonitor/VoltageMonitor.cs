using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A voltage-monitoring relay: its contacts are operated while the three line voltages are there, in sequence, within limits and
/// balanced. It lets go after a delay and comes back after another.
/// </summary>
internal sealed partial class VoltageMonitor : CompleteKind
{
    private const int Dropped = 0,
        Good = 1;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec LineVolts = ParameterSpec.Number(
            "lineVolts",
            "Set point, phase to phase",
            "V",
            400,
            50,
            1000
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec UnderPercent = ParameterSpec.Number(
            "underPercent",
            "Undervoltage limit, of the set point",
            "%",
            85,
            50,
            99
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec OverPercent = ParameterSpec.Number(
            "overPercent",
            "Overvoltage limit, of the set point",
            "%",
            112,
            101,
            150
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec UnbalancePercent = ParameterSpec.Number("unbalancePercent", "Unbalance limit", "%", 8, 2, 30) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec DropSeconds = ParameterSpec.Number(
            "dropSeconds",
            "Delay before it lets go",
            "s",
            1,
            0.05,
            60
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec BackSeconds = ParameterSpec.Number(
            "backSeconds",
            "Qualifying delay before it comes back",
            "s",
            2,
            0.05,
            900
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec Neutral = ParameterSpec.Word("neutral", "Watches the neutral too", "no", "yes", "no") with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec Indicators = ParameterSpec.Word(
            "indicators",
            "One indicator, or one for each cause",
            "one",
            "one",
            "per cause"
        );
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Change-over contacts: 11-14 made while good, 11-12 while not",
            "11-14"
        );
    }

    public override string Id => "voltage-monitor";
    public override Wording Name => "voltage-monitoring relay";
    public override string Letters => "U<>";
    public override bool SharesTerminals => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        Plate.LineVolts,
        Plate.UnderPercent,
        Plate.OverPercent,
        Plate.UnbalancePercent,
        Plate.DropSeconds,
        Plate.BackSeconds,
        Plate.Neutral,
        Plate.Indicators,
        Plate.Contacts,
    ];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            new("L1", "L2", ElementRole.Load),
            new("L2", "L3", ElementRole.Load),
            new("L3", "L1", ElementRole.Load),
            .. device[Plate.Neutral] == "yes" ? Enumerable.Range(1, 3).Select(k => new Element($"L{k}", "N", ElementRole.Load)) : [],
            .. device[Plate.Contacts].Select(Element.FromContact),
        ];

    public override SetPoint? SetPointOf(Device device) =>
        new(new Volts(device[Plate.LineVolts]), Plate.LineVolts.Name, device[Plate.UnderPercent], device[Plate.OverPercent]);

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["fault", "good"];

    public override int InitialPosition(Device device) => Good;

    public override ImmutableArray<string> Appearances => ["good", "fault", "off"];

    public override ImmutableArray<Look> Looks(Device device) =>
        device[Plate.Indicators] == "per cause"
            ? [new("indicator", $"Indicators of {device.Tag}", ["good", .. Causes(device), "fault", "off"]) { Measured = true }]
            : [new("indicator", $"Indicator of {device.Tag}", "good", "fault")];

    private static IEnumerable<string> Causes(Device device) =>
        [
            "phase lost",
            "wrong sequence",
            "undervoltage",
            "overvoltage",
            "unbalance",
            .. device[Plate.Neutral] == "yes" ? ["neutral lost"] : Array.Empty<string>(),
        ];

    public override bool WatchesSupply => true;

    public override bool HasDelays => true;
}
