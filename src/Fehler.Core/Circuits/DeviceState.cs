using System.Runtime.InteropServices;

namespace Fehler.Core.Circuits;

/// <summary>What position a device is in. What the numbers mean is its kind's business; 0 is at rest.</summary>
/// <param name="Position">Position of the mechanism, by kind.</param>
/// <param name="Held">Kept there by a hand (an armature pressed in).</param>
/// <param name="Speed">Motors: speed over synchronous speed, negative backwards; otherwise 0.</param>
/// <param name="Moving">On its way to <paramref name="Position"/>: what opens has opened, what closes has not closed yet.</param>
/// <param name="Progress">How much of a delay that is running has passed, 0 to 1.</param>
/// <param name="Heat">Bimetals: square of the current, as a multiple of the setting, that would warm it so in the long run; 0 is cold.</param>
[StructLayout(LayoutKind.Auto)]
public readonly record struct DeviceState(
    int Position,
    bool Held = false,
    double Speed = 0,
    bool Moving = false,
    double Progress = 0,
    double Heat = 0
)
{
    /// <summary>The same with no delay running, and cold.</summary>
    public DeviceState Timeless => this with { Progress = 0, Heat = 0 };
}
