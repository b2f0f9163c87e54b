using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Electrical;
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
    private const int MostKept = 400;

    private readonly ConcurrentDictionary<(CircuitState From, Step Step), Arrival> _known = new();

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
        var key = (from, step);
        if (!_known.TryGetValue(key, out var known))
        {
            known = courses.Of(from, step) is { } course && course.IsThatOf(Simulator.Network) ? courses.Arrived(course.Outcome) : courses.Arrived(Simulator.Do(from, step));
            if (_known.Count > MostKept)
            {
                _known.Clear();
            }

            _known[key] = known;
        }

        return known;
    }

    /// <summary>States that differ by a rotor's last digits are one.</summary>
    public static CircuitState Rounded(CircuitState state) => state with { Devices = [.. state.Devices.Select(d => d with { Speed = Math.Round(d.Speed, 4) })] };
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
    private const int MostKept = 500, MostCounted = 50_000;

    private readonly ConcurrentDictionary<(CircuitState From, Step Step), bool> _asked = new();
    private readonly ConcurrentDictionary<(CircuitState From, Step Step), Lazy<Course>> _known = new();
    private readonly ConcurrentDictionary<CircuitState, CircuitState> _states = new();
    private readonly ConcurrentDictionary<string, ImmutableSortedDictionary<string, string>> _seen = new();

    public Course? Of(CircuitState from, Step step)
    {
        var key = (from, step);
        if (_known.TryGetValue(key, out var known))
        {
            return known.Value;
        }

        if (_asked.TryAdd(key, true))
        {
            ClearBeyond(_asked, MostCounted);
            return null;
        }

        ClearBeyond(_known, MostKept);
        return _known.GetOrAdd(key, _ => new Lazy<Course>(() => new Course(healthy, from, step))).Value;
    }

    /// <summary>Where an outcome leaves the circuit. A thousand faults come to a few dozen states: each is kept once.</summary>
    public Arrival Arrived(Outcome outcome)
    {
        ClearBeyond(_states, MostCounted);
        ClearBeyond(_seen, MostCounted);
        var state = Trajectories.Rounded(outcome.State);
        var words = Words.Of(outcome.Appearances);
        return new Arrival(_states.GetOrAdd(state, state), _seen.GetOrAdd(words, outcome.Appearances), words);
    }

    private static void ClearBeyond<TKey, TValue>(ConcurrentDictionary<TKey, TValue> known, int most)
        where TKey : notnull
    {
        if (known.Count > most)
        {
            known.Clear();
        }
    }
}
