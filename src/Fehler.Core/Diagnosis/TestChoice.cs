using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Chooses the next test among <see cref="TestsOnOffer"/>: by how far its answers would tell the units apart for what it costs, or as the
/// chosen way of working has it; and the proof of the leading suspect once there is one.
/// </summary>
internal sealed class TestChoice
{
    /// <summary>Below this a test tells nothing worth the way to the panel, bits.</summary>
    public const double LeastBits = 0.03;

    /// <summary>Suspects of the leading unit below this share of it are not worth a proof of their own.</summary>
    private const double LeastProvedShare = 0.04;

    private const int MostProposals = 8;

    /// <summary>What so much of the probability takes for a mistake is disputed.</summary>
    private const double DisputedAbove = 0.4;

    /// <summary>A proof that costs no more than this many times the best test comes first: it is wanted in the end anyway.</summary>
    private const double SameCost = 1.2;

    private readonly DiagnosisSession _session;
    private readonly JobState _job;
    private readonly Strategy _strategy;
    private readonly Circuit _circuit;
    private readonly WeighedHypotheses _weighed;
    private readonly TestsOnOffer _offer;
    private readonly ReadingsMade _made;
    private readonly Proofs _proofs;
    private readonly Dictionary<TerminalId, double> _atStake;

    /// <summary>Tags of motors that stand and hum; empty when none does.</summary>
    private readonly string _humming;

    public TestChoice(DiagnosisSession session, JobState job, Strategy strategy, Without without, double[] posterior)
    {
        _session = session;
        _job = job;
        _strategy = strategy;
        _circuit = session.Circuit;
        _weighed = WeighedHypotheses.Of(session.Hypotheses, posterior, session.StraySpan);
        _humming = job.IsIsolated ? "" : Humming();
        _offer = new TestsOnOffer(
            session,
            job,
            without,
            _weighed,
            new CostModel(_circuit, job.Valid.OfType<Reading>().LastOrDefault()?.From, strategy),
            _humming
        );
        _made = new ReadingsMade(_circuit, job);
        _proofs = new Proofs(session, posterior);
        _atStake = AtStake(_weighed);
    }

    /// <param name="top">The leading unit while its own proof has not been made; null otherwise.</param>
    public ImmutableArray<Proposal> Proposals(SuspectUnit? top)
    {
        var isProofDue = top is { Probability: > 0.8 };
        var candidates = _offer.Worth(
            isProofDue || _strategy is Strategy.FromSupply or Strategy.Halving ? int.MaxValue : MostProposals,
            IsWorthProposing
        );
        var writer = new ProposalWriter(_circuit, _weighed, SeenLast((k, a) => k.IsWorking(a)), _humming, SeenLast((k, a) => k.IsRough(a)));
        var ordered = Distinct(Ordered(candidates.Where(IsWorthProposing))).Take(MostProposals).ToList();
        var proof = !isProofDue
            ? null
            : Proof(top!, candidates, Excludes) ?? (ordered.Count == 0 ? Proof(top!, candidates, (_, _, _, _) => true) : null);
        var isProofCheap = proof is not null && ordered.Count > 0 && proof.Minutes <= SameCost * ordered[0].Minutes;
        if (proof is not null && (isProofCheap || top!.Probability >= 0.95))
        {
            ordered.RemoveAll(c => c == proof);
            ordered.Insert(0, proof);
        }
        else if (proof is not null && !ordered.Contains(proof))
        {
            ordered.Add(proof);
        }

        LookBeforeReset(ordered, candidates);
        if (_offer.SwitchingOff() is { } off)
        {
            ordered.Insert(0, off);
        }

        return [.. ordered.Take(MostProposals).Select(c => writer.Describe(c, c == proof, Before(c)))];
    }

    private Reading? Before(Candidate c) => c.Kind == ProposalKind.Reading && _made.Of(c) is [var first, ..] ? first : null;

