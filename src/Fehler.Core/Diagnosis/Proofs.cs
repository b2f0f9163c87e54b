using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Whether what was read or seen proves a suspect: it fits that, and neither a sound circuit nor what else is still possible.</summary>
/// <param name="session">The diagnosis.</param>
/// <param name="posterior">Probability of each of its hypotheses.</param>
internal sealed class Proofs(DiagnosisSession session, double[] posterior)
{
    /// <summary>A proof fits the fault far better than chance; one of a fault of unknown size fits less sharply.</summary>
    private const double ProvesAbove = 10 * Likelihood.OutlierShare * 0.05;

    /// <summary>How many times better one has to fit to be told from another by one reading.</summary>
    private const double Telling = 4;

    /// <summary>A rival that holds less is not worth another proof.</summary>
    private const double RivalShare = 0.0005;

    /// <summary>What so much of the probability takes for a mistake was one.</summary>
    private const double MistakenAbove = 0.8;

    private readonly Lazy<int> _needed = new(() =>
        session.Observations.Any(o =>
            o.Entry is Reading && session.Hypotheses.Select((h, i) => o.IsMistakeTo(h) ? posterior[i] : 0).Sum() > MistakenAbove
        )
            ? 2
            : 1
    );

    /// <summary>
    /// How many readings at its own points prove a suspect: one, and where a reading of this job turned out to be a mistake, two (common
    /// practice: who has slipped once puts the leads on again before anything is replaced).
    /// </summary>
    public int Needed => _needed.Value;

    /// <summary>
    /// The suspect's own proof: a reading on its points, or its look, that fits it and neither a healthy circuit nor what else is still
    /// possible. A welded contact reads like a short circuit in the cable beside it.
    /// </summary>
    public bool IsProved(Suspect suspect)
    {
        var best = session.Hypotheses.Select((h, i) => (h, i)).Where(x => x.h.Fault?.Id == suspect.Fault!.Id).MaxBy(x => posterior[x.i]).h;
        var fault = Assessment.PartIn(suspect.Unit, suspect.Fault!);
        if (fault.ProofPoints is null && fault.ProofLook is null)
        {
            // No reading shows a jammed armature: it is what is left when nothing else can be.
            return suspect.Probability >= Assessment.CertainShare;
        }

        var proving = session.Observations.Where(o =>
            o.FitOf(best) > ProvesAbove
            // What nothing holds may show anything: it points, it does not prove.
            && o.By(best).Reading is not { Kind: PredictionKind.Stray }
            && (
                IsFedInVain(fault, o.By(best).Reading)
                || o.FitOf(best) > Telling * (o.By(best).SoundFit ?? (SaysTheSame(session.Healthy, fault) ? 0 : o.FitOf(session.Healthy)))
            )
            && RivalsThatFit(o, suspect, best) < Assessment.OpenShare
            && o.Entry switch
            {
                Reading r => IsAtItsOwn(fault, r.Quantity, r.From, r.To) && !MayBeGhost(o, r, suspect.Unit),
                LookSeen l => fault.ProofLook is { } look && look == (l.Device, l.Look),
                _ => false,
            }
        );
        return proving.Any(o => o.Entry is LookSeen) || proving.Take(Needed).Count() == Needed;
    }

    /// <summary>
    /// Share of what is not this unit, nor the same circuit under another name, and would have shown the same. What made a fuse blow agrees
    /// that it has blown.
    /// </summary>
    private double RivalsThatFit(Observation observation, Suspect suspect, Hypothesis best)
    {
        var fault = Assessment.PartIn(suspect.Unit, suspect.Fault!);
        return session
            .Hypotheses.Select((h, i) => (Hypothesis: h, Share: posterior[i]))
            .Where(x => x.Share > 1e-4 && IsRival(x.Hypothesis, suspect.Unit, fault))
            .Where(x => observation.FitOf(x.Hypothesis) * Telling > observation.FitOf(best))
            .Sum(x => x.Share);
    }

    /// <summary>Whether a reading is taken where the fault shows itself: at its points, or of the currents that it drives.</summary>
    public bool IsAtItsOwn(FaultMode fault, Quantity quantity, TerminalId from, TerminalId to) =>
        (fault.ProofPoints is { } p && ((from, to) == p || (to, from) == p))
        || (fault.ShowsInCurrents && quantity.IsAmps() && session.Points.OfTheOnlyMotor.Contains(from));

    /// <summary>A sound one would show the same reading, and burn with it: whoever reads it sees that it does not.</summary>
    public bool IsFedInVain(FaultMode fault, Prediction? foretold) =>
        fault.IsIdleThoughFed
        && foretold is { Kind: PredictionKind.Value } volts
        && session.Circuit.FindDevice(fault.Unit) is { Kind.RatedVoltsParameter: { } rated } device
        && volts.Value > FedShare * device.Given(rated).Number;

    /// <summary>With less than this share of its rated voltage nothing burns as it should.</summary>
    private const double FedShare = 0.7;

    /// <summary>It says that something else is wrong: not in this unit, and not the same circuit under another name.</summary>
    public bool IsRival(Hypothesis hypothesis, string unit, FaultMode fault) =>
        hypothesis.Fault is { } other
        && !other.IsIn(unit)
        && !StandsAlike(hypothesis, fault)
        && !Assessment.IsSameFault(Assessment.PartIn(other.Unit, other), fault);

    private bool StandsAlike(Hypothesis hypothesis, FaultMode fault) =>
        SaysTheSame(hypothesis, fault)
        || fault is { AskWhy: not null, Alterations: [FoundInPosition found] }
            && hypothesis.State.Devices[session.Compiled.Network.DeviceIndex(found.Device)].Position == found.Position;

    /// <summary>It says of this device too that it tripped for once, for nothing.</summary>
    private static bool SaysTheSame(Hypothesis hypothesis, FaultMode fault) =>
        fault is { AskWhy: not null, Alterations: [FoundInPosition found] } && hypothesis.SaysItTrippedForOnce(found.Device);

    /// <summary>
    /// A voltage that a rival says nothing holds there: over the capacitance of a cable a meter of high impedance may show as much across a
    /// sound contact whose wire is off. Such a voltage points, it does not prove.
    /// </summary>
    private bool MayBeGhost(Observation observation, Reading reading, string unit) =>
        reading.Quantity == Quantity.Volts
        && reading.Value.Kind is ReadingKind.Number or ReadingKind.Full
        && session
            .Hypotheses.Select((h, i) => (Hypothesis: h, Share: posterior[i]))
            .Any(x =>
                x.Share > RivalShare
                && x.Hypothesis.Fault?.IsIn(unit) == false
                && x.Hypothesis.Fault.Parts.IsEmpty
                && observation.FitOf(x.Hypothesis) is not null
                && observation.By(x.Hypothesis).Reading is { Kind: PredictionKind.Stray }
            );
}
