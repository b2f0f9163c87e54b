using Fehler.Core.Electrical;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// A value with a fault of unknown size: as large as the catalogue has it, one step of <see cref="FaultSize.Factor"/> larger, one smaller.
/// </summary>
/// <param name="Given">At the catalogue's size.</param>
/// <param name="Larger">One step larger; the same as given where the size does not matter.</param>
/// <param name="Smaller">One step smaller; NaN where nobody asked for it, because nothing is known of the size yet.</param>
internal readonly record struct AtSizes(double Given, double Larger, double Smaller = double.NaN)
{
    /// <summary>In series the value is a straight line of the size, k is zero, and rounding puts it to either side.</summary>
    private const double Rounding = 1e-6;

    /// <summary>A value that no fault's size changes.</summary>
    public static AtSizes Same(double value) => new(value, value, value);

    public static AtSizes operator *(double factor, AtSizes value) =>
        new(factor * value.Given, factor * value.Larger, factor * value.Smaller);

    /// <summary>The value at another size, and what a step changes there; null where three sizes do not tell.</summary>
    /// <remarks>
    /// Every voltage, current and resistance of a linear network is a bilinear function of each of its resistances, (a + b u) / (1 + k u): three
    /// values of it are enough for all (Bode, Network Analysis and Feedback Amplifier Design, 1945, from memory). Of the magnitudes of an
    /// alternating network that holds nearly.
    /// </remarks>
    /// <param name="steps">Steps from the catalogue's size.</param>
    /// <param name="factor">Factor of one step.</param>
    public (double Value, double Slope)? At(double steps, double factor)
    {
        var (y1, y2, y3, f) = (Smaller, Given, Larger, factor);
        var k = (y3 - y2 - f * (y2 - y1)) / (f * (y2 - y3) + y2 - y1);
        if (double.IsNaN(k) || double.IsInfinity(k) || k < -Rounding)
        {
            return null;
        }

        k = Math.Max(0, k);
        var b = (y3 * (1 + k * f) - y2 * (1 + k)) / (f - 1);
        var a = y2 * (1 + k) - b;
        var u = Math.Pow(f, steps);
        var value = (a + b * u) / (1 + k * u);
        return value < 0 ? null : (value, (b - a * k) / ((1 + k * u) * (1 + k * u)) * u * Math.Log(f));
    }
}

/// <summary>A circuit solved with a fault of unknown size, see <see cref="AtSizes"/>.</summary>
internal readonly record struct SolvedAtSizes(Solution Given, Solution? Larger = null, Solution? Smaller = null);
