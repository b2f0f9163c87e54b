using System.Buffers;
using System.Collections.Immutable;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Sorts hypotheses into the answers a test can give, and tells what the answers are worth: the expected fall of the
/// uncertainty about the unit. Asked for every pair of points in every state, so it keeps nothing.
/// </summary>
internal sealed class OutcomeGrouping
{
    /// <summary>A stray point may read like one that is at zero.</summary>
    private const double StrayReadsUpTo = 1;

    private readonly double[] _weights;
    private readonly int[] _unitOf;
    private readonly int _units;

    /// <param name="weights">Probability of each hypothesis; they add up to 1.</param>
    /// <param name="units">Unit of each hypothesis.</param>
    public OutcomeGrouping(double[] weights, ImmutableArray<string> units)
    {
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
        var order = ArrayPool<int>.Shared.Rent(_weights.Length);
        var edges = ArrayPool<double>.Shared.Rent(_weights.Length);
        try
        {
            var count = Sort(predictions, column, order, edges);
            if (IsOneAnswer(predictions, column, order, count))
            {
                return 0;
            }

            return Worth(Remaining(predictions, column, order, count));
        }
        finally
        {
            ArrayPool<int>.Shared.Return(order);
            ArrayPool<double>.Shared.Return(edges);
        }
    }

    /// <summary>Worth of a look or an operation, bits.</summary>
    /// <param name="seen">What each hypothesis shows.</param>
    public double Gain(string[] seen) => Worth(Groups(seen).Sum(g => g.Sum(h => _weights[h]) * EntropyOf(g)));

    /// <summary>Hypotheses by the answer they give to a reading.</summary>
    public List<List<int>> Groups(Prediction[][] predictions, int column)
    {
        var order = new int[_weights.Length];
        var count = Sort(predictions, column, order, new double[_weights.Length]);
        var groups = new List<List<int>>();
        var edge = double.NegativeInfinity;
        for (var i = 0; i < count; i++)
        {
            var (low, high) = Range(predictions[order[i]][column]);
            if (groups.Count == 0 || low > edge)
            {
                groups.Add([]);
            }

            groups[^1].Add(order[i]);
            edge = Math.Max(edge, high);
        }

        if (count < _weights.Length)
        {
            groups.Add([.. order.AsSpan(count)]);
        }

        return groups;
    }

    public static List<List<int>> Groups(string[] seen) =>
        [.. seen.Select((s, i) => (s, i)).GroupBy(x => x.s).Select(g => g.Select(x => x.i).ToList())];

    /// <summary>One answer in thirty is wrong, which takes its share of the worth.</summary>
    private double Worth(double remaining) => (1 - Likelihood.OutlierShare) * Math.Max(0, Entropy - remaining);

    /// <summary>Hypotheses that foretell a value by the low end of its range; those that foretell OL stand behind them.</summary>
    private int Sort(Prediction[][] predictions, int column, int[] order, double[] edges)
    {
        var count = 0;
        var last = _weights.Length;
        for (var h = 0; h < _weights.Length; h++)
        {
            if (predictions[h][column].Kind == PredictionKind.OverLimit)
            {
                order[--last] = h;
            }
            else
            {
                edges[count] = Range(predictions[h][column]).Low;
                order[count++] = h;
            }
        }

        Array.Sort(edges, order, 0, count);
        return count;
    }

    private bool IsOneAnswer(Prediction[][] predictions, int column, int[] order, int count)
    {
        if (count < _weights.Length)
        {
            return count == 0;
        }

        var edge = Range(predictions[order[0]][column]).High;
        for (var i = 1; i < count; i++)
        {
            var (low, high) = Range(predictions[order[i]][column]);
            if (low > edge)
            {
                return false;
            }

            edge = Math.Max(edge, high);
        }

        return true;
    }

    /// <summary>Uncertainty that is left on average, bits.</summary>
    private double Remaining(Prediction[][] predictions, int column, int[] order, int count)
    {
        Span<double> shares = _units <= 512 ? stackalloc double[_units] : new double[_units];
        shares.Clear();
        var remaining = 0.0;
        var edge = double.NegativeInfinity;
        for (var i = 0; i < _weights.Length; i++)
        {
            var (low, high) = i < count ? Range(predictions[order[i]][column]) : (double.PositiveInfinity, double.PositiveInfinity);
            if (i > 0 && (i == count || (i < count && low > edge)))
            {
                remaining += Close(shares);
                edge = double.NegativeInfinity;
            }

            shares[_unitOf[order[i]]] += _weights[order[i]];
            edge = Math.Max(edge, high);
        }

        return remaining + Close(shares);
    }

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
