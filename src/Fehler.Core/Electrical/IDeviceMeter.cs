using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>What a device feels in a solved circuit: the voltages and currents of its own elements.</summary>
public interface IDeviceMeter
{
    /// <summary>Voltage over the element with this index in the kind's list, A to B, V phasor.</summary>
    Complex Volts(int element);

    /// <summary>Current through it, A to B, A phasor.</summary>
    Complex Amps(int element);

    /// <summary>Direct voltage over the element, A to B, V.</summary>
    double DcVolts(int element);

    /// <summary>Direct current through it, A to B, A.</summary>
    double DcAmps(int element);

    /// <summary>
    /// State of another device that this one is coupled to by a shaft, a lever or a brake disc; null when there is none of that tag.
    /// </summary>
    DeviceState? StateOf(string tag);

    /// <summary>Voltage from a terminal (or inner node) of this device to another, V phasor.</summary>
    Complex Volts(string from, string to);

    /// <summary>The same circuit solved with this device in another state, everything else as it is.</summary>
    IDeviceMeter With(DeviceState state);
}
