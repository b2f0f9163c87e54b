using System.Collections.Concurrent;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What a meter may show if a hypothesis were true, as probabilities of cells of its display. Cells are even near zero and in the
/// logarithm above, narrower than any reading can be foretold; "above range" is a cell of its own. Probabilities add up to one, so that
/// a broad guess is spread thin and a sharp one is not.
/// </summary>
internal sealed class PredictiveDensity(double straySpan)
{
    /// <summary>Width of a cell in the inverse hyperbolic sine of the value: 8 % of it above some volts or ohms, 0.08 below one.</summary>
    private const double CellWidth = 0.08;

    /// <summary>Cells up to some 40 Mohm, and the one above range.</summary>
    public const int Cells = 240,
        AboveRange = Cells - 1;

    /// <summary>What lies farther out than this many standard deviations is left to mistakes.</summary>
    private const double Reach = 3;

    /// <summary>
    /// Where nothing holds a point it shows next to nothing, or what capacitance leads to, or anything up to a good part of the supply.
    /// </summary>
    private const double ShowsNothing = 0.25,
        ShowsHint = 0.5,
        ShowsAnything = 0.25,
        NothingVolts = 8,
        PartOfSpan = 0.7;

    /// <summary>
    /// Nobody concludes from a ghost what a held voltage would tell: damp, a longer lead or another meter settles it (common practice). So a
    /// test that rests on one is worth about this share, and one with a load behind it comes first.
    /// </summary>
    private const double Trusted = 0.5;

    /// <summary>Share of the times that what was read once of a floating piece is read of it again.</summary>
    private const double ComesAgain = 0.8;

    private static readonly double[] Upper = [.. Enumerable.Range(1, Cells).Select(k => Math.Sinh(k * CellWidth))];

    private static readonly double[] LogUpper = [.. Upper.Select(u => Math.Log(u))];

    private readonly ConcurrentDictionary<int, double[]> _stray = new();

    /// <summary>Adds the probabilities to <paramref name="cells"/>.</summary>
    /// <param name="prediction">What is foretold.</param>
    /// <param name="cells">One for each cell; 0 before.</param>
    /// <returns>The first and the last cell that got something.</returns>
    public (int First, int Last) Spread(in Prediction prediction, Span<double> cells)
    {
        switch (prediction.Kind)
        {
            case PredictionKind.OverLimit:
                cells[AboveRange] = 1;
                return (AboveRange, AboveRange);
            case PredictionKind.Stray:
                if (prediction.WasSeenBefore)
                {
                    return SeenBefore(prediction, cells);
                }

                // A hint to a volt or two is as good as the hint.
                var stray = _stray.GetOrAdd((int)Math.Round(prediction.Value / 2), hint => Stray(2 * hint));
                stray.CopyTo(cells);
                return (0, Array.FindLastIndex(stray, p => p > 0));
            default:
                return prediction.IsByFactor
                    ? Bell(Math.Log(Math.Max(Math.Abs(prediction.Value), 1e-9)), Math.Log(prediction.Factor), LogUpper, cells)
                    : Bell(Math.Abs(prediction.Value), prediction.Deviation, Upper, cells);
        }
    }

    /// <summary>A ghost that was read comes again, or else it is any other.</summary>
    private (int First, int Last) SeenBefore(in Prediction prediction, Span<double> cells)
    {
        var (first, last) = Bell(prediction.Value, prediction.Sigma, Upper, cells);
        for (var k = first; k <= last; k++)
        {
            cells[k] *= ComesAgain;
        }

        var any = _stray.GetOrAdd(0, hint => Stray(2 * hint));
        var end = Array.FindLastIndex(any, p => p > 0);
        for (var k = 0; k <= end; k++)
        {
            cells[k] += (1 - ComesAgain) * any[k];
        }

        return (0, Math.Max(end, last));
    }

    /// <summary>A normal distribution between the edges of cells, cut off at <see cref="Reach"/> and scaled to one.</summary>
    private static (int First, int Last) Bell(double middle, double deviation, double[] upper, Span<double> cells)
    {
        var first = CellOf(middle - Reach * deviation, upper);
        var last = CellOf(middle + Reach * deviation, upper);
        if (first == last)
        {
            cells[first] = 1;
            return (first, last);
        }

        // Readings have no sign: what would lie below zero lies in the first cell.
        var (below, whole) = (0.0, Normal.Below(Reach) - Normal.Below(-Reach));
        for (var k = first; k <= last; k++)
        {
            var upTo = k == last ? whole : Normal.Below((upper[k] - middle) / deviation) - Normal.Below(-Reach);
            cells[k] = Math.Max(0, upTo - below) / whole;
            below = Math.Max(below, upTo);
        }

        return (first, last);
    }

    private static int CellOf(double value, double[] upper)
    {
        var found = Array.BinarySearch(upper, 0, AboveRange - 1, value);
        return found < 0 ? Math.Min(~found, AboveRange - 1) : found;
    }

    private double[] Stray(double hint)
    {
        var cells = new double[Cells];
        Span<double> bell = stackalloc double[Cells];
        Span<double> close = stackalloc double[Cells];
        Bell(hint, 0.25 * hint + 2, Upper, bell);
        Bell(hint, 0.05 * hint + 1.5, Upper, close);
        Span<double> settled = stackalloc double[Cells];
        Bell(0, Tolerances.VoltDigits, Upper, settled);
        var lower = 0.0;
        for (var k = 0; k < AboveRange; k++)
        {
            var nothing = Math.Exp(-lower / NothingVolts) - Math.Exp(-Upper[k] / NothingVolts);
            var anything = Math.Max(0, Math.Min(Upper[k], PartOfSpan * straySpan) - lower) / (PartOfSpan * straySpan);
            var ghost = ShowsNothing * nothing + ShowsHint * (bell[k] + close[k]) / 2 + ShowsAnything * anything;
            cells[k] = Trusted * ghost + (1 - Trusted) * settled[k];
            lower = Upper[k];
        }

        return cells;
    }

    /// <summary>The normal distribution, looked up.</summary>
    private static class Normal
    {
        private const double Far = 4;
        private const int Steps = 4096;

        private static readonly double[] Table = [.. Enumerable.Range(0, Steps + 1).Select(i => Cumulative(-Far + 2 * Far * i / Steps))];

        public static double Below(double z) =>
            z <= -Far ? 0
            : z >= Far ? 1
            : Table[(int)((z + Far) * (Steps / (2 * Far)))];

        /// <summary>Abramowitz and Stegun, Handbook of Mathematical Functions, 26.2.17, from memory: to 1e-7.</summary>
        private static double Cumulative(double z)
        {
            var t = 1 / (1 + 0.2316419 * Math.Abs(z));
            var tail =
                Math.Exp(-z * z / 2)
                / Math.Sqrt(2 * Math.PI)
                * t
                * (0.319381530 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
            return z < 0 ? tail : 1 - tail;
        }
    }
}