    /// <summary>
    /// What was seen so when something was last tried, and still is: what ran only while a button was held has been let go by who measures.
    /// A machine that runs is not isolated under load.
    /// </summary>
    private string SeenLast(Func<DeviceKind, string, bool> isSo)
    {
        var last = _job.Valid.Reverse().TakeWhile(e => e is not (Isolated or CarriedIn)).OfType<OperationSeen>().FirstOrDefault();
        if (last is null)
        {
            return "";
        }

        var isJustNow = _job.Valid[^1] == last;
        var now = _weighed.Standing.SeenNow;
        bool IsSo(string tag, string seen) => _circuit.FindDevice(tag) is { } device && isSo(device.Kind, seen);
        return string.Join(
            " and ",
            last.Seen.Where(s => IsSo(s.Key, s.Value) && (isJustNow || IsSo(s.Key, now[s.Key]))).Select(s => s.Key)
        );
    }

    /// <summary>
    /// Motors that were seen standing and humming and still do, or of which most of what is possible says so: what a Start was held for went on
    /// when the button was let go.
    /// </summary>
    private string Humming() =>
        SeenLast((k, a) => k.IsStalled(a)) is { Length: > 0 } seen ? seen
        : _weighed.Share(h => h.Stalls([])) > MostlyHums
            ? string.Join(" and ", _weighed.Standing.SeenNow.Where(s => _circuit.Device(s.Key).Kind.IsStalled(s.Value)).Select(s => s.Key))
        : "";

    private const double MostlyHums = 0.5;

    /// <summary>It tells something and has not been made.</summary>
    private bool IsWorthProposing(Candidate c) =>
        c.Bits > LeastBits && !(c.Kind == ProposalKind.Reading && (HasBeenMade(c) || _made.WasUnsureOf(c)));

    /// <summary>
    /// It has been made and would tell nothing new. What was read once and is disputed since is read once more: that is cheaper than to
    /// work around a slipped lead with ten other readings (common practice).
    /// </summary>
    private bool HasBeenMade(Candidate c) => _made.Of(c) is var made && made.Count > 0 && !(made.Count == 1 && IsDisputed(made[0]));

    /// <summary>Much of what is still possible says that this reading was a mistake.</summary>
    private bool IsDisputed(Reading reading) =>
        _session.Observations.FirstOrDefault(o => ReferenceEquals(o.Entry, reading)) is { } observation
        && _weighed.Share(observation.IsMistakeTo) > DisputedAbove;

    /// <summary>
    /// Of readings between the same two wires in the same state that tell the same, the first: a choice is between different tests.
    /// </summary>
    private IEnumerable<Candidate> Distinct(IEnumerable<Candidate> ordered)
    {
        var kept = new List<(string, string, Quantity, Setup, double Bits)>();
        foreach (var c in ordered)
        {
            var (a, b) = (_circuit.WireAt(c.From), _circuit.WireAt(c.To));
            (a, b) = string.CompareOrdinal(a, b) <= 0 ? (a, b) : (b, a);
            if (
                c.Kind != ProposalKind.Reading
                || a.Length == 0
                || b.Length == 0
                || !kept.Exists(k =>
                    (k.Item1, k.Item2, k.Item3) == (a, b, c.Quantity) && k.Item4.Equals(c.Setup) && Math.Abs(k.Bits - c.Bits) < 0.1 * c.Bits
                )
            )
            {
                kept.Add((a, b, c.Quantity, c.Setup, c.Bits));
                yield return c;
            }
        }
    }

    private IOrderedEnumerable<Candidate> Ordered(IEnumerable<Candidate> candidates) =>
        _strategy switch
        {
            Strategy.FromSupply => FromSupply(candidates),
            // Looks cost nothing to speak of, and a reading across tells what two to the return tell: both come where halving has nothing
            // left.
            Strategy.Halving => candidates
                .OrderByDescending(c =>
                    c is { Kind: ProposalKind.Reading, Setup.Dead: false } && c.To == _session.Compiled.ReturnOf(c.From)
                )
                .ThenByDescending(c => c.Bits),
            // Of tests worth the same the one at the suspects' own points is the plainest.
            _ => candidates.OrderByDescending(c => Math.Round(c.Bits / c.Minutes, 3)).ThenByDescending(Plainness),
        };

    /// <summary>How much of the suspicion is proved at the points of a reading.</summary>
    private double Plainness(Candidate candidate) =>
        candidate.Kind != ProposalKind.Reading ? 0 : _atStake.GetValueOrDefault(candidate.From) + _atStake.GetValueOrDefault(candidate.To);

