using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A direct-current supply for the control circuit.</summary>
internal sealed partial class DcSupply : DirectSource
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec InputVolts = ParameterSpec.Number("inputVolts", "Rated input voltage", "V", 230, 20, 690);
        public static readonly NumberSpec OutputVolts = ParameterSpec.Number("outputVolts", "Rated output voltage", "V", 24, 5, 240);
        public static readonly NumberSpec OutputAmps = ParameterSpec.Number("outputAmps", "Rated output current", "A", 2.5, 0.1, 40);
    }

    public override string Id => "dc-supply";
    public override Wording Name => "DC supply";
    public override string Letters => "~/=";
    private protected override (string A, string B) InputTerminals => ("L", "N");

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.InputVolts, Plate.OutputVolts, Plate.OutputAmps];

    public override ImmutableArray<string> Appearances => ["DC OK", "off", "overloaded"];

    private protected override double OutputVolts(Device device) => device[Plate.OutputVolts];

    private protected override double InputVolts(Device device) => device[Plate.InputVolts];

    private protected override double OutputOhms(Device device) => 0.01 * OutputVolts(device) / device[Plate.OutputAmps];

    private protected override double LimitAmps(Device device) => 1.5 * device[Plate.OutputAmps];

    private protected override double InputVa(Device device) => 0.3 * OutputVolts(device) * device[Plate.OutputAmps];
}
