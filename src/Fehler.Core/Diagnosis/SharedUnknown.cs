namespace Fehler.Core.Diagnosis;

/// <summary>
/// Something of this panel that nobody measured and that all readings of a kind share: how high its supply stands and what its meter adds
/// to that. One factor on everything foretold with it, log-normal, narrowed by each reading, never exact.
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

    /// <summary>Readings that are less exact than this share say nothing about a few per cent.</summary>
    private const double Exact = 0.12;

    /// <param name="share">One standard deviation before anything is read, as a share.</param>
    public static SharedUnknown Of(double share) => new(0, share * share);

    /// <summary>What is foretold on this panel.</summary>
    /// <param name="bookValue">What is foretold with the unknown as described.</param>
    public Prediction On(Prediction bookValue)
    {
        if (bookValue.Kind != PredictionKind.Value)
        {
            return bookValue;
        }

        var factor = Math.Exp(Mean);
        var value = bookValue.Value * factor;
        return bookValue with { Value = value, Shared = Math.Sqrt(Variance) * Math.Abs(value) };
    }

    /// <summary>What is known of it after a reading.</summary>
    /// <param name="foretold">What was foretold of that reading on this panel.</param>
    /// <param name="observed">What the meter showed.</param>
    public SharedUnknown NarrowedBy(Prediction foretold, double observed)
    {
        var (value, seen) = (Math.Abs(foretold.Value), Math.Abs(observed));
        var own = Math.Sqrt(foretold.Sigma * foretold.Sigma + foretold.Spread * foretold.Spread) / value;
        if (foretold.Kind != PredictionKind.Value || !(own < Exact) || Math.Abs(seen - value) > Reach * foretold.Deviation)
        {
            return this;
        }

        var gain = Variance / (Variance + own * own);
        return new SharedUnknown(Mean + gain * Math.Log(seen / value), (1 - gain) * Variance);
    }
}
