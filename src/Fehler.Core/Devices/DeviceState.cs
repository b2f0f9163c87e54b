namespace Fehler.Core.Devices;

/// <summary>What position a device is in. What the numbers mean is its kind's business; 0 is at rest.</summary>
/// <param name="Position">Position of the mechanism, by kind.</param>
/// <param name="Held">Kept there by a hand (an armature pressed in).</param>
/// <param name="Speed">Motors: speed over synchronous speed; otherwise 0.</param>
public readonly record struct DeviceState(int Position, bool Held = false, double Speed = 0);
