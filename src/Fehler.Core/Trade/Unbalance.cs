using Fehler.Core.Circuits;

namespace Fehler.Core.Trade;

/// <summary>
/// How far three line values, voltages between lines or line currents, are from being alike.
/// </summary>
/// <remarks>
/// Largest deviation from the mean over the mean: NEMA MG 1, part 12.45 (from memory). Negative over positive sequence from the three
/// magnitudes: the factor that IEC 60034-26 uses (from memory), exact for values that close a triangle, as voltages between lines do.
/// </remarks>
public sealed record Unbalance
{
    private Unbalance(double mean, double share, double? sequence) => (Mean, Share, SequenceShare) = (mean, share, sequence);

    /// <summary>Mean of the three.</summary>
    public double Mean { get; }

    /// <summary>Largest deviation from the mean, as a share of the mean.</summary>
    public double Share { get; }

    /// <summary>Negative over positive sequence; null where the three close no triangle (currents with a neutral, a value misread).</summary>
    public double? SequenceShare { get; }

    /// <summary>
    /// What is left of a motor's power at such volts; null above 5 %, where it is not to run at all (NEMA MG 1, figure 14-1, read from its
    /// curve: 1, 0.95, 0.88, 0.82, 0.75 at 1 to 5 %).
    /// </summary>
    public double? Derating => DeratingAt(100 * Share);

    /// <param name="a">First value.</param>
    /// <param name="b">Second value.</param>
    /// <param name="c">Third value.</param>
    /// <exception cref="RefusedException">Not three values of a meter, or nothing in any of them.</exception>
    public static Unbalance Of(double a, double b, double c)
    {
        double[] values = [a, b, c];
        if (values.Any(v => !double.IsFinite(v) || v < 0))
        {
            throw new RefusedException("Three values of a meter are needed, each 0 or more.");
        }

        var mean = values.Average();
        if (mean <= 0)
        {
            throw new RefusedException("There is nothing in any of the three lines: no unbalance to work out.");
        }

        return new Unbalance(mean, values.Max(v => Math.Abs(v - mean)) / mean, Sequence(values));
    }

    private static double? Sequence(double[] values)
    {
        var squares = values.Sum(v => v * v);
        var root = 3 - 6 * values.Sum(v => v * v * v * v) / (squares * squares);
        // Three alike give 1, a flat triangle 0; rounding may pass both by a hair.
        return root < -1e-12 ? null : Math.Sqrt(Math.Max(0, 1 - Math.Sqrt(Math.Max(0, root))) / (1 + Math.Sqrt(Math.Max(0, root))));
    }

    private static double? DeratingAt(double percent)
    {
        double[] at = [1, 1, 0.95, 0.88, 0.82, 0.75];
        if (percent > 5)
        {
            return null;
        }

        var below = Math.Min((int)percent, at.Length - 2);
        return at[below] + (percent - below) * (at[below + 1] - at[below]);
    }
}
