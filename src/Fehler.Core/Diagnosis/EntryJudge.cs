using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Brings a hypothesis past the entries of a journal and says how well each fits what it foretold.</summary>
/// <param name="session">The diagnosis, followed up to the entry that is judged.</param>
internal sealed class EntryJudge(DiagnosisSession session)
{
    /// <summary>How something that is not in the catalogue fits any observation.</summary>
    private const double NoneOfTheseReadingFit = 0.04,
        NoneOfTheseOperationFit = 0.06;

    /// <summary>
    /// Share of the times that a circuit is found standing as it is because somebody did something that nobody wrote down; as likely as not
    /// when that is the first that is known of it.
    /// </summary>
    private const double UnrecordedShare = 0.05,
        UnrecordedAtFirst = 0.5;

    /// <summary>
    /// Above this insulation is sound, whatever the number (common practice: 1 Mohm is the limit, new motors have far more).
    /// </summary>
    private const double SoundInsulationOhms = 5e6;

    /// <summary>
    /// Share of the readings with an armature pressed in that are written down as that although it did not move (common practice: it is felt, and a
    /// stiff one may be taken for it).
    /// </summary>
    private const double UnfeltShare = 0.1;

    private readonly Slips _slips = new(session);

    public bool IsEvidence(JournalEntry entry) =>
        entry is OperationSeen or Reading or Tightened or ConductorsCounted or Told or LookSeen { Answer: not LookSeen.NotSure }
        || (entry is FunctionTested test && session.Compiled.FunctionTest.Find(test.Step) is not null);

    /// <summary>Brings a hypothesis past an entry; null when it is no evidence.</summary>
    public Judgement? Judge(Hypothesis h, JournalEntry entry)
    {
        if (entry is Reading or LookSeen or Isolated or Energised or CarriedIn or Repair or WireLifted or WireLanded)
        {
            h.LetGo();
        }

        switch (entry)
        {
            case OperationSeen operation:
                return Operated(h, operation.Steps, operation.Seen, operation.AllAlong);
            case FunctionTested test when session.Compiled.FunctionTest.Find(test.Step) is { } step:
                return Operated(h, [.. step.Before, .. step.Steps], Seen(test, step));
            case LookSeen { Answer: not LookSeen.NotSure } look:
                return Looked(h, look);
            case Told told:
                return ToldLikelihood.Judged(told, h.IsRepaired ? null : h.Fault, session.Circuit);
            case Reading reading:
                return Read(h, reading);
            case Tightened tightened:
                return new Judgement(h.Tighten(tightened), h.IsRepaired ? "loose" : "as it was");
            case ConductorsCounted counted:
                var (fit, likeliest) = h.Count(counted);
                return new Judgement(fit, likeliest.ToString(System.Globalization.CultureInfo.InvariantCulture));
            case Isolated:
                h.Operate(session.Compiled.Isolation.Off);
                break;
            case Energised or CarriedIn:
                h.Operate(session.Compiled.Isolation.On);
                break;
            case WireLifted lifted:
                h.Lift(new ConductorEnd(lifted.Conductor, lifted.End));
                break;
            case WireLanded landed:
                h.Land(landed.Conductor);
                break;
            case Repair repair when repair.Unit.Length > 0:
                h.Repair(repair.Unit);
                break;
        }

        return null;
    }

    private static ImmutableSortedDictionary<string, string> Seen(FunctionTested test, FunctionTestStep step) =>
        test.Seen.Count > 0 || !test.Passed ? test.Seen : step.Expected;

    private Judgement Operated(
        Hypothesis hypothesis,
        ImmutableArray<Step> steps,
        ImmutableSortedDictionary<string, string> seen,
        bool allAlong = false
    )
    {
        var (arrival, fit) = hypothesis.Operate(
            steps,
            allAlong,
            WhatNobodyWroteDown(hypothesis, steps, seen),
            a => seen.Aggregate(1.0, (fit, s) => fit * hypothesis.Otherwise.Fit(s.Key, s.Value, a.Appearances.GetValueOrDefault(s.Key, "")))
        );
        hypothesis.Otherwise.Keep(seen, arrival);
        return new Judgement(fit, string.Join(", ", seen.Keys.Select(k => $"{k} {arrival.Appearances.GetValueOrDefault(k, "")}")));
    }

