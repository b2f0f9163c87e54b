using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Language;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Desk;

/// <summary>What the evidence of a job amounts to, and what to do next.</summary>
/// <param name="Standing">How the devices stand by what was seen, and which wires are live with it.</param>
public sealed record DiagnosisView(
    int Sequence,
    int Observations,
    DiagnosisStatus Status,
    string Summary,
    double EntropyBits,
    ImmutableArray<UnitView> Units,
    ImmutableArray<ProposalView> Proposals,
    ImmutableArray<string> WaysOut,
    string Remedy,
    string AskWhy,
    OperationView Standing,
    ImmutableArray<string> Consequences,
    int RepairsHere,
    int RepairsInPlant,
    RepairGuideView? Guide,
    ImmutableArray<TripCauseView> Causes
)
{
    /// <summary>What of it may be seen: in an exercise without advice only how everything stands.</summary>
    public DiagnosisView For(ShownJob job) =>
        job.ShowsAdvice
            ? this
            : this with
            {
                Status = DiagnosisStatus.NoEvidence,
                Summary = "An exercise without advice: the suspects are yours to think of.",
                EntropyBits = 0,
                Units = [],
                Proposals = [],
                WaysOut = [],
                Remedy = "",
                AskWhy = "",
                Consequences = [],
                Guide = null,
                Causes = [],
            };
}

public sealed record UnitView(
    string Unit,
    string Term,
    string Title,
    string Place,
    double Probability,
    ImmutableArray<string> Alike,
    ImmutableArray<SuspectView> Suspects
);

/// <param name="ComesAndGoes">Of the probability the share of a fault that is there at one observation and away at another.</param>
/// <param name="Points">The two points between which a reading shows it directly; none for what is seen or operated.</param>
public sealed record SuspectView(
    string Fault,
    string Title,
    string Remedy,
    double Probability,
    double ComesAndGoes,
    ImmutableArray<TerminalId> Points,
    ImmutableArray<ReasonView> Reasons
);

/// <summary>Evidence for (weight above 0) or against (below 0) a suspect.</summary>
public sealed record ReasonView(Guid Entry, string Text, double Weight);

/// <summary>A test that could be made now.</summary>
/// <param name="Kind">reading, look or operation.</param>
/// <param name="Change">none, isolate or energise: what has to happen first.</param>
/// <param name="Lift">Wires to lift after that.</param>
/// <param name="Held">Devices operated while the reading is taken, in order.</param>
/// <param name="First">Safety step that has to come first; null when the test can be made now.</param>
/// <param name="HeldWords">What is held while it is made, in words; empty for nothing.</param>
/// <param name="GoodValue">V or ohm a good circuit shows; null when it shows OL or nothing firm, or for looks and operations.</param>
public sealed record ProposalView(
    ProposalKind Kind,
    Quantity Quantity,
    TerminalId? From,
    TerminalId? To,
    SetupChange Change,
    ImmutableArray<LiftView> Lift,
    ImmutableArray<Step> Held,
    string Device,
    string Look,
    ImmutableArray<string> Answers,
    ImmutableArray<Step> Steps,
    ImmutableArray<string> Watched,
    string Title,
    string Good,
    double? GoodValue,
    ImmutableArray<OutcomeView> Outcomes,
    double Bits,
    double Minutes,
    string Why,
    string Before,
    bool IsProof,
    ImmutableArray<string> Cautions,
    SafetyStep? First,
    string HeldWords
);

/// <summary>A wire to lift off a terminal before a reading.</summary>
/// <param name="Far">Where it goes to, which tells it from another wire of the same number there.</param>
public sealed record LiftView(string Conductor, string Wire, TerminalId End, TerminalId Far);

public sealed record OutcomeView(string Shows, double Probability, ImmutableArray<LeftView> Leaves, bool IsGood);

/// <summary>How a fault is proved, repaired and asked about, in one dialect.</summary>
public sealed record RepairGuideView(
    string ProvedBy,
    ImmutableArray<string> Cautions,
    ImmutableArray<string> Steps,
    ImmutableArray<string> Parts,
    ImmutableArray<string> AfterCheck,
    ImmutableArray<RootCauseView> Causes,
    ImmutableArray<RepairChoiceView> Choices,
    ImmutableArray<string> Record
);

/// <summary>One of several ways to repair the same.</summary>
public sealed record RepairChoiceView(string Way, string For);

public sealed record RootCauseView(string What, string Check);

