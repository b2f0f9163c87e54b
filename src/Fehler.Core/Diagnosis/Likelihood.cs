using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// How well an observation fits a prediction, relative to a perfect fit (1). A share of outliers keeps one mistaken
/// reading from excluding the truth for ever.
/// </summary>
public static class Likelihood
{
    /// <summary>Share of readings that are simply wrong: slipped probe, misread display, wrong terminal.</summary>
    public const double OutlierShare = 0.03;

    /// <summary>Density of an outlier relative to the peak of a sharp reading: it may show anything on the scale.</summary>
    private const double OutlierDensity = 0.05;

    /// <summary>Share of operations of which one thing was not seen as it was, and of looks at something that stands still.</summary>
    private const double MisseenShare = 0.02,
        MislookedShare = 0.005;

    /// <summary>
    /// Below this share of the greatest stray voltage any value is as likely as another: half of the voltage between lines.
    /// </summary>
    private const double PartOfSpan = 0.7;

    /// <summary>
    /// Leads that miss their points show OL. A number where nothing joins two points takes leads that hit another pair, which is the
    /// smaller part of the slips (common practice).
    /// </summary>
    private const double FoundNothingShare = 0.15;

    private const double Floor = OutlierShare * OutlierDensity;

    /// <summary>
    /// Share of readings whose leads did not touch what they should: no voltage, and OL. The commonest of all mistakes (common practice: one
    /// in a hundred of a careful hand), and the one that looks like an open circuit.
    /// </summary>
    private const double TouchedNothingShare = 0.01;

    /// <summary>
    /// What is said of a motor that runs when nobody knows which way or how: it is that of every motor that runs.
    /// </summary>
    private const string RunsSomehow = "runs, way not known";

    /// <summary>
    /// "Runs" is said of a motor that has stayed in star as well by whoever does not know its sound, and "on" of a timer that has not timed out by
    /// whoever sees its lamp (common practice: one in three).
    /// </summary>
    private const double LooselySaidShare = 0.3;

    /// <summary>Below this a meter shows that its leads touch nothing, V.</summary>
    private const double NothingVolts = 2;

    /// <summary>Fit of a reading.</summary>
    /// <param name="quantity">What was measured.</param>
    /// <param name="value">What the meter showed.</param>
    /// <param name="prediction">What it would show under the suspect.</param>
    /// <param name="fullVolts">Control voltage, what "full" means.</param>
    /// <param name="straySpan">Greatest voltage a stray point may show.</param>
    public static double OfReading(Quantity quantity, ReadingValue value, Prediction prediction, double fullVolts, double straySpan) =>
        value.Kind switch
        {
            ReadingKind.Number => (
                quantity.IsVolts() && Math.Abs(value.Number) < NothingVolts ? TouchedNothingShare
                : prediction.Kind == PredictionKind.OverLimit ? Floor * FoundNothingShare
                : Floor
            )
                + (1 - OutlierShare) * NumberFit(value.Number, prediction, straySpan),
            ReadingKind.Full => Floor
                + (1 - OutlierShare)
                    * NumberFit(fullVolts, prediction with { Sigma = Math.Max(prediction.Sigma, 0.07 * fullVolts) }, straySpan),
            ReadingKind.OverLimit => prediction.Kind == PredictionKind.OverLimit ? 1 - OutlierShare
            : prediction.Kind == PredictionKind.Value && prediction.Value > 1e6 ? 0.4
            : TouchedNothingShare,
            ReadingKind.Beep => Floor + (1 - OutlierShare) * BeepFit(prediction),
            ReadingKind.Silent => TouchedNothingShare + (1 - OutlierShare) * (1 - BeepFit(prediction)),
            _ => prediction.Kind == PredictionKind.Stray ? 0.6 : 0.03,
        };

    /// <summary>Fit of what was seen of a device; neighbours such as "buzzes" and "chatters" are easily taken for each other.</summary>
    public static double OfAppearance(string seen, string predicted) =>
        seen == predicted || (seen == RunsSomehow && predicted.StartsWith("runs", StringComparison.Ordinal)) ? 1 - MisseenShare
        : (seen, predicted) is ("runs", "runs in star") or ("on", "timing") ? LooselySaidShare
        : AreNeighbours(seen, predicted) ? 0.08
        : MisseenShare / 2;

    /// <summary>Fit of an answer to a look.</summary>
    public static double OfLook(string seen, string predicted) => seen == predicted ? 1 - MislookedShare : MislookedShare;

    /// <param name="signed">Volts are taken without sign: the leads of an AC reading have none.</param>
    private static double NumberFit(double signed, Prediction prediction, double straySpan)
    {
        var observed = Math.Abs(signed);
        switch (prediction.Kind)
        {
            case PredictionKind.OverLimit:
                return observed > 5e6 ? 0.4 : 0;
            case PredictionKind.Stray:
                // Mostly little, or what cable capacitance leads to (closely where the piece is symmetric, as a motor is), or a good part of
                // the supply; a full one seldom, unless the capacitance says so.
                var sharp = Math.Max(1, 0.05 * observed);
                var (width, close) = (0.25 * prediction.Value + 2, 0.05 * prediction.Value + 1.5);
                var (z, near) = ((observed - prediction.Value) / width, (observed - prediction.Value) / close);
                return observed > straySpan
                    ? 0
                    : sharp
                        * (
                            0.25 * Math.Exp(-observed / 8) / 8
                            + 0.25 * Math.Exp(-z * z / 2) / (2.5 * width)
                            + 0.25 * Math.Exp(-near * near / 2) / (2.5 * close)
                            + (observed < PartOfSpan * straySpan ? 0.25 : 0.05) / straySpan
                        );
            default:
                return prediction.Fit(observed);
        }
    }

    /// <summary>Continuity testers beep below about 30 ohm (common practice).</summary>
    private static double BeepFit(Prediction prediction) =>
        prediction.Kind == PredictionKind.OverLimit ? 0
        : prediction.Value < 15 ? 1
        : prediction.Value > 60 ? 0
        : (60 - prediction.Value) / 45;

    private static readonly string[][] Neighbours =
    [
        ["out", "buzzes", "chatters"],
        ["in", "hums"],
        ["off", "dim"],
        ["dim", "on"],
        ["stopped", "hums, does not start"],
        ["runs", "runs rough"],
    ];

    private static bool AreNeighbours(string a, string b)
    {
        foreach (var group in Neighbours)
        {
            if (group.Contains(a) && group.Contains(b))
            {
                return true;
            }
        }

        return false;
    }
}
