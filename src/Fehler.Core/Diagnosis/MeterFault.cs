using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// A meter that is wrong for all its readings in the same way, so that no fault of the circuit explains them and every repetition agrees.
/// </summary>
/// <param name="Signs">What all the readings have in common.</param>
/// <param name="Check">What to check the meter for.</param>
/// <param name="Prior">Probability before any reading (common practice: seldom, and always on the worst day).</param>
/// <param name="Concerns">Quantities that come out wrong.</param>
/// <param name="Truth">
/// What a right meter would have shown; null where the meter shows nothing whatever it is put to. It answers null to a reading that cannot have
/// come about so.
/// </param>
internal sealed record MeterFault(
    string Signs,
    string Check,
    double Prior,
    ImmutableArray<Quantity> Concerns,
    Func<ReadingValue, ReadingValue?>? Truth
)
{
    /// <summary>Fewer readings than this are as well the circuit.</summary>
    private const int LeastReadings = 3;

    /// <summary>A dead meter may be moved by a stray digit.</summary>
    private const double ShownByDead = 0.9;

    /// <summary>
    /// Last digit of a usual meter, ohm (common practice): whoever takes one unit for another takes it so of a number that stood there. A closed
    /// contact's 0.03 ohm does not, and a joint of 30 ohm is none that was misread.
    /// </summary>
    private const double LeastShown = 0.1;

    /// <summary>One reading that cannot have come about so speaks against a meter that is wrong for all of them.</summary>
    private const double CannotBe = 0.001;

    private static readonly ImmutableArray<Quantity> Voltages = [Quantity.Volts, Quantity.DcVolts],
        Resistances = [Quantity.Ohms, Quantity.Continuity];

    private static readonly ImmutableArray<MeterFault> All =
    [
        new(
            "Every reading shows nothing",
            "check the meter on a known source, its leads against each other, its current fuse, its battery and the setting.",
            0.005,
            [.. Voltages, .. Resistances, Quantity.Amps],
            null
        ),
        new(
            "Every voltage shows nothing",
            "check the meter on a known source: set to AC or DC as the circuit is, leads in the voltage sockets.",
            0.004,
            Voltages,
            null
        ),
        new(
            "Every resistance shows OL",
            "touch the leads together: a broken lead, a lead in the current socket or a blown fuse of the meter.",
            0.004,
            Resistances,
            null
        ),
        new(
            "Every resistance is about a thousand times what it should be",
            "look at the unit on the display: k taken for M, or ohm for k.",
            0.003,
            [Quantity.Ohms],
            v => Scaled(v, 1e-3) is { Kind: ReadingKind.Number, Number: > 0 and < LeastShown } ? null : Scaled(v, 1e-3)
        ),
        new(
            "Every resistance is about a thousandth of what it should be",
            "look at the unit on the display: M taken for k, or k for ohm.",
            0.003,
            [Quantity.Ohms],
            v => Scaled(v, 1e3)
        ),
        new(
            "Every voltage is about half as much again as it should be",
            "check the meter on a known source: with a flat battery many read high.",
            0.002,
            Voltages,
            v => Scaled(v, 1 / 1.5)
        ),
    ];

    /// <summary>
    /// The likeliest fault of the meter, when it is likelier than this beside everything that may be wrong with the circuit.
    /// </summary>
    public static (MeterFault Fault, double Share)? Likeliest(DiagnosisSession session, double above)
    {
        if (session.MeterIsGood)
        {
            return null;
        }

        foreach (var fault in All)
        {
            // With those left behind taken at their most first: seldom is anything in it.
            if (fault.Share(session) > above)
            {
                session.BringAll();
                if (fault.Share(session) is var share && share > above)
                {
                    return (fault, share);
                }
            }
        }

        return null;
    }

    private double Share(DiagnosisSession session)
    {
        var readings = session
            .Observations.Where(o => o.Entry is Reading { Value.Kind: not ReadingKind.NotSure } r && Concerns.Contains(r.Quantity))
            .ToList();
        if (readings.Count < LeastReadings || (Truth is null && readings.Any(o => !ShowsNothing((Reading)o.Entry))))
        {
            return 0;
        }

        var instead = readings.Select(o => (o.Place, (Func<Judgement, double>)(judged => Fit(session, (Reading)o.Entry, judged)))).ToList();
        var wrong = session.Hypotheses.Select(h => h.LogWeightIf(instead)).ToList();
        var most = wrong.Max();
        var right = session.Hypotheses.Sum(h => Math.Exp(h.LogWeight - most)) / (1 - session.Posterior()[^1]);
        return Prior * wrong.Sum(w => Math.Exp(w - most)) is var weight ? weight / (weight + right) : 0;
    }

    private double Fit(DiagnosisSession session, Reading reading, Judgement judged) =>
        Truth is null ? ShownByDead
        : judged.Reading is not { } foretold ? judged.Fit
        : Truth(reading.Value) is { } truth
            ? Math.Min(1, Likelihood.OfReading(reading.Quantity, truth, foretold, session.FullVolts, session.StraySpan))
        : CannotBe;

    /// <summary>What a meter shows that is dead, or whose leads touch nothing.</summary>
    public static bool ShowsNothing(Reading reading) =>
        reading.Value.Kind is ReadingKind.OverLimit or ReadingKind.Silent
        || (reading.Quantity.IsLive() && reading.Value is { Kind: ReadingKind.Number, Number: < 2 });

    private static ReadingValue Scaled(ReadingValue value, double factor) =>
        value.Kind == ReadingKind.Number ? value with { Number = value.Number * factor } : value;
}
