namespace Fehler.Core.Circuits;

/// <summary>A coil as it is rated.</summary>
/// <param name="Element">The coil among the device's elements.</param>
/// <param name="Volts">Voltage printed on it.</param>
/// <param name="IsDirect">For direct current.</param>
/// <param name="VoltsParameter">Name of the parameter that holds the voltage.</param>
/// <param name="PullInVa">Burden with the armature open, VA; of direct current, W.</param>
/// <param name="SealedVa">Burden with the armature closed, VA; of direct current, W.</param>
public sealed record RatedCoil(Element Element, Volts Volts, bool IsDirect, string VoltsParameter, double PullInVa, double SealedVa);
