using System.Collections.Immutable;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Sorts hypotheses into the answers a test can give, and tells what the answers are worth: the expected fall of the
/// uncertainty about the unit. Asked for every pair of points in every state, so it keeps nothing.
/// </summary>
/// <remarks>
/// Mutual information of unit and reading (Lindley 1956), by the probabilities that <see cref="PredictiveDensity"/> gives each cell of the
/// display: what overlaps a little tells a little less, and an unlikely size in between takes its own share of the worth and no more.
/// </remarks>
internal sealed class OutcomeGrouping
{
    /// <summary>A stray point may read like one that is at zero.</summary>
    private const double StrayReadsUpTo = 1;

    /// <summary>What weighs less than this joins no two answers into one.</summary>
    private const double Light = 0.01;

    /// <summary>Predictions that agree to this share are one.</summary>
    private const double Same = 1e-4;

    private readonly PredictiveDensity _density;
    private readonly double[] _weights;
    private readonly int[] _unitOf;
    private readonly int _units;

    /// <param name="weights">Probability of each hypothesis; they add up to 1.</param>
    /// <param name="units">Unit of each hypothesis.</param>
    /// <param name="straySpan">Greatest voltage that a point may show which nothing holds, V.</param>
    public OutcomeGrouping(double[] weights, ImmutableArray<string> units, double straySpan)
    {
        _density = new PredictiveDensity(straySpan);
        _weights = weights;
        var names = units.Distinct().ToList();
        _unitOf = [.. units.Select(u => names.IndexOf(u))];
        _units = names.Count;
        Entropy = EntropyOf(Enumerable.Range(0, weights.Length));
    }

    /// <summary>Uncertainty about the unit now, bits.</summary>
    public double Entropy { get; }

    /// <summary>Worth of a reading, bits.</summary>
    /// <param name="predictions">What each hypothesis foretells, by hypothesis and pair of points.</param>
    /// <param name="column">The pair of points.</param>
    public double Gain(Prediction[][] predictions, int column)
    {
        // Probability of each cell and unit together; most hypotheses foretell what another has foretold.
        var joint = Zeros(ref t_joint, PredictiveDensity.Cells * _units);
        Span<double> cells = Zeros(ref t_cells, PredictiveDensity.Cells);
        var (lowest, highest) = (PredictiveDensity.AboveRange, 0);
        var (first, last) = (0, -1);
        Prediction? spread = null;
        for (var h = 0; h < _weights.Length; h++)
        {
            ref readonly var prediction = ref predictions[h][column];
            if (spread is not { } known || !AreSame(known, prediction))
            {
                cells[first..(last + 1)].Clear();
                (first, last) = _density.Spread(prediction, cells);
                spread = prediction;
                (lowest, highest) = (Math.Min(lowest, first), Math.Max(highest, last));
            }

            var (weight, unit) = (_weights[h], _unitOf[h]);
            for (var k = first; k <= last; k++)
            {
                joint[k * _units + unit] += weight * cells[k];
            }
        }

        cells[first..(last + 1)].Clear();
        var remaining = 0.0;
        for (var k = lowest; k <= highest; k++)
        {
            remaining += Close(joint.AsSpan(k * _units, _units));
        }

        return Worth(remaining);
    }

    [ThreadStatic]
    private static double[]? t_joint,
        t_cells;

    /// <summary>Zeros, as many as are asked for at least: whoever has used them leaves them so.</summary>
    private static double[] Zeros(ref double[]? kept, int length) =>
        kept is { } known && known.Length >= length ? known : kept = new double[length];

    private static bool AreSame(in Prediction a, in Prediction b) =>
        a.Kind == b.Kind
        && Math.Abs(a.Value - b.Value) <= Same * Math.Abs(a.Value)
        && Math.Abs(a.Deviation - b.Deviation) <= 100 * Same * a.Deviation;

    /// <summary>Worth of a look or an operation, bits.</summary>
    /// <param name="seen">What each hypothesis shows.</param>
    public double Gain(string[] seen) => Worth(Groups(seen).Sum(g => g.Sum(h => _weights[h]) * EntropyOf(g)));

    /// <summary>Hypotheses by the answer they give to a reading.</summary>
    public List<List<int>> Groups(Prediction[][] predictions, int column)
    {
        var groups = new List<List<int>>();
        var edges = new List<(double Low, double High)>();
        foreach (var h in HeavyFirst(predictions, column))
        {
            var (low, high) = Range(predictions[h][column]);
            var above = predictions[h][column].Kind == PredictionKind.OverLimit;
            if (groups.Count == 0 || above != double.IsInfinity(edges[^1].Low) || (low > edges[^1].High && _weights[h] >= Light))
            {
                // Above range stands apart, and behind.
                groups.Add([]);
                edges.Add(above ? (double.PositiveInfinity, double.PositiveInfinity) : (low, high));
            }

            if (_weights[h] >= Light)
            {
                groups[^1].Add(h);
                edges[^1] = (edges[^1].Low, Math.Max(edges[^1].High, high));
                continue;
            }

            var nearest = above ? groups.Count - 1 : Nearest(edges, (low + high) / 2);
            groups[nearest].Add(h);
        }

        return groups;
    }

    /// <summary>By the low end of what they foretell, above range last; first those that weigh something, then the light ones.</summary>
    private IEnumerable<int> HeavyFirst(Prediction[][] predictions, int column) =>
        Enumerable
            .Range(0, _weights.Length)
            .OrderBy(h => predictions[h][column].Kind == PredictionKind.OverLimit)
            .ThenBy(h => _weights[h] < Light)
            .ThenBy(h => Range(predictions[h][column]).Low);

    private static int Nearest(List<(double Low, double High)> edges, double value) =>
        Enumerable
            .Range(0, edges.Count)
            .Where(g => !double.IsInfinity(edges[g].Low))
            .MinBy(g => Math.Max(0, Math.Max(edges[g].Low - value, value - edges[g].High)));

    public static List<List<int>> Groups(string[] seen) =>
        [.. seen.Select((s, i) => (s, i)).GroupBy(x => x.s).Select(g => g.Select(x => x.i).ToList())];

    /// <summary>One answer in thirty is wrong, which takes its share of the worth.</summary>
    private double Worth(double remaining) => (1 - Likelihood.OutlierShare) * Math.Max(0, Entropy - remaining);

    /// <summary>Weight times entropy of a group, which is then emptied.</summary>
    private static double Close(Span<double> shares)
    {
        var total = 0.0;
        foreach (var share in shares)
        {
            total += share;
        }

        var sum = 0.0;
        foreach (var share in shares)
        {
            if (share > 0)
            {
                sum -= share * Math.Log2(share / total);
            }
        }

        shares.Clear();
        return sum;
    }

    private double EntropyOf(IEnumerable<int> hypotheses)
    {
        var shares = new double[_units];
        var total = 0.0;
        foreach (var h in hypotheses)
        {
            shares[_unitOf[h]] += _weights[h];
            total += _weights[h];
        }

        return total > 0 ? Close(shares) / total : 0;
    }

    private static (double Low, double High) Range(in Prediction prediction) =>
        prediction.Kind == PredictionKind.Stray ? (0, StrayReadsUpTo) : prediction.Range;
}
