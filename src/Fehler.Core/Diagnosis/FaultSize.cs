namespace Fehler.Core.Diagnosis;

/// <summary>
/// How large a fault of unknown size is, by the readings so far: a bad joint of 800 ohm may be 400 or 1600, but it is the same joint at every
/// reading. A standard normal number before anything was read; one step of it is <see cref="Faults.FaultMode.SizeFactor"/>.
/// </summary>
/// <param name="Mean">Expected steps from the size that the catalogue gives.</param>
/// <param name="Variance">Variance of those steps.</param>
/// <param name="Factor">By how much a step makes it larger.</param>
internal readonly record struct FaultSize(double Mean, double Variance, double Factor)
{
    /// <summary>From this share on what a step changes is a factor, not a sum.</summary>
    private const double ByFactorFrom = 0.3;

    /// <summary>A step of the size changes no reading by more than this factor that could be believed (logarithm).</summary>
    private const double MostLog = 1.4;

    /// <summary>Readings farther off than this many standard deviations are mistakes or another fault.</summary>
    private const double Reach = 3;

    /// <summary>A size is never exact: joints move.</summary>
    private const double LeastVariance = 0.02;

    /// <summary>
    /// Share of the readings between which a bad joint has become another: it was moved by the lead, warmed by its current, or measured by a
    /// meter's small one (common practice: one in ten). It also stands for where a coil that is fed too little just pulls in, which is sharp in the
    /// book and not in life, and misleads about what its joint must be.
    /// </summary>
    public const double MovedShare = 0.1;

    /// <summary>Guesses that differ by less are one, steps.</summary>
    private const double SameSteps = 0.05;

    /// <summary>How often the size is reckoned anew from one reading: what a reading says of a size depends on the size.</summary>
    private const int MostRounds = 4;

    /// <summary>Of what has no fault of unknown size.</summary>
    public static FaultSize None => new(0, 0, 1);

    /// <summary>Before anything was read.</summary>
    /// <param name="factor">By how much a step makes it larger.</param>
    public static FaultSize Unknown(double factor) => new(0, 1, factor);

    /// <summary>What is foretold at this size.</summary>
    /// <param name="value">The value at the catalogue's size, and at those next to it.</param>
    /// <returns>Value, its standard deviation, and what one step changes.</returns>
    public (double Value, double Spread, double Slope) Of(AtSizes value)
    {
        var (given, larger) = (value.Given, value.Larger);
        if (double.IsInfinity(given) || double.IsInfinity(larger))
        {
            return (given, double.IsInfinity(given) ? 0 : Math.Abs(given), 0);
        }

        var steps = Math.Sqrt(Variance);
        if (Mean != 0 && value.At(Mean, Factor) is { } there)
        {
            return (there.Value, Math.Abs(there.Slope) * steps, there.Slope);
        }

        var step = larger - given;
        if (given > 0 && larger > 0 && Math.Abs(step) > ByFactorFrom * given)
        {
            var log = Math.Clamp(Math.Log(larger / given), -MostLog, MostLog);
            var factor = Math.Exp(log * Mean);
            return (given * factor, factor * Math.Abs(step) * steps, given * factor * log);
        }

        return (Math.Max(0, given + step * Mean), Math.Abs(step) * steps, step);
    }

    /// <summary>What is known of it after a reading.</summary>
    /// <param name="foretell">What is foretold of that reading if this is known of the size.</param>
    /// <param name="observed">What the meter showed.</param>
    /// <remarks>
    /// The scalar Kalman filter, in the logarithm where the size acts as a factor, made linear again at each better guess (the iterated extended
    /// Kalman filter of the textbooks: Jazwinski, Stochastic Processes and Filtering Theory, 1970, from memory).
    /// </remarks>
    public FaultSize NarrowedBy(Func<FaultSize, Prediction> foretell, double observed)
    {
        var (guess, seen) = (this, Math.Abs(observed));
        for (var round = 0; round < MostRounds; round++)
        {
            var foretold = foretell(guess with { Variance = Variance });
            var value = Math.Abs(foretold.Value);
            if (foretold.Kind != PredictionKind.Value || foretold.SizeSlope == 0)
            {
                return guess;
            }

            var own = Math.Sqrt(foretold.Sigma * foretold.Sigma + foretold.Shared * foretold.Shared);
            var (off, slope, noise) = foretold.IsByFactor
                ? (Math.Log(Math.Max(seen, 1e-9) / value), foretold.SizeSlope / value, own / value)
                : (seen - value, foretold.SizeSlope, own);
            var variance = slope * slope * Variance + noise * noise;
            if (round == 0 && Math.Abs(off) > Reach * Math.Sqrt(variance))
            {
                return this;
            }

            var gain = Variance * slope / variance;
            var before = guess.Mean;
            var mean = Mean + gain * (off - slope * (Mean - guess.Mean));
            guess = guess with { Mean = mean, Variance = Math.Max(LeastVariance, (1 - gain * slope) * Variance) };
            if (Math.Abs(mean - before) < SameSteps)
            {
                break;
            }
        }

        return guess;
    }
}