public sealed record TripCauseView(string Unit, string Title, double Probability);

public sealed record LeftView(string Unit, double Probability);

/// <summary>Puts a result into what goes over the wire, in one of the trade's two dialects.</summary>
/// <param name="job">The job as it stands.</param>
/// <param name="dialect">The dialect of who asks.</param>
public sealed class DiagnosisMapping(JobState job, Dialect dialect)
{
    private readonly Circuit _circuit = job.Circuit;

    public DiagnosisView ToView(DiagnosisResult r) =>
        new(
            job.Entries.Length,
            r.Observations,
            r.Status,
            r.Summary.In(dialect),
            Math.Round(r.Entropy, 3),
            [
                .. r.Units.Select(u => new UnitView(
                    u.Unit,
                    u.Name.In(dialect),
                    u.Title.In(dialect),
                    u.Place,
                    Rounded(u.Probability),
                    u.Alike,
                    [.. u.Suspects.Select(ToView)]
                )),
            ],
            [.. r.Proposals.Select(ToView)],
            Say(r.WaysOut),
            r.Remedy.In(dialect),
            r.AskWhy.In(dialect),
            OperationMapping.Standing(_circuit, r),
            r.Consequences,
            r.History.RepairsHere,
            r.History.RepairsInPlant,
            r.Lead is null ? null : ToView(job.Compiled.RepairGuides.Of(r.Lead)),
            [.. r.Causes.Select(c => new TripCauseView(c.Unit, c.Title.In(dialect), Rounded(c.Probability)))]
        );

    private RepairGuideView ToView(RepairGuide g) =>
        new(
            g.ProvedBy.In(dialect),
            Say(g.Cautions),
            Say(g.Steps),
            Say(g.Parts),
            Say(g.AfterCheck),
            [.. g.Causes.Select(c => new RootCauseView(c.What.In(dialect), c.Check.In(dialect)))],
            [.. g.Choices.Select(c => new RepairChoiceView(c.Way.In(dialect), c.For.In(dialect)))],
            Say(g.Record)
        );

    private SuspectView ToView(Suspect s) =>
        new(
            s.Fault?.Id ?? "",
            s.Title.In(dialect),
            s.Fault?.Remedy.In(dialect) ?? "",
            Rounded(s.Probability),
            Rounded(s.ComesAndGoes),
            s.Fault?.ProofPoints is { } points ? [points.From, points.To] : [],
            [.. s.Reasons.Select(x => new ReasonView(x.Entry, x.Text, Math.Round(x.Weight, 2)))]
        );

    private ProposalView ToView(Proposal p) =>
        new(
            p.Kind,
            p.Quantity,
            p.Kind == ProposalKind.Reading ? p.From : null,
            p.Kind == ProposalKind.Reading ? p.To : null,
            p.Setup.Change,
            [.. p.Setup.Lifts(_circuit).Select(l => new LiftView(l.Conductor.Id, l.Conductor.Wire, l.End, l.Conductor.FarFrom(l.End)))],
            p.Setup.Held,
            p.Device,
            p.Look,
            Answers(p),
            p.Steps,
            p.Watched,
            p.Title,
            p.Good,
            p.GoodValue,
            [
                .. p.Outcomes.Select(o => new OutcomeView(
                    o.Shows,
                    Rounded(o.Probability),
                    [.. o.Leaves.Select(l => new LeftView(l.Unit, Rounded(l.Probability)))],
                    o.IsGood
                )),
            ],
            Math.Round(p.Bits, 3),
            Math.Round(p.Minutes, 2),
            p.Why,
            p.Before,
            p.IsProof,
            p.Cautions,
            WhatComesFirst.Before(job, p),
            string.Join(", then ", p.Setup.Held.Select(h => Trial.Held(_circuit, h)))
        );

    private ImmutableArray<string> Say(ImmutableArray<Wording> texts) => [.. texts.Select(t => t.In(dialect))];

    private ImmutableArray<string> Answers(Proposal p) =>
        p.Kind != ProposalKind.Look
            ? []
            : [.. _circuit.Device(p.Device).Kind.Looks(_circuit.Device(p.Device)).First(l => l.Id == p.Look).Answers];

    private static double Rounded(double probability) => Math.Round(probability, 4);
}

/// <summary>A question about a reading.</summary>
/// <param name="Question">What to ask before it is recorded; nothing when some suspect explains it.</param>
public sealed record ReadingDoubt(string? Question);
