using Fehler.Core.Circuits;
using Fehler.Core.Trade;

namespace Fehler.Core.Jobs;

/// <summary>An overload was let trip at a known current, from cold, and timed: by a test set, or with the motor held.</summary>
/// <param name="Device">Tag of what tripped.</param>
/// <param name="Amps">The current that flowed, A.</param>
/// <param name="Seconds">Time until it tripped, s.</param>
public sealed record TripTimed(string Device, double Amps, double Seconds) : JournalEntry
{
    private const double MostAmps = 100_000,
        MostSeconds = 4 * 3600;

    /// <summary>What its class gives at a current, all three lines alike, from cold; null for what has no dial.</summary>
    public static Seconds? Expected(Circuit circuit, string device, double amps) =>
        circuit.FindDevice(device) is { } relay && relay.Kind.DialOf(relay) is { Amps.Value: > 0 } dial
            ? TripCurve.Time(amps / dial.Amps.Value, dial.TripClass)
            : null;

    /// <summary>What a time says beside what its class allows.</summary>
    public static string Verdict(Circuit circuit, string device, double amps, double seconds) =>
        Expected(circuit, device, amps) switch
        {
            null => "",
            { IsFinite: false } => "at that current it should carry for ever",
            { Value: var expected } when seconds < TripCurve.Soonest * expected => $"sooner than its class: {Around(expected)}",
            { Value: var expected } when seconds > TripCurve.Latest * expected => $"later than its class: {Around(expected)}",
            { Value: var expected } => $"as its class has it: {Around(expected)}",
        };

    /// <summary>What was timed, beside what its class allows.</summary>
    public string InWords(Circuit circuit) =>
        EntryWords.Of(this) + (Verdict(circuit, Device, Amps, Seconds) is { Length: > 0 } verdict ? $" ({verdict})" : "");

    private static string Around(double expected) =>
        FormattableString.Invariant($"{TripCurve.Soonest * expected:0} to {TripCurve.Latest * expected:0} s");

    /// <summary>Why this cannot be taken; null when it can.</summary>
    internal string? Refusal(Circuit circuit) =>
        Expected(circuit, Device, 1) is null ? $"{Device} has no dial by which it trips."
        : !(Amps is > 0 and < MostAmps) ? "Say which current flowed, in A."
        : !(Seconds is > 0 and < MostSeconds) ? "Say after how many seconds it tripped."
        : null;
}

/// <summary>What a counter counts.</summary>
public enum Counter
{
    Hours,
    Starts,
}

/// <summary>A counter of hours or starts was read.</summary>
/// <param name="Device">Tag of what it counts for.</param>
/// <param name="Counter">What it counts.</param>
/// <param name="Value">What it shows.</param>
public sealed record CounterRead(string Device, Counter Counter, double Value) : JournalEntry
{
    private const double Most = 1e9;

    /// <summary>Why this cannot be taken; null when it can.</summary>
    internal string? Refusal(Circuit circuit) =>
        circuit.FindDevice(Device) is null ? $"The circuit has no device {Device}."
        : !(Value is >= 0 and < Most) ? "A counter shows 0 or more."
        : null;
}
