using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// A lead on another terminal of the same device than the one that was written down. What is read then is no reading of anything: it is
/// mostly nothing or the full voltage, and it looks like a fault. So it is foretold as every other reading is, for each terminal that the
/// lead may have slipped to.
/// </summary>
/// <param name="session">The diagnosis that the readings belong to.</param>
internal sealed class Slips(DiagnosisSession session)
{
    /// <summary>
    /// Share of readings with one of both leads on another terminal of its device (common practice: one in a hundred, in a full panel more).
    /// </summary>
    public const double Share = 0.01;

    /// <summary>How well a reading fits a slipped lead: the mean over all terminals it may have been on, times how often leads slip.</summary>
    /// <param name="hypothesis">What is taken to be true.</param>
    /// <param name="reading">The reading as written down.</param>
    /// <param name="value">What the meter showed.</param>
    /// <param name="setup">The state it was taken in.</param>
    public double Fit(Hypothesis hypothesis, Reading reading, ReadingValue value, Setup setup)
    {
        var pairs = Pairs(reading);
        return pairs.IsEmpty
            ? 0
            : Share
                * hypothesis
                    .Predict(reading.Quantity, session.Tables, pairs, setup)
                    .Average(p => Likelihood.OfReading(reading.Quantity, value, p, session.FullVolts, session.StraySpan));
    }

    /// <summary>Where the leads rather were, if one of them slipped: the pair that shows what was read; null when none does.</summary>
    /// <param name="hypothesis">What is taken to be true.</param>
    /// <param name="reading">The reading as written down.</param>
    /// <param name="setup">The state it was taken in.</param>
    /// <param name="explains">Whether what is foretold of a pair explains the reading.</param>
    public (TerminalId From, TerminalId To)? Likeliest(Hypothesis hypothesis, Reading reading, Setup setup, Func<Prediction, bool> explains)
    {
        var pairs = Pairs(reading);
        var foretold = hypothesis.Predict(reading.Quantity, session.Tables, pairs, setup);
        return pairs
            .Zip(foretold)
            .Where(x => x.Second.Kind != PredictionKind.Stray && explains(x.Second))
            .Select(x => ((TerminalId, TerminalId)?)x.First)
            .FirstOrDefault();
    }

    /// <summary>The last reading's: a thousand hypotheses are judged by one, on several threads, and any of them may be the first.</summary>
    private Slipped? _last;

    private sealed record Slipped(Reading Reading, ImmutableArray<(TerminalId From, TerminalId To)> Pairs);

    private ImmutableArray<(TerminalId From, TerminalId To)> Pairs(Reading reading)
    {
        var last = _last;
        if (last is null || !ReferenceEquals(last.Reading, reading))
        {
            _last = last = new Slipped(reading, PairsOf(reading));
        }

        return last.Pairs;
    }

    private ImmutableArray<(TerminalId From, TerminalId To)> PairsOf(Reading reading) =>
        reading.Quantity.IsAmps() || reading.Alone || reading.From == reading.To
            ? []
            :
            [
                .. Beside(reading.From).Where(t => t != reading.To).Select(t => (t, reading.To)),
                .. Beside(reading.To).Where(t => t != reading.From).Select(t => (reading.From, t)),
            ];

    private IEnumerable<TerminalId> Beside(TerminalId terminal)
    {
        var device = session.Circuit.Device(terminal.Device);
        return device
            .Kind.Terminals(device)
            .Where(name => name != terminal.Name)
            .Select(device.Terminal)
            .Where(session.Compiled.Network.Has);
    }
}
