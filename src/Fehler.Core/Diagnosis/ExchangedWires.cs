using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Two control wires exchanged that nobody lists, as a job comes to think of them: thousands in a large panel, most of which the first thing that
/// works refutes. So many at once are thought of, and what is refuted is forgotten.
/// </summary>
/// <param name="compiled">The circuit.</param>
internal sealed class ExchangedWires(CompiledCircuit compiled)
{
    private const int MostAtOnce = 400;

    /// <summary>What weighs less than the best by this factor (natural logarithm) is refuted.</summary>
    private const double RefutedBelow = 12;

    /// <summary>What the refuted ones weighed when they were left, by id: the most that they can weigh.</summary>
    private readonly Dictionary<string, double> _refuted = [];
    private readonly List<Hypothesis> _kept = [];

    /// <summary>Those that are not refuted.</summary>
    public IReadOnlyList<Hypothesis> Kept => _kept;

    public void Clear()
    {
        _refuted.Clear();
        _kept.Clear();
    }

    /// <summary>
    /// The next ones that were not thought of yet, or were refuted by something that has turned out to weigh as little: those of odd wires first,
    /// for a neutral that is live may have been exchanged at any of its ends.
    /// </summary>
    /// <param name="oddWires">Numbers of wires that were read where what leads does not explain it.</param>
    /// <param name="most">What the best of all weighs.</param>
    public List<FaultMode> NotThoughtOf(HashSet<string> oddWires, double most)
    {
        var wires = compiled.Circuit.Conductors.ToDictionary(c => c.Id, c => c.Wire);
        var kept = _kept.Select(h => h.Fault!.Id).ToHashSet();
        return
        [
            .. compiled
                .Faults.ExchangedWires.Where(f =>
                    !kept.Contains(f.Id) && _refuted.GetValueOrDefault(f.Id, double.MaxValue) > most - RefutedBelow
                )
                .OrderByDescending(f => f.Alterations.OfType<ConductorOpen>().Count(o => oddWires.Contains(wires[o.Conductor])))
                .Take(MostAtOnce),
        ];
    }

    public void Keep(IEnumerable<Hypothesis> thoughtOf) => _kept.AddRange(thoughtOf);

    /// <summary>Takes out, and returns, what is refuted.</summary>
    /// <param name="most">What the best of all weighs.</param>
    public List<Hypothesis> Forget(double most)
    {
        var refuted = _kept.Where(h => h.LogWeight < most - RefutedBelow).ToList();
        foreach (var h in refuted)
        {
            _refuted[h.Fault!.Id] = h.LogWeight;
        }

        _kept.RemoveAll(refuted.Contains);
        return refuted;
    }
}
