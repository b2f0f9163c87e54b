namespace Fehler.Core.Diagnosis;

/// <summary>
/// Something of this panel that nobody measured and that all readings of a kind share: how high its supply stands and what its meter adds
/// to that, or how much copper its motor has. One factor on everything foretold with it, log-normal, narrowed by each reading, never exact.
/// </summary>
/// <remarks>
/// The logarithm is normal before and after each reading: the mean of a normal distribution with known noise, in closed form (any
/// textbook of statistics; the scalar Kalman filter).
/// </remarks>
/// <param name="Mean">Expected logarithm of the factor.</param>
/// <param name="Variance">Variance of that logarithm.</param>
internal readonly record struct SharedUnknown(double Mean, double Variance)
{
    /// <summary>Readings farther off than this many standard deviations are mistakes or another fault: they narrow nothing.</summary>
    private const double Reach = 3;

    /// <summary>
    /// Readings that are less exact than this share say nothing about a few per cent, only about what is known worse than they are.
    /// </summary>
    private const double Exact = 0.12;

    /// <param name="share">One standard deviation before anything is read, as a share.</param>
    public static SharedUnknown Of(double share) => new(0, share * share);

    /// <summary>Counted in its own standard deviations before anything is read; what one of them does is said with each value.</summary>
    public static SharedUnknown Standard => new(0, 1);

    /// <summary>What is foretold on this panel.</summary>
    /// <param name="bookValue">What is foretold with the unknown as described.</param>
    /// <param name="slope">What the logarithm of the value moves by for one of the unknown.</param>
    public Prediction On(Prediction bookValue, double slope = 1)
    {
        if (bookValue.Kind != PredictionKind.Value)
        {
            return bookValue;
        }

        var value = bookValue.Value * Math.Exp(slope * Mean);
        return bookValue with { Value = value, Shared = slope * Math.Sqrt(Variance) * Math.Abs(value), SharedSlope = slope };
    }

    /// <summary>What is known of it after a reading.</summary>
    /// <param name="foretold">What was foretold of that reading on this panel.</param>
    /// <param name="observed">What the meter showed.</param>
    public SharedUnknown NarrowedBy(Prediction foretold, double observed)
    {
        var (value, seen) = (Math.Abs(foretold.Value), Math.Abs(observed));
        var own = Math.Sqrt(foretold.Sigma * foretold.Sigma + foretold.Spread * foretold.Spread) / value;
        var slope = foretold.SharedSlope;
        var exact = Math.Max(Exact, slope * Math.Sqrt(Variance));
        if (foretold.Kind != PredictionKind.Value || slope == 0 || !(own < exact) || Math.Abs(seen - value) > Reach * foretold.Deviation)
        {
            return this;
        }

        var gain = Variance * slope / (Variance * slope * slope + own * own);
        return new SharedUnknown(Mean + gain * Math.Log(seen / value), (1 - gain * slope) * Variance);
    }
}