    private IEnumerable<Unrecorded> WhatNobodyWroteDown(
        Hypothesis hypothesis,
        ImmutableArray<Step> steps,
        ImmutableSortedDictionary<string, string> seen
    )
    {
        var beginning = session.Compiled.StartingHypotheses;
        var done = IsFirst(hypothesis) ? UnrecordedAtFirst : UnrecordedShare;
        return (steps.IsEmpty ? beginning.Unrecorded : [])
            .Select(course => new Unrecorded(done, course))
            .Concat(
                beginning
                    .Trips.Where(t => t.MayHaveHappened(steps, seen))
                    .Select(t => new Unrecorded(t.Share(hypothesis.Foresee(steps).State), [t.Step], t.Step.Device))
            );
    }

    /// <summary>
    /// An answer to a look. What is seen to have tripped has tripped, foretold or not: it stands so from now on and is not held against it
    /// again.
    /// </summary>
    private Judgement Looked(Hypothesis h, LookSeen look)
    {
        var foretold = h.Seen(look.Device, look.Look);
        var fit = Likelihood.OfLook(look.Answer, foretold);
        var trip = session.Compiled.StartingHypotheses.Trips.FirstOrDefault(t =>
            (t.Step.Device, t.Step.Position) == (look.Device, look.Answer)
        );
        if (trip is not null && foretold != look.Answer)
        {
            var share = trip.Share(h.State);
            fit = h.HasTripped(trip.Step, look) ? Math.Max(fit, share) : fit;
        }

        return new Judgement(fit, foretold);
    }

    /// <summary>Nothing of the circuit itself was seen before.</summary>
    private bool IsFirst(Hypothesis hypothesis) => session.Observations.Take(hypothesis.Judged.Count).All(o => o.Entry is Told);

    /// <summary>Whether a hypothesis explains a reading, without taking it into account: however broad what it foretells, it reaches that.</summary>
    public bool Explains(Hypothesis hypothesis, Reading reading) => Explains(Foretold(hypothesis, reading), reading);

    /// <summary>Where the leads rather were, by this hypothesis, if one of them was on another terminal of its device; null when nowhere.</summary>
    public (TerminalId From, TerminalId To)? Slipped(Hypothesis hypothesis, Reading reading) =>
        IsPlain(reading) ? _slips.Likeliest(hypothesis, reading, SetupOf(reading), p => Explains(p, reading)) : null;

    private bool Explains(Prediction foretold, Reading reading)
    {
        const double reach = 3,
            likely = 0.05;
        var value = Understood(reading);
        return (value.Kind, foretold.Kind) switch
        {
            (ReadingKind.Number, PredictionKind.Value) => Math.Abs(foretold.Distance(value.Number)) < reach,
            (ReadingKind.Number, PredictionKind.Stray) => Math.Abs(value.Number) <= session.StraySpan,
            _ => Likelihood.OfReading(reading.Quantity, value, foretold, session.FullVolts, session.StraySpan) > likely,
        };
    }

    private Prediction Foretold(Hypothesis hypothesis, Reading reading) =>
        IsPlain(reading)
            ? hypothesis.Predict(reading.Quantity, session.Tables, [(reading.From, reading.To)], SetupOf(reading))[0]
            : hypothesis.PredictAsTaken(reading, SetupOf(reading), isSound: false);

    /// <summary>What a reading would show if the fault were away.</summary>
    public Prediction Sound(Hypothesis hypothesis, Reading reading) =>
        IsPlain(reading)
            ? hypothesis.PredictSound(reading.Quantity, session.Tables, [(reading.From, reading.To)], SetupOf(reading))[0]
            : hypothesis.PredictAsTaken(reading, SetupOf(reading), isSound: true);

