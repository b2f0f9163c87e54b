using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Where one truth goes from a state when something is done: simulated once, and known from then on to every job on the circuit.
/// Readings leave a circuit where it is, and most operations lead back to where they began, so the same few questions are
/// asked again and again; and most faults are not noticed by most of what is done.
/// </summary>
/// <remarks>Safe for use by several threads at once. A repair makes another truth: it begins with nothing known.</remarks>
internal sealed class Trajectories(Simulator simulator, Courses courses)
{
    /// <summary>Some hundred arrivals: their states are shared with the other hypotheses.</summary>
    private const long MostBytes = 40_000,
        ArrivalBytes = 40;

    private readonly BoundedMemory<(CircuitState From, Step Step), Arrival> _known = new(MostBytes, _ => ArrivalBytes);

    public long Bytes => _known.Bytes + Simulator.Network.Bytes;

    public Simulator Simulator { get; } = simulator;

    /// <summary>Where the steps lead to and what is seen then.</summary>
    public Arrival After(CircuitState from, IReadOnlyCollection<Step> steps)
    {
        if (steps.Count == 0)
        {
            return courses.Arrived(Simulator.Observe(from));
        }

        // Step by step: a fault that notices the start goes the common way again from the stop on.
        var arrival = new Arrival(from, ImmutableSortedDictionary<string, string>.Empty, "");
        foreach (var step in steps)
        {
            arrival = After(arrival.State, step);
        }

        return arrival;
    }

    private Arrival After(CircuitState from, Step step)
    {
        // Who presses Reset has waited until it holds.
        from = Simulator.IsReset(step) ? from.Cooled : from;
        return _known.GetOrAdd(
            (from, step),
            _ =>
                courses.Of(from, step) is { } course && course.IsThatOf(Simulator.Network)
                    ? courses.Arrived(course.Outcome)
                    : courses.Arrived(Simulator.Do(from, step))
        );
    }

    /// <summary>States that differ by a rotor's last digits, or by a hundredth of a trip's heat, are one.</summary>
    public static CircuitState Rounded(CircuitState state)
    {
        static DeviceState Round(DeviceState d) => d with { Speed = Math.Round(d.Speed, 4), Heat = Math.Round(d.Heat, 2) };
        return state.Devices.All(d => d == Round(d)) ? state : state with { Devices = [.. state.Devices.Select(Round)] };
    }
}

/// <summary>A state and what is seen in it, by device tag and in words. Equal ones are one and the same object.</summary>
internal sealed record Arrival(CircuitState State, ImmutableSortedDictionary<string, string> Appearances, string Seen);

/// <summary>
/// The healthy circuit's courses, by where they begin and what is done. A course is worth following the second time it is asked for:
/// many states are only ever one fault's.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
internal sealed class Courses(Network healthy)
{
    /// <summary>A course holds the solutions of all its states, some tens of kilobytes; a state takes some hundred bytes.</summary>
    private const long MostBytes = 8_000_000,
        MostStateBytes = 8_000_000;

    private readonly AskedBefore _asked = new();
    private readonly BoundedMemory<(CircuitState From, Step Step), Lazy<Course>> _known = new(MostBytes, c => c.Value.Bytes);
    private readonly BoundedMemory<CircuitState, CircuitState> _states = new(MostStateBytes, s => 48L * s.Devices.Length);
    private readonly BoundedMemory<string, ImmutableSortedDictionary<string, string>> _seen = new(MostStateBytes, s => 100L * s.Count);

    public long Bytes => _known.Bytes + _states.Bytes + _seen.Bytes;

    public Course? Of(CircuitState from, Step step)
    {
        var key = (from, step);
        return _known.TryGet(key, out var known) ? known.Value
            : _asked.Note(key.GetHashCode()) ? _known.GetOrAdd(key, k => new Lazy<Course>(() => new Course(healthy, k.From, k.Step))).Value
            : null;
    }

    /// <summary>Where an outcome leaves the circuit. A thousand faults come to a few dozen states: each is kept once.</summary>
    public Arrival Arrived(Outcome outcome)
    {
        var state = Trajectories.Rounded(outcome.State);
        var words = Words.Of(outcome.Appearances);
        return new Arrival(_states.Add(state, state), _seen.Add(words, outcome.Appearances), words);
    }
}
