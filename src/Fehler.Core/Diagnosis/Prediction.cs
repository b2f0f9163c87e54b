namespace Fehler.Core.Diagnosis;

/// <summary>What a meter would show if a suspect were true.</summary>
/// <param name="Kind">A value, above range, or stray.</param>
/// <param name="Value">V or ohm; for stray what cable capacitance alone would lead to, V: a hint, no more.</param>
/// <param name="Sigma">Standard deviation of what is not known and no other reading shares: meter, joints, coil and winding tolerance.</param>
/// <param name="Spread">Standard deviation that comes from the fault's own unknown size.</param>
public readonly record struct Prediction(PredictionKind Kind, double Value = 0, double Sigma = 0, double Spread = 0)
{
    /// <summary>Nothing holds the point, and this was read of it before.</summary>
    internal static Prediction SeenBefore(double volts) => new(PredictionKind.Stray, volts, 0.05 * volts + 1.5);

    /// <summary>Nothing holds the point, and <see cref="Value"/> is more than a hint: it was read before.</summary>
    internal bool WasSeenBefore => Kind == PredictionKind.Stray && Sigma > 0;

    /// <summary>Standard deviation of what all readings of this kind of this panel share: its supply, its motor's load or copper.</summary>
    internal double Shared { get; init; }

    /// <summary>What the logarithm of the value moves by for one of that unknown; 0 where nothing is shared.</summary>
    internal double SharedSlope { get; init; }

    /// <summary>What one step of the fault's unknown size changes; zero where its size does not matter.</summary>
    internal double SizeSlope { get; init; }

    /// <summary>
    /// A fault known only to within a factor spreads a reading by a factor, not by a sum: 200 kohm that may be 400 kohm may
    /// be 100 kohm, but not zero. Near zero a factor is no spread: a microvolt that may be two microvolts is no volt.
    /// </summary>
    internal bool IsByFactor => Spread > 0.3 * Math.Abs(Value) && Math.Abs(Value) > 2 * Sigma;

    internal double Factor => 1 + Deviation / Math.Max(Math.Abs(Value), 1e-9);

    internal double Deviation => Math.Sqrt(Sigma * Sigma + Spread * Spread + Shared * Shared);

    /// <summary>Two standard deviations below and above; readings are taken without sign.</summary>
    public (double Low, double High) Range =>
        IsByFactor
            ? (Math.Abs(Value) / (Factor * Factor), Math.Abs(Value) * Factor * Factor)
            : (Math.Max(0, Math.Abs(Value) - 2 * Deviation), Math.Abs(Value) + 2 * Deviation);

    /// <summary>Whether a meter would tell the two apart.</summary>
    public bool DiffersFrom(Prediction other) =>
        Kind != other.Kind || (Kind == PredictionKind.Value && (Range.Low > other.Range.High || other.Range.Low > Range.High));

    /// <summary>Fit of a number, 1 at the peak of a prediction that has only the meter's own tolerance.</summary>
    public double Fit(double observed)
    {
        var z = Distance(observed);
        return Math.Exp(-z * z / 2) * Sigma / Deviation;
    }

    /// <summary>How far a number is from it, in standard deviations.</summary>
    public double Distance(double observed) =>
        IsByFactor
            ? Math.Log(Math.Max(Math.Abs(observed), 1e-9) / Math.Max(Math.Abs(Value), 1e-9)) / Math.Log(Factor)
            : (Math.Abs(observed) - Math.Abs(Value)) / Deviation;
}

public enum PredictionKind
{
    Value,

    /// <summary>Resistance above the meter's range.</summary>
    OverLimit,

    /// <summary>Nothing holds the point: a range, never a voltage.</summary>
    Stray,
}
