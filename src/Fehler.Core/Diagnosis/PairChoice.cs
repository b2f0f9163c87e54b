using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Two faults at once, thought of when no single one fits. All pairs would be some ten thousand; those are followed through
/// the journal of which, observation by observation, at least one half fits.
/// </summary>
internal static class PairChoice
{
    private const int MostHalves = 160,
        MostPairs = 60;

    /// <summary>A half is one that fits something far better than a healthy circuit does.</summary>
    private const double ExplainsAbove = 4;

    /// <param name="hypotheses">Single faults, the healthy circuit first.</param>
    /// <param name="observations">What they were judged by.</param>
    /// <param name="prior">Logarithm of the probability of each mode and size, by the fault.</param>
    public static IEnumerable<FaultMode> Of(
        IReadOnlyList<Hypothesis> hypotheses,
        IReadOnlyList<Observation> observations,
        Func<FaultMode, double> prior
    )
    {
        var halves = Enumerable
            .Range(0, hypotheses.Count)
            .Where(i => hypotheses[i].Fault is { Parts.IsEmpty: true })
            .Where(i => observations.Any(o => o.FitOf(hypotheses[i]) > ExplainsAbove * o.FitOf(hypotheses[0])))
            .GroupBy(i => hypotheses[i].Fault!.Id)
            .Select(mode => mode.MaxBy(i => hypotheses[i].LogWeight))
            .Select(i =>
                (
                    Fault: hypotheses[i].Fault!,
                    Fit: observations.Select(o => Math.Log(o.By(hypotheses[i]).Fit)).ToArray(),
                    Prior: prior(hypotheses[i].Fault!)
                )
            )
            .OrderByDescending(h => h.Prior + h.Fit.Sum(f => Math.Max(f, -3)))
            .Take(MostHalves)
            .ToList();
        var pairs = new PriorityQueue<(FaultMode, FaultMode), double>();
        for (var i = 0; i < halves.Count; i++)
        {
            for (var j = i + 1; j < halves.Count; j++)
            {
                var score = halves[i].Prior + halves[j].Prior;
                for (var o = 0; o < observations.Count; o++)
                {
                    score += Math.Max(halves[i].Fit[o], halves[j].Fit[o]);
                }

                if (pairs.Count < MostPairs)
                {
                    pairs.Enqueue((halves[i].Fault, halves[j].Fault), score);
                }
                else
                {
                    pairs.EnqueueDequeue((halves[i].Fault, halves[j].Fault), score);
                }
            }
        }

        return pairs
            .UnorderedItems.Select(p => FaultMode.Both(p.Element.Item1, p.Element.Item2))
            .OrderBy(p => p.Id, StringComparer.Ordinal);
    }
}
