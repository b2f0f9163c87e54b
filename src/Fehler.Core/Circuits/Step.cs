namespace Fehler.Core.Circuits;

/// <summary>Something done to the circuit: a device brought to a position, or time let pass.</summary>
/// <param name="Device">Tag; empty when only time passes.</param>
/// <param name="Position">Name of the position, as the device's kind calls it.</param>
/// <param name="Seconds">Time waited.</param>
public sealed record Step(string Device, string Position, double Seconds = 0)
{
    public static Step Wait(double seconds) => new("", "", seconds);

    /// <summary>
    /// Time that passes because the next thing takes some, such as fetching the meter: timers and other delays run meanwhile. What trips by
    /// heat is left alone, since nobody knows how long it was and a trip would have been said.
    /// </summary>
    public static Step Meanwhile(double seconds) => new("", MeanwhileWord, seconds);

    /// <summary>Whether this is <see cref="Meanwhile"/>.</summary>
    internal bool IsMeanwhile => Device.Length == 0 && Position == MeanwhileWord;

    private const string MeanwhileWord = "meanwhile";

    public override string ToString() => Device.Length == 0 ? FormattableString.Invariant($"wait {Seconds:0.#} s") : $"{Device} {Position}";
}
