using System.Numerics;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Electrical;

/// <summary>
/// One domain of a solved state: node voltages, branch admittances, and the electromotive force of source branches by index.
/// </summary>
internal sealed record Solved<T>(T[] Volts, T[] Admittances, IReadOnlyDictionary<int, T> Electromotive)
    where T : unmanaged, INumberBase<T>
{
    /// <summary>Branches whose admittance a fault makes another one, those that it adds among them.</summary>
    public (int Branch, T Siemens)[] Changed { get; init; } = [];

    public long Bytes => (Volts.Length + Admittances.Length) * (long)Unsafe.SizeOf<T>() + 200;

    /// <summary>Siemens of a branch; one that a fault adds conducts nothing where it has not broken down.</summary>
    public T AdmittanceOf(int branch)
    {
        foreach (var (changed, siemens) in Changed)
        {
            if (changed == branch)
            {
                return siemens;
            }
        }

        return branch < Admittances.Length ? Admittances[branch] : T.Zero;
    }

    public T ElectromotiveOf(int branch) => Electromotive.TryGetValue(branch, out var volts) ? volts : T.Zero;
}

/// <summary>A solved state with its factored matrix.</summary>
internal sealed record Factored<T>(SparseLu<T> Lu, Solved<T> Solved)
    where T : unmanaged, INumberBase<T>
{
    public long Bytes => Lu.Bytes + Solved.Bytes;
}

/// <summary>
/// The healthy circuit solved in the states that faults come to, which each fault then updates. A state is worth it the second
/// time it is asked for: many are only ever one fault's.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
internal sealed class Baselines(Network healthy)
{
    /// <summary>Some hundred states of a large starter.</summary>
    private const long MostBytes = 12_000_000;

    private readonly BoundedMemory<CircuitState, Lazy<Baseline>> _solved = new(MostBytes, b => b.Value.Bytes);
    private readonly AskedBefore _asked = new();

    public long Bytes => _solved.Bytes;

    public Baseline? Of(CircuitState state)
    {
        if (_solved.TryGet(state, out var known))
        {
            return known.Value;
        }

        return _asked.Note(state.GetHashCode()) ? _solved.GetOrAdd(state, s => new Lazy<Baseline>(() => Solved(s))).Value : null;
    }

    private Baseline Solved(CircuitState state) =>
        new(healthy.SolveAlternating(state), healthy.HasDirectSupply ? healthy.SolveDirect(state) : null);
}

/// <summary>A solved state of the healthy circuit, both domains.</summary>
internal sealed record Baseline(Factored<Complex> Ac, Factored<double>? Dc)
{
    public long Bytes => Ac.Bytes + (Dc?.Bytes ?? 0);
}