    private static Dictionary<TerminalId, double> AtStake(WeighedHypotheses weighed) =>
        weighed
            .Live.Select((h, i) => (h.Fault?.ProofPoints, Weight: weighed.Weights[i]))
            .Where(x => x.ProofPoints is not null)
            .SelectMany(x => new[] { (At: x.ProofPoints!.Value.From, x.Weight), (At: x.ProofPoints.Value.To, x.Weight) })
            .GroupBy(x => x.At)
            .ToDictionary(g => g.Key, g => g.Sum(x => x.Weight));

    /// <summary>A reset wipes the evidence: what the device shows is looked at first, however little is expected of it.</summary>
    private static void LookBeforeReset(List<Candidate> ordered, List<Candidate> candidates)
    {
        if (
            ordered.Count > 0
            && ordered[0].Steps.Concat(ordered[0].Setup.Held).Select(s => s.Device).ToHashSet() is var operated
            && candidates.FirstOrDefault(c => c.Kind == ProposalKind.Look && c.ShowsWhatResetWipes && operated.Contains(c.Device))
                is { } look
            && look != ordered[0]
        )
        {
            ordered.Remove(look);
            ordered.Insert(0, look);
        }
    }

    private IOrderedEnumerable<Candidate> FromSupply(IEnumerable<Candidate> candidates) =>
        candidates
            // What the live circuit does not tell is asked of the dead one.
            .OrderBy(c => c.Setup.Change == SetupChange.Isolate ? 1 : 0)
            .ThenBy(c =>
                c.Kind == ProposalKind.Look ? -1
                : c.Kind == ProposalKind.Operation ? 10000
                : _session.Points.Position.GetValueOrDefault(c.From, 9999)
            )
            .ThenBy(c => c.Minutes);

    /// <summary>
    /// The cheapest reading or look that shows a suspect of the leading unit directly, or that it is another one of the same
    /// unit: a dead coil and a jammed armature are both the contactor, but not the same repair.
    /// </summary>
    /// <param name="top">The leading unit.</param>
    /// <param name="candidates">The tests on offer.</param>
    /// <param name="isWanted">Whether it will do as a proof of this fault in this unit, which stands at this place of what is weighed.</param>
    private Candidate? Proof(SuspectUnit top, List<Candidate> candidates, Func<Candidate, string, FaultMode, int, bool> isWanted) =>
        top
            .Suspects.Where(s => s.Fault is not null && s.Probability > LeastProvedShare * top.Probability)
            .Select(s =>
            {
                var fault = Assessment.PartIn(top.Unit, s.Fault!);
                var index = Array.FindIndex(_weighed.Live, h => h.Fault?.Id == s.Fault!.Id);
                return index < 0
                    ? null
                    : candidates.Where(c => Shows(c, fault, index) && isWanted(c, top.Unit, fault, index)).MinBy(c => c.Minutes);
            })
            .FirstOrDefault(c => c is not null);

    /// <summary>It is made at the fault's own points, or is its look, and would not come out so of a sound circuit.</summary>
    private bool Shows(Candidate c, FaultMode fault, int index) =>
        c.Kind switch
        {
            ProposalKind.Reading => _proofs.IsAtItsOwn(fault, c.Quantity, c.From, c.To)
                && c.Foretold(index).Kind != PredictionKind.Stray
                && (
                    _proofs.IsFedInVain(fault, c.Foretold(index))
                    || c.Foretold(index)
                        .DiffersFrom(_weighed.Live[index].PredictSound(c.Quantity, _session.Tables, [(c.From, c.To)], c.Setup)[0])
                )
                && _made.Of(c).Count < _proofs.Needed,
            ProposalKind.Look => fault.ProofLook == (c.Device, c.Look),
            _ => false,
        };

    /// <summary>
    /// It would exclude what else is still possible. An earth fault in the cable and one in the panel before it show the same 0.3 ohm, whatever is
    /// held meanwhile: only a wire lifted between them tells.
    /// </summary>
    private bool Excludes(Candidate c, string unit, FaultMode fault, int index) =>
        _weighed
            .Live.Select(
                (h, i) =>
                    _proofs.IsRival(h, unit, fault)
                    && (c.Kind == ProposalKind.Look ? c.Shown![i] == c.Shown[index] : !c.Foretold(i).DiffersFrom(c.Foretold(index)))
                        ? _weighed.Weights[i]
                        : 0
            )
            .Sum() < Assessment.OpenShare;
}
