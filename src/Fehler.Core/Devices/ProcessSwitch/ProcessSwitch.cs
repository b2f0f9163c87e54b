using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A switch that the process operates: limit, float, pressure, door, safety edge, thermostat. A two-wire control by one of these
/// restarts by itself.
/// </summary>
internal sealed partial class ProcessSwitch : ControlSwitch
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec Senses = ParameterSpec.Word(
            "senses",
            "What operates it",
            "limit",
            "limit",
            "float",
            "pressure",
            "door",
            "edge",
            "temperature",
            "flow"
        );
    }

    public override string Id => "process-switch";
    public override Wording Name => "limit or process switch";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.ProcessSwitch;

    private protected override string DefaultContact => "13-14";

    public override ImmutableArray<ParameterSpec> Parameters => [.. base.Parameters, Plate.Senses];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "operated"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [
            new(
                "operated",
                device[Plate.Senses] switch
                {
                    "limit" => "Reach the limit",
                    "float" => "Raise the float",
                    "pressure" => "Let the pressure reach its point",
                    "door" => "Open the door",
                    "edge" => "Press the safety edge",
                    "flow" => "Let it flow",
                    _ => "Let the temperature reach its point",
                },
                false
            ),
            new(
                "rest",
                device[Plate.Senses] switch
                {
                    "limit" => "Leave the limit",
                    "float" => "Lower the float",
                    "door" => "Close the door",
                    "edge" => "Let go of the safety edge",
                    "flow" => "Stop the flow",
                    _ => "Let it fall back",
                },
                false
            ),
        ];

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("operator", $"Lever or sensor of {device.Tag} ({device.Function})", "at rest", "operated")];

    public override IEnumerable<Wording> Cautions(Device device) =>
        device[Plate.Senses] is "float" or "pressure" or "temperature" or "flow"
            ? [$"{device.Tag} may start the motor at any time without warning."]
        : device[Plate.Senses] is "door" or "edge" or "limit"
            ? [$"Never bridge {device.Tag}: volts across it, or ohms when dead, tell the same."]
        : [];
}
