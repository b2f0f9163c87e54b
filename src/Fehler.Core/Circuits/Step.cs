namespace Fehler.Core.Circuits;

/// <summary>Something done to the circuit: a device brought to a position, or time let pass.</summary>
/// <param name="Device">Tag; empty when only time passes.</param>
/// <param name="Position">Name of the position, as the device's kind calls it.</param>
/// <param name="Seconds">Time waited.</param>
public sealed record Step(string Device, string Position, double Seconds = 0)
{
    public static Step Wait(double seconds) => new("", "", seconds);

    public override string ToString() => Device.Length == 0 ? FormattableString.Invariant($"wait {Seconds:0.#} s") : $"{Device} {Position}";
}
