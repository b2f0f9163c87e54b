using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Isolator
{
    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 1 ? "on" : "off";
}
