using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class DcSupply
{
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position switch
        {
            On => "DC OK",
            Off => "off",
            _ => "overloaded",
        };
}
