using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class DrumSwitch
{
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];
}
