using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A pilot lamp, filament or LED.</summary>
internal sealed partial class PilotLamp : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Volts = ParameterSpec.Number("volts", "Rated voltage", "V", 230, 6, 690);
        public static readonly NumberSpec Watts = ParameterSpec.Number("watts", "Power at rated voltage", "W", 1.5, 0.05, 60);
        public static readonly WordSpec Lamp = ParameterSpec.Word("lamp", "Kind of lamp", "led", "led", "filament");
        public static readonly WordSpec Light = ParameterSpec.Word("light", "Steady or flashing", "steady", "steady", "flashing");
        public static readonly WordSpec Colour = ParameterSpec.Word(
            "colour",
            "Colour of the lens",
            "white",
            "white",
            "red",
            "green",
            "yellow",
            "blue"
        );
    }

    public override string Id => "pilot-lamp";
    public override Wording Name => $"{Term.PilotLamp}";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Lamp;

    public override string? RatedVoltsParameter => Plate.Volts.Name;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Volts, Plate.Watts, Plate.Lamp, Plate.Light, Plate.Colour];

    private protected override ImmutableArray<Element> OwnElements(Device device) => [new("X1", "X2", ElementRole.Load)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Appearances => ["off", "on", "dim", "flashes"];
}
