using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class ImpulseRelay
{
    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var pulled = IsPulled(device, state, meter);
        return new Transition(
            state with
            {
                Position = state.Position switch
                {
                    Off when pulled => SwitchedOn,
                    On when pulled => SwitchedOff,
                    SwitchedOn when !pulled => On,
                    SwitchedOff when !pulled => Off,
                    var unchanged => unchanged,
                },
            }
        );
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => state.Position % 2 == 1 ? "on" : "off";

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "lever"
            ? state.Position % 2 == 1
                ? "on"
                : "off"
            : base.Seen(device, look, state, drawn);
}
