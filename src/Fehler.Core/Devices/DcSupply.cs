using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A direct-current supply for the control circuit.</summary>
internal sealed class DcSupply : DirectSource
{
    public override string Id => "dc-supply";
    public override string Term => "DC supply";
    private protected override (string A, string B) InputTerminals => ("L", "N");

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("inputVolts", "Rated input voltage", "V", 230, 20, 690),
        ParameterSpec.Number("outputVolts", "Rated output voltage", "V", 24, 5, 240),
        ParameterSpec.Number("outputAmps", "Rated output current", "A", 2.5, 0.1, 40),
    ];

    public override ImmutableArray<string> Appearances => ["DC OK", "off", "overloaded"];

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position switch { On => "DC OK", Off => "off", _ => "overloaded" };

    private protected override double OutputVolts(Device device) => device.Number("outputVolts");
    private protected override double InputVolts(Device device) => device.Number("inputVolts");
    private protected override double OutputOhms(Device device) => 0.01 * OutputVolts(device) / device.Number("outputAmps");
    private protected override double LimitAmps(Device device) => 1.5 * device.Number("outputAmps");
    private protected override double InputVa(Device device) => 0.3 * OutputVolts(device) * device.Number("outputAmps");
}
