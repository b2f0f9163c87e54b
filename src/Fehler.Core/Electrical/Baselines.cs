using System.Collections.Concurrent;
using System.Numerics;
using Fehler.Core.Operation;

namespace Fehler.Core.Electrical;

/// <summary>One domain of a solved state: node voltages, branch admittances, and the electromotive force of source branches by index.</summary>
internal sealed record Solved<T>(T[] Volts, T[] Admittances, IReadOnlyDictionary<int, T> Electromotive)
    where T : struct, INumberBase<T>;

/// <summary>A solved state with its factored matrix.</summary>
internal sealed record Factored<T>(SparseLu<T> Lu, Solved<T> Solved)
    where T : struct, INumberBase<T>;

/// <summary>
/// The healthy circuit solved in the states that faults come to, which each fault then updates. A state is worth it the second
/// time it is asked for: many are only ever one fault's.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
internal sealed class Baselines(Network healthy)
{
    private const int MostKept = 256;

    /// <summary>States without a solution are only counted, so more of them may be kept.</summary>
    private const int MostCounted = 20_000;

    private readonly ConcurrentDictionary<CircuitState, Lazy<Baseline>> _solved = new();
    private readonly ConcurrentDictionary<CircuitState, bool> _asked = new();

    public Baseline? Of(CircuitState state)
    {
        if (_solved.TryGetValue(state, out var known))
        {
            return known.Value;
        }

        if (_asked.TryAdd(state, true))
        {
            ClearBeyond(_asked, MostCounted);
            return null;
        }

        ClearBeyond(_solved, MostKept);
        return _solved.GetOrAdd(state, s => new Lazy<Baseline>(() => new Baseline(healthy.SolveAlternating(s), healthy.HasDirectSupply ? healthy.SolveDirect(s) : null))).Value;
    }

    private static void ClearBeyond<TValue>(ConcurrentDictionary<CircuitState, TValue> known, int most)
    {
        if (known.Count > most)
        {
            known.Clear();
        }
    }
}

internal sealed record Baseline(Factored<Complex> Ac, Factored<double>? Dc);
