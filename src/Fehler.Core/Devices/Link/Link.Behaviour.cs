using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Link
{
    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];
}
