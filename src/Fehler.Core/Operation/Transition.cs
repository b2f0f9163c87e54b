using Fehler.Core.Circuits;

namespace Fehler.Core.Operation;

/// <summary>What a device wants to do in a solved circuit.</summary>
/// <param name="Next">The state it goes to; its present one when it stays.</param>
/// <param name="Urgency">Protective devices: current over rating; only the most urgent acts, then the circuit is solved again.</param>
public readonly record struct Transition(DeviceState Next, double Urgency = 0);

/// <summary>What a device will do if nothing changes.</summary>
/// <param name="After">Time until then, from when it began to be so.</param>
/// <param name="Next">The state it goes to.</param>
/// <param name="IsLeft">The time is what is left from now on, by the heat that is in it, and not from when it began to be so.</param>
public readonly record struct TimedTransition(Seconds After, DeviceState Next, bool IsLeft = false);
