using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class TimerRelay
{
    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var on = IsPulled(device, state, meter);
        // Off-delay: "timed out" is energised, "timing" is running off with the coil dead.
        var next =
            device[Plate.Function] == "off-delay"
                ? on
                    ? Done
                    : state.Position == Done
                        ? Running
                        : state.Position
                : !on
                    ? Rest
                    : state.Position == Rest
                        ? Running
                        : state.Position;
        return new Transition(state with { Position = next });
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position switch
        {
            Running when device[Plate.Function] == "star-delta" => new(new(device[Plate.Seconds]), state with { Position = Dwelling }),
            Running => new(new(device[Plate.Seconds]), state with { Position = device[Plate.Function] == "off-delay" ? Rest : Done }),
            Dwelling => new(new(device[Plate.DwellSeconds]), state with { Position = Done }),
            _ => null,
        };

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position switch
        {
            Rest => "off",
            Done => "on",
            _ => "timing",
        };

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "dial"
            ? (device[Plate.Seconds] / drawn[Plate.Seconds]) switch
            {
                < 0.8 => "shorter",
                > 1.25 => "longer",
                _ => "as it should be",
            }
            : base.Seen(device, look, state, drawn);
}
