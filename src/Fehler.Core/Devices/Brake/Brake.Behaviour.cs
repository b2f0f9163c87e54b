using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Brake
{
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];
}
