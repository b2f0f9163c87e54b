namespace Fehler.Core.Diagnosis;

/// <summary>
/// How large a fault of unknown size is, by the readings so far: a bad joint of 800 ohm may be 400 or 1600, but it is the same joint at every
/// reading. A standard normal number before anything was read; one step of it is <see cref="Faults.FaultMode.SizeFactor"/>.
/// </summary>
/// <param name="Mean">Expected steps from the size that the catalogue gives.</param>
/// <param name="Variance">Variance of those steps.</param>
internal readonly record struct FaultSize(double Mean, double Variance)
{
    /// <summary>From this share on what a step changes is a factor, not a sum.</summary>
    private const double ByFactorFrom = 0.3;

    /// <summary>A step of the size changes no reading by more than this factor that could be believed (logarithm).</summary>
    private const double MostLog = 1.4;

    /// <summary>Readings farther off than this many standard deviations are mistakes or another fault.</summary>
    private const double Reach = 3;

    /// <summary>A size is never exact: joints move.</summary>
    private const double LeastVariance = 0.02;

    /// <summary>Before anything was read.</summary>
    public static FaultSize Unknown => new(0, 1);

    /// <summary>What is foretold at this size.</summary>
    /// <param name="given">Value at the catalogue's size.</param>
    /// <param name="stepped">Value one step larger.</param>
    /// <returns>Value, its standard deviation, and what one step changes.</returns>
    public (double Value, double Spread, double Slope) Between(double given, double stepped)
    {
        if (double.IsInfinity(given) || double.IsInfinity(stepped))
        {
            return (given, double.IsInfinity(given) ? 0 : Math.Abs(given), 0);
        }

        var step = stepped - given;
        var steps = Math.Sqrt(Variance);
        if (given > 0 && stepped > 0 && Math.Abs(step) > ByFactorFrom * given)
        {
            var log = Math.Clamp(Math.Log(stepped / given), -MostLog, MostLog);
            var factor = Math.Exp(log * Mean);
            return (given * factor, factor * Math.Abs(step) * steps, given * factor * log);
        }

        return (Math.Max(0, given + step * Mean), Math.Abs(step) * steps, step);
    }

    /// <summary>What is known of it after a reading.</summary>
    /// <param name="foretold">What was foretold of that reading at this size.</param>
    /// <param name="observed">What the meter showed.</param>
    /// <remarks>The scalar Kalman filter; in the logarithm where the size acts as a factor.</remarks>
    public FaultSize NarrowedBy(Prediction foretold, double observed)
    {
        var (value, seen) = (Math.Abs(foretold.Value), Math.Abs(observed));
        if (foretold.Kind != PredictionKind.Value || foretold.SizeSlope == 0)
        {
            return this;
        }

        var own = Math.Sqrt(foretold.Sigma * foretold.Sigma + foretold.Shared * foretold.Shared);
        var (off, slope, noise) = foretold.IsByFactor
            ? (Math.Log(Math.Max(seen, 1e-9) / value), foretold.SizeSlope / value, own / value)
            : (seen - value, foretold.SizeSlope, own);
        var variance = slope * slope * Variance + noise * noise;
        if (Math.Abs(off) > Reach * Math.Sqrt(variance))
        {
            return this;
        }

        var gain = Variance * slope / variance;
        return new FaultSize(Mean + gain * off, Math.Max(LeastVariance, (1 - gain * slope) * Variance));
    }
}
