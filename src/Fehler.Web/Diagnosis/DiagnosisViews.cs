using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Web.Diagnosis;

/// <summary>What the evidence of a job amounts to, and what to do next.</summary>
public sealed record DiagnosisView(
    int Sequence, DiagnosisStatus Status, string Summary, double EntropyBits, ImmutableArray<UnitView> Units, ImmutableArray<ProposalView> Proposals,
    ImmutableArray<string> WaysOut, string Remedy, string AskWhy, ImmutableSortedDictionary<string, double?> WireVolts,
    ImmutableArray<string> Consequences, int RepairsHere, int RepairsInPlant);

public sealed record UnitView(string Unit, string Term, string Place, double Probability, ImmutableArray<string> Alike, ImmutableArray<SuspectView> Suspects);

/// <param name="Points">The two points between which a reading shows it directly; none for what is seen or operated.</param>
public sealed record SuspectView(string Fault, string Title, string Remedy, double Probability, ImmutableArray<TerminalId> Points, ImmutableArray<ReasonView> Reasons);

/// <summary>Evidence for (weight above 0) or against (below 0) a suspect.</summary>
public sealed record ReasonView(Guid Entry, string Text, double Weight);

/// <summary>A test that could be made now.</summary>
/// <param name="Kind">reading, look or operation.</param>
/// <param name="Change">none, isolate or energise: what has to happen first.</param>
/// <param name="Lift">Wires to lift after that.</param>
/// <param name="Held">Devices operated while the reading is taken, in order.</param>
/// <param name="GoodValue">V or ohm a good circuit shows; null when it shows OL or nothing firm, or for looks and operations.</param>
public sealed record ProposalView(
    ProposalKind Kind, Quantity Quantity, TerminalId? From, TerminalId? To, SetupChange Change, ImmutableArray<LiftView> Lift, ImmutableArray<Step> Held, string Device, string Look,
    ImmutableArray<string> Answers, ImmutableArray<Step> Steps, string Title, string Good, double? GoodValue, ImmutableArray<OutcomeView> Outcomes,
    double Bits, double Minutes, string Why, bool IsProof, ImmutableArray<string> Cautions);

/// <summary>A wire to lift off a terminal before a reading.</summary>
public sealed record LiftView(string Conductor, string Wire, TerminalId End);

public sealed record OutcomeView(string Shows, double Probability, ImmutableArray<LeftView> Leaves);

public sealed record LeftView(string Unit, double Probability);

internal static class DiagnosisMapping
{
    public static DiagnosisView ToView(this DiagnosisResult r, Circuit circuit, int sequence) => new(
        sequence, r.Status, r.Summary, Math.Round(r.Entropy, 3),
        [.. r.Units.Select(u => new UnitView(u.Unit, u.Term, u.Place, Rounded(u.Probability), u.Alike, [.. u.Suspects.Select(ToView)]))],
        [.. r.Proposals.Select(p => ToView(circuit, p))], r.WaysOut, r.Remedy, r.AskWhy, r.WireVolts, r.Consequences, r.History.RepairsHere, r.History.RepairsInPlant);

    private static SuspectView ToView(Suspect s) => new(
        s.Fault?.Id ?? "", s.Title, s.Fault?.Remedy ?? "", Rounded(s.Probability), s.Fault?.ProofPoints is { } points ? [points.From, points.To] : [], [.. s.Reasons.Select(x => new ReasonView(x.Entry, x.Text, Math.Round(x.Weight, 2)))]);

    private static ProposalView ToView(Circuit circuit, Proposal p) => new(
        p.Kind, p.Quantity, p.Kind == ProposalKind.Reading ? p.From : null, p.Kind == ProposalKind.Reading ? p.To : null, p.Setup.Change, [.. p.Setup.Lifts(circuit).Select(l => new LiftView(l.Conductor.Id, l.Conductor.Wire, l.End))], p.Setup.Held,
        p.Device, p.Look, Answers(circuit, p), p.Steps, p.Title, p.Good, p.GoodValue,
        [.. p.Outcomes.Select(o => new OutcomeView(o.Shows, Rounded(o.Probability), [.. o.Leaves.Select(l => new LeftView(l.Unit, Rounded(l.Probability)))]))],
        Math.Round(p.Bits, 3), Math.Round(p.Minutes, 2), p.Why, p.IsProof, p.Cautions);

    private static ImmutableArray<string> Answers(Circuit circuit, Proposal p) => p.Kind != ProposalKind.Look ? []
        : [.. circuit.Device(p.Device).Kind.Looks(circuit.Device(p.Device)).First(l => l.Id == p.Look).Answers];

    private static double Rounded(double probability) => Math.Round(probability, 4);
}
