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
        public static readonly NumberSpec LineVolts = ParameterSpec.Number("lineVolts", "Rated voltage phase to phase", "V", 400, 50, 1000);
        public static readonly NumberSpec UnderPercent = ParameterSpec.Number("underPercent", "Undervoltage limit", "%", 85, 50, 99);
        public static readonly NumberSpec OverPercent = ParameterSpec.Number("overPercent", "Overvoltage limit", "%", 112, 101, 150);
        public static readonly NumberSpec UnbalancePercent = ParameterSpec.Number("unbalancePercent", "Unbalance limit", "%", 8, 2, 30);
        public static readonly NumberSpec DropSeconds = ParameterSpec.Number("dropSeconds", "Delay before it lets go", "s", 1, 0.05, 60);
        public static readonly NumberSpec BackSeconds = ParameterSpec.Number(
            "backSeconds",
            "Qualifying delay before it comes back",
            "s",
            2,
            0.05,
            900
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
    [Plate.LineVolts, Plate.UnderPercent, Plate.OverPercent, Plate.UnbalancePercent, Plate.DropSeconds, Plate.BackSeconds, Plate.Contacts];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            new("L1", "L2", ElementRole.Load),
            new("L2", "L3", ElementRole.Load),
            new("L3", "L1", ElementRole.Load),
            .. device[Plate.Contacts].Select(Element.FromContact),
        ];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["fault", "good"];

    public override int InitialPosition(Device device) => Good;

    public override ImmutableArray<string> Appearances => ["good", "fault", "off"];

    public override ImmutableArray<Look> Looks(Device device) => [new("indicator", $"Indicator of {device.Tag}", "good", "fault")];
}
