using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A rectifier for a brake: the direct voltage follows from the alternating one.</summary>
internal sealed class Rectifier : DirectSource
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec InputVolts = ParameterSpec.Number("inputVolts", "Rated input voltage", "V", 400, 20, 690);
        public static readonly WordSpec Bridge = ParameterSpec.Word(
            "bridge",
            "Half wave gives 0.45, full wave 0.9 of the alternating voltage",
            "half wave",
            "half wave",
            "full wave"
        );
        public static readonly NumberSpec OutputAmps = ParameterSpec.Number("outputAmps", "Rated output current", "A", 1, 0.1, 40);
    }

    public override string Id => "rectifier";
    public override Wording Name => "rectifier";
    public override string Letters => "~/=";
    private protected override (string A, string B) InputTerminals => ("1", "2");

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.InputVolts, Plate.Bridge, Plate.OutputAmps];

    private protected override double OutputVolts(Device device) =>
        Math.Round(InputVolts(device) * (device[Plate.Bridge] == "half wave" ? 0.45 : 0.9));

    private protected override double InputVolts(Device device) => device[Plate.InputVolts];

    private protected override double OutputOhms(Device device) => 0.5;

    private protected override double LimitAmps(Device device) => 20 * device[Plate.OutputAmps];

    private protected override double InputVa(Device device) => 0.25 * OutputVolts(device) * device[Plate.OutputAmps];
}
