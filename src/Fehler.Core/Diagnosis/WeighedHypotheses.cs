using System.Collections.Immutable;

namespace Fehler.Core.Diagnosis;

/// <summary>The hypotheses that a choice of test weighs: those that together hold nearly all of the probability.</summary>
/// <param name="Live">The hypotheses, the likeliest first.</param>
/// <param name="Weights">Probability of each among them; sums to 1.</param>
/// <param name="Units">Unit of each; empty for "nothing wrong now".</param>
/// <param name="StraySpan">Greatest voltage that a point may show which nothing holds, V.</param>
internal sealed record WeighedHypotheses(Hypothesis[] Live, double[] Weights, ImmutableArray<string> Units, double StraySpan)
{
    /// <summary>Hypotheses that together hold all but this share are weighed; the rest cannot change the choice.</summary>
    private const double NegligibleShare = 0.005;

    private const int MostHypotheses = 140;

    /// <summary>Of a fault of unknown size no more than this many sizes are weighed for the choice.</summary>
    private const int MostVariants = 3;

    /// <summary>Sorts them by answer.</summary>
    public OutcomeGrouping Grouping { get; } = new(Weights, Units, StraySpan);

    /// <summary>See <see cref="StandingAsMost"/>.</summary>
    public Hypothesis Standing { get; } = StandingAsMost(Live.Zip(Weights));

    /// <summary>
    /// How the devices stand, by what is possible: of the hypotheses that agree on it and together weigh most, the likeliest. Before
    /// anything was seen that is the circuit at rest, whatever single fault is the most frequent one.
    /// </summary>
    public static Hypothesis StandingAsMost(IEnumerable<(Hypothesis Hypothesis, double Weight)> weighed) =>
        weighed
            .GroupBy(x => string.Join(',', x.Hypothesis.State.Devices.Select(d => d.Position)))
            .MaxBy(g => g.Sum(x => x.Weight))!
            .MaxBy(x => x.Weight)
            .Hypothesis;

    /// <summary>Probability of those of which something is so.</summary>
    public double Share(Func<Hypothesis, bool> isSo) => Live.Select((h, i) => isSo(h) ? Weights[i] : 0).Sum();

    /// <param name="hypotheses">All that are followed.</param>
    /// <param name="posterior">Probability of each; after them that of something else.</param>
    /// <param name="straySpan">Greatest voltage that a point may show which nothing holds, V.</param>
    public static WeighedHypotheses Of(IEnumerable<Hypothesis> hypotheses, double[] posterior, double straySpan)
    {
        var ranked = hypotheses.Select((h, i) => (Hypothesis: h, Weight: posterior[i])).OrderByDescending(x => x.Weight).ToList();
        var kept = new List<(Hypothesis Hypothesis, double Weight)>();
        var left = 1 - posterior[^1];
        var variants = new Dictionary<string, int>();
        foreach (var x in ranked)
        {
            if ((left < NegligibleShare && kept.Count > 1) || kept.Count == MostHypotheses)
            {
                break;
            }

            left -= x.Weight;
            var mode = x.Hypothesis.Fault?.Id ?? "";
            variants[mode] = variants.GetValueOrDefault(mode) + 1;
            if (variants[mode] <= MostVariants)
            {
                kept.Add(x);
            }
        }

        var sum = kept.Sum(x => x.Weight);
        return new WeighedHypotheses(
            [.. kept.Select(x => x.Hypothesis)],
            [.. kept.Select(x => x.Weight / sum)],
            [.. kept.Select(x => x.Hypothesis.Fault?.Unit ?? "")],
            straySpan
        );
    }
}
