using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>What one hypothesis foretold of an observation and how well that fits.</summary>
/// <param name="Fit">Likelihood, at most 1.</param>
/// <param name="Foretold">In words.</param>
/// <param name="Reading">Readings: the value foretold.</param>
/// <param name="SoundFit">
/// Readings at the fault's own points: how well they fit the same circuit without the fault, every device standing as it stood.
/// </param>
internal readonly record struct Judgement(double Fit, string Foretold, Prediction? Reading = null, double? SoundFit = null)
{
    /// <summary>
    /// Likelihood with a fault that comes and goes, where that is not between the fault and a good circuit; null where it is.
    /// </summary>
    public double? ComingAndGoingFit { get; init; }
}