    /// <summary>Between two terminals by a meter that draws nothing: what is foretold for all pairs at once.</summary>
    private static bool IsPlain(Reading reading) => reading.FreeEnd.Length == 0 && !(reading.LowImpedance && reading.Quantity.IsVolts());

    private static Setup SetupOf(Reading reading) =>
        new(SetupChange.None, reading.Held, !reading.Quantity.IsLive()) { LiftedAt = reading.Alone ? reading.From.Device : "" };

    /// <summary>An insulation tester that shows tens of megohm shows good insulation.</summary>
    private static ReadingValue Understood(Reading reading) =>
        reading is { Quantity: Quantity.Insulation, Value: { Kind: ReadingKind.Number, Number: > SoundInsulationOhms } }
            ? new ReadingValue(ReadingKind.OverLimit)
            : reading.Value;

    private Judgement Read(Hypothesis hypothesis, Reading reading)
    {
        var setup = SetupOf(reading);
        var value = Understood(reading);
        var (prediction, fit) = Fitted(hypothesis, reading, value, setup);
        if (fit < FaultSize.MovedShare && prediction.SizeSlope != 0 && hypothesis.BeginSizeAnew() is { } known)
        {
            var (anew, fitAnew) = Fitted(hypothesis, reading, value, setup);
            if (FaultSize.MovedShare * fitAnew > fit)
            {
                (prediction, fit) = (anew, FaultSize.MovedShare * fitAnew);
            }
            else
            {
                hypothesis.KeepSize(known);
            }
        }

        if (hypothesis.Resists(reading.Held))
        {
            fit *= UnfeltShare;
        }

        double? sound = null;
        if (hypothesis.Fault is { } fault && reading.Value.Kind != ReadingKind.NotSure && IsAtItsPoints(fault, reading))
        {
            var good = Sound(hypothesis, reading);
            sound = Likelihood.OfReading(reading.Quantity, value, good, session.FullVolts, session.StraySpan);
        }

        if (value.Kind == ReadingKind.Number)
        {
            hypothesis.Narrow(reading.Quantity, prediction, value.Number, () => Foretold(hypothesis, reading));
        }

        // What is held of a device that stands by itself moves nothing in the circuit.
        if (!reading.Alone)
        {
            hypothesis.HoldAndRelease(setup);
        }

        return new Judgement(Math.Min(1, fit), Words.Of(prediction, reading.Quantity), prediction, sound);
    }

    /// <summary>What is foretold of a reading and how well it fits that.</summary>
    private (Prediction Foretold, double Fit) Fitted(Hypothesis hypothesis, Reading reading, ReadingValue value, Setup setup)
    {
        var foretold = Foretold(hypothesis, reading);
        if (reading.Value.Kind == ReadingKind.NotSure)
        {
            return (foretold, 1);
        }

        var fit = hypothesis.Fit(reading, value, foretold, setup, session.FullVolts, session.StraySpan);
        return (foretold, fit < Slips.Share && IsPlain(reading) ? fit + _slips.Fit(hypothesis, reading, value, setup) : fit);
    }

    private static bool IsAtItsPoints(FaultMode fault, Reading reading) =>
        fault.Parts.IsEmpty
            ? fault.ProofPoints is { } points && ((reading.From, reading.To) == points || (reading.To, reading.From) == points)
            : fault.Parts.Any(p => IsAtItsPoints(p, reading));

    /// <summary>How something that is not in the catalogue fits an entry.</summary>
    public double NoneFit(JournalEntry entry) =>
        entry switch
        {
            OperationSeen operation => Math.Pow(NoneOfTheseOperationFit, Math.Min(2, operation.Seen.Count)),
            FunctionTested test => Math.Pow(
                NoneOfTheseOperationFit,
                Math.Min(2, Seen(test, session.Compiled.FunctionTest.Find(test.Step)!).Count)
            ),
            LookSeen => 0.3,
            Tightened or ConductorsCounted or Told => 0.5,
            Reading { Value.Kind: ReadingKind.NotSure } => 1,
            _ => NoneOfTheseReadingFit,
        };
}
