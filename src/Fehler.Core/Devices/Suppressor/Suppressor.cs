using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A coil suppressor: resistor and capacitor, varistor, or a free-wheeling diode on direct current.</summary>
internal sealed partial class Suppressor : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec Type = ParameterSpec.Word(
            "type",
            "Resistor and capacitor, varistor, or diode",
            "rc",
            "rc",
            "varistor",
            "diode"
        );
        public static readonly NumberSpec Volts = ParameterSpec.Number("volts", "Rated voltage", "V", 230, 5, 690);
    }

    public override string Id => "suppressor";
    public override Wording Name => "coil suppressor";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Box;

    public override string? RatedVoltsParameter => Plate.Volts.Name;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Type, Plate.Volts];

    private protected override ImmutableArray<Element> OwnElements(Device device) => [new("1", "2", ElementRole.Load)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
}
