using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class MotorBreaker
{
    /// <summary>Magnetic release over the dial's top, common practice about 13.</summary>
    private const double MagneticMultiple = 13;

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "toggle"
            ? Positions(device)[state.Position]
            : ThermalTrip.DialSeen(device[Plate.SettingAmps] / drawn[Plate.SettingAmps]);

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var worst = Currents(device, meter).Max();
        return state.Position == On && worst > MagneticMultiple
            ? new Transition(state with { Position = Tripped }, worst / MagneticMultiple)
            : new Transition(state);
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        var amps = Currents(device, meter);
        var seconds = ThermalTrip.TimeToTrip(amps.Max(), amps.Min(), device[Plate.TripClass], phaseLossSensitive: true, state.Heat);
        return state.Position == On && seconds.IsFinite
            ? new TimedTransition(seconds, state with { Position = Tripped }, IsLeft: true)
            : null;
    }

    public override double Heated(Device device, DeviceState state, IDeviceMeter meter, Seconds time) =>
        ThermalTrip.Heated(state.Heat, Currents(device, meter).Max(), device[Plate.TripClass], time);

    public override Wording? Refuses(Device device, DeviceState state, string position) =>
        state.Position != On && position == Positions(device)[On]
            ? ThermalTrip.TooHot(device.Tag, state.Heat, device[Plate.TripClass])
            : null;

    private static List<double> Currents(Device device, IDeviceMeter meter) =>
        [.. Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device[Plate.SettingAmps])];
}
