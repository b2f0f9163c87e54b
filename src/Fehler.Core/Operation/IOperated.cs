using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>What a kind of device does, and what is seen of it.</summary>
internal interface IOperated
{
    /// <summary>What the device does at once in a solved circuit.</summary>
    Transition Settle(Device device, DeviceState state, IDeviceMeter meter);

    /// <summary>What it will do after a time if nothing changes.</summary>
    TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter);

    /// <summary>How warm it is after some time in which nothing else changes, see <see cref="DeviceState.Heat"/>.</summary>
    double Heated(Device device, DeviceState state, IDeviceMeter meter, Seconds time);

    /// <summary>Time that its rotor takes from standstill to its speed at full voltage; 0 for what has none.</summary>
    Seconds RunUpTime(Device device);

    /// <summary>Why a hand cannot bring it to a position now; null when it can.</summary>
    Wording? Refuses(Device device, DeviceState state, string position);

    /// <summary>
    /// What a person sees or hears of it, one of its <see cref="DeviceKind.Appearances"/>; null when there is nothing to see.
    /// </summary>
    string? Appearance(Device device, DeviceState state, IDeviceMeter meter);

    /// <summary>What a look shows in this state; <paramref name="drawn"/> is the device as the drawing has it, for comparison.</summary>
    string Seen(Device device, Look look, DeviceState state, Device drawn);

    /// <summary>What a look shows that goes by the voltages and currents at the moment, see <see cref="Look.Measured"/>.</summary>
    string Measured(Device device, Look look, DeviceState state, IDeviceMeter meter);
}

/// <summary>Asks a kind for its operating side.</summary>
internal static class OperatedSide
{
    public static Transition Settle(this DeviceKind kind, Device device, DeviceState state, IDeviceMeter meter) =>
        ((IOperated)kind).Settle(device, state, meter);

    public static TimedTransition? Timed(this DeviceKind kind, Device device, DeviceState state, IDeviceMeter meter) =>
        ((IOperated)kind).Timed(device, state, meter);

    public static double Heated(this DeviceKind kind, Device device, DeviceState state, IDeviceMeter meter, Seconds time) =>
        ((IOperated)kind).Heated(device, state, meter, time);

    public static Seconds RunUpTime(this DeviceKind kind, Device device) => ((IOperated)kind).RunUpTime(device);

    public static Wording? Refuses(this DeviceKind kind, Device device, DeviceState state, string position) =>
        ((IOperated)kind).Refuses(device, state, position);

    public static string? Appearance(this DeviceKind kind, Device device, DeviceState state, IDeviceMeter meter) =>
        ((IOperated)kind).Appearance(device, state, meter);

    /// <summary>What a look at a device shows.</summary>
    /// <param name="kind">The device's kind.</param>
    /// <param name="device">As it is in the panel.</param>
    /// <param name="look">One of its looks.</param>
    /// <param name="state">Where its mechanism stands.</param>
    /// <param name="meter">Asked for only where the look goes by voltages and currents.</param>
    /// <param name="drawn">As the drawing has it.</param>
    public static string Shown(this DeviceKind kind, Device device, Look look, DeviceState state, Func<IDeviceMeter> meter, Device drawn) =>
        look.Measured ? ((IOperated)kind).Measured(device, look, state, meter()) : ((IOperated)kind).Seen(device, look, state, drawn);
}
