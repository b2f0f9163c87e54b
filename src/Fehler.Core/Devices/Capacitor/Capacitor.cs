using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>The capacitor of a single-phase motor: it stays in circuit (run) or is taken out once the motor has started (start).</summary>
internal sealed partial class Capacitor : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Microfarads = ParameterSpec.Number("microfarads", "Capacitance", "µF", 25, 0.1, 2000);
        public static readonly NumberSpec Frequency = ParameterSpec.Number("frequency", "Frequency it works at", "Hz", 50, 16, 400);
    }

    public override string Id => "capacitor";
    public override Wording Name => "capacitor";
    public override string Letters => "C";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Box;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Microfarads, Plate.Frequency];

    private protected override ImmutableArray<Element> OwnElements(Device device) => [new("1", "2", ElementRole.Load)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    /// <summary>Printed values hold to some 5 to 10 % (common practice).</summary>
    public override Device AsInstalled(Device device, Scatter scatter) => scatter.Multiplied(device, Plate.Microfarads, 1.05);

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("can", $"Can of {device.Tag}", "sound", "bulged or leaking") { DeadOnly = true, Minutes = 1 }];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"{device.Tag} keeps its charge: discharge it through a resistor before touching its terminals."];
}
