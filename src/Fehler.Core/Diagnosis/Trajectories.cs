using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Where one truth goes from a state when something is done: simulated once, and known from then on to every job on the circuit.
/// Readings leave a circuit where it is, and most operations lead back to where they began, so the same few questions are
/// asked again and again.
/// </summary>
/// <remarks>Safe for use by several threads at once. A repair makes another truth: it begins with nothing known.</remarks>
internal sealed class Trajectories(Simulator simulator)
{
    private const int MostKept = 400;

    private readonly ConcurrentDictionary<(CircuitState From, string Steps), (CircuitState To, string Seen)> _known = new();

    public Simulator Simulator { get; } = simulator;

    /// <summary>The state that the steps lead to.</summary>
    public CircuitState After(CircuitState from, IReadOnlyCollection<Step> steps) => Of(from, steps).To;

    /// <summary>What is seen of the devices then, in words.</summary>
    public string SeenAfter(CircuitState from, IReadOnlyCollection<Step> steps) => Of(from, steps).Seen;

    private (CircuitState To, string Seen) Of(CircuitState from, IReadOnlyCollection<Step> steps)
    {
        var key = (from, Words.Of(steps));
        if (!_known.TryGetValue(key, out var known))
        {
            var outcome = Simulator.Do(from, steps);
            // States that differ by a rotor's last digits are one.
            known = (Rounded(outcome.State), Words.Of(outcome.Appearances));
            if (_known.Count > MostKept)
            {
                _known.Clear();
            }

            _known[key] = known;
        }

        return known;
    }

    public static CircuitState Rounded(CircuitState state) => state with { Devices = [.. state.Devices.Select(d => d with { Speed = Math.Round(d.Speed, 4) })] };
}
