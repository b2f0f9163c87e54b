using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Turns the weights of a session into suspects by unit, a status, reasons and next tests.</summary>
internal sealed class Assessment
{
    /// <summary>A unit is found when it holds this much and its own proof was made.</summary>
    private const double FoundShare = 0.95;

    /// <summary>What a fault has to hold that no single reading shows directly.</summary>
    internal const double CertainShare = 0.99;

    /// <summary>What may still be open beside a suspect that is called proved.</summary>
    internal const double OpenShare = 0.02;

    /// <summary>What a suspect has to hold of its unit before its own proof is that unit's.</summary>
    private const double LeastProvedShare = 0.2;

    /// <summary>From here on the meter is checked before anything else is done.</summary>
    private const double SuspectMeterAbove = 0.4;

    /// <summary>From here on it is worth reading what would have to be done.</summary>
    private const double GuideAbove = 0.8;

    private const int MostReasons = 6;

    private readonly DiagnosisSession _session;
    private readonly JobState _job;
    private readonly Strategy _strategy;
    private readonly Without _without;
    private readonly double[] _posterior;
    private readonly Circuit _circuit;
    private readonly (MeterFault Fault, double Share)? _meter;
    private readonly double[] _typicalFit;
    private readonly ImmutableArray<string> _consequences;

    public Assessment(DiagnosisSession session, JobState job, Strategy strategy, Without without)
    {
        _session = session;
        _job = job;
        _strategy = strategy;
        _without = without;
        _meter = MeterFault.Likeliest(session, SuspectMeterAbove);
        _posterior = session.Posterior();
        if (_posterior[^1] > 0.5 || _meter is not null)
        {
            // Ways out are about the unlikely ones too.
            session.BringAll();
            _posterior = session.Posterior();
        }

        _circuit = session.Circuit;
        _typicalFit = [.. session.Observations.Select(TypicalFit)];
        _consequences = [.. Consequences()];
    }

    /// <summary>See <see cref="WeighedHypotheses.StandingAsMost"/>.</summary>
    public Hypothesis Standing => WeighedHypotheses.StandingAsMost(_session.Hypotheses.Zip(_posterior));

    public DiagnosisResult Result()
    {
        var byUnit = UnitShares();
        var units = byUnit
            .OrderByDescending(u => u.Value)
            .Take(12)
            .Where(u => u.Value > 0.002)
            .Select(u => Unit(u.Key, u.Value))
            .ToImmutableArray();
        var repaired = RepairedShare();
        var top = units.FirstOrDefault(u => u.Unit.Length > 0);
        var none = _posterior[^1];
        var proved =
            top is not null
            && !IsLookedAtFirst(top)
            && top.Suspects.Any(s =>
                s.Fault is not null && s.Probability > LeastProvedShare * top.Probability && new Proofs(_session, _posterior).IsProved(s)
            );
        var why = proved && _job.Repairs.IsEmpty ? TripSearch.Behind(top!.Suspects[0].Fault!, _session, _posterior) : null;
        var proposals = _job.Closing is null
            ? new TestChoice(_session, _job, _strategy, _without, why?.Weights ?? _posterior).Proposals(proved ? null : top)
            : [];
        var status = Status(top, none, repaired, proved && (why is null || proposals.IsEmpty));
        units = [.. units.Select(u => u with { Alike = AlikeUnits(u, units, proposals) })];
        var standing = Standing;
        return new DiagnosisResult
        {
            Status = status,
            Units = units,
            Proposals = proposals,
            Observations = _session.Observations.Count,
            Entropy = Entropy(
                _session
                    .Hypotheses.Select((h, i) => (Unit: h.Fault?.Unit ?? "", Share: _posterior[i]))
                    .GroupBy(x => x.Unit)
                    .Select(g => g.Sum(x => x.Share))
            ),
            Standing = standing.State,
            Seen = standing.SeenNow,
            LiveWires = LiveWires.Of(_session.Compiled, standing.SolvedSound()),
            Consequences = _consequences,
            History = _session.History,
            Causes = why?.Causes ?? [],
            Summary = Summary(status, units, proposals, none, why),
            WaysOut = status == DiagnosisStatus.Contradiction ? WaysOut() : [],
            Remedy = top?.Suspects[0].Fault?.Remedy ?? Wording.None,
            AskWhy = top?.Suspects[0].Fault?.AskWhy ?? Wording.None,
            Lead = top is { Probability: > GuideAbove } ? PartIn(top.Unit, top.Suspects[0].Fault!) : null,
        };
    }

    /// <summary>
    /// Across an emergency stop stands the full voltage whether it was left pressed or its contact is burnt: a glance at it tells which, before
    /// anybody asks who pressed it, or takes it apart.
    /// </summary>
    private bool IsLookedAtFirst(SuspectUnit top) =>
        top.Suspects[0] is { Fault: { AskWhy: not null, ProofLook: { } look, Alterations: [FoundInPosition] } } lead
        && lead.Probability < PlainlyThat * top.Probability
        // What was opened to isolate shows nothing any more.
        && !(_job.IsIsolated && _session.Compiled.Isolation.Points.Contains(look.Device))
        && !_job.Valid.OfType<LookSeen>().Any(l => (l.Device, l.Look) == look);

    /// <summary>Share of its unit from which a suspect is taken for the one.</summary>
    private const double PlainlyThat = 0.8;

    /// <summary>
    /// Protective devices that most of what is still possible says stand tripped or blown, without being at fault themselves.
    /// </summary>
    private IEnumerable<string> Consequences()
    {
        var possible = _session.Hypotheses.Select((h, i) => (Hypothesis: h, Share: _posterior[i])).Where(x => x.Share > 1e-4).ToList();
        foreach (var device in _session.Compiled.Faults.Protective)
        {
            var index = _circuit.Devices.IndexOf(device);
            var rest = device.Kind.InitialPosition(device);
            var names = device.Kind.Positions(device);
            var stands = possible
                .Where(x => x.Hypothesis.IsRepaired || x.Hypothesis.Fault?.IsIn(device.Tag) != true)
                .Select(x => (x.Hypothesis.State.Devices[index].Position, x.Share))
                .Where(x => x.Position != rest)
                .GroupBy(x => names.ElementAtOrDefault(x.Position) ?? "blown")
                .Select(g => (Position: g.Key, Share: g.Sum(x => x.Share)))
                .OrderByDescending(x => x.Share)
                .FirstOrDefault();
            if (stands.Share > 0.5 && !_session.Compiled.Isolation.Points.Contains(device.Tag))
            {
                yield return $"{device.Tag} {stands.Position}";
            }
        }
    }

    internal static double Entropy(IEnumerable<double> shares) => -shares.Where(p => p > 0).Sum(p => p * Math.Log2(p));

    private Dictionary<string, double> UnitShares()
    {
        var shares = new Dictionary<string, double>();
        for (var i = 0; i < _session.Hypotheses.Count; i++)
        {
            // Of two faults at once each unit holds the whole of it: both have to be repaired.
            foreach (var unit in _session.Hypotheses[i].Fault?.Units ?? [""])
            {
                shares[unit] = shares.GetValueOrDefault(unit) + _posterior[i];
            }
        }

        return shares;
    }

    private double RepairedShare() => _session.Hypotheses.Select((h, i) => h.IsRepaired || h.Fault is null ? _posterior[i] : 0).Sum();

    private SuspectUnit Unit(string unit, double share)
    {
        var members = _session
            .Hypotheses.Select((h, i) => (Hypothesis: h, Index: i))
            .Where(x => x.Hypothesis.Fault is null ? unit.Length == 0 : x.Hypothesis.Fault.IsIn(unit))
            .ToList();
        var suspects = members
            .GroupBy(x => x.Hypothesis.Fault?.Id ?? "")
            .Select(g => (Share: g.Sum(x => _posterior[x.Index]), Best: g.MaxBy(x => _posterior[x.Index])))
            .OrderByDescending(s => s.Share)
            .Take(4)
            .Select(s => new Suspect(
                s.Best.Hypothesis.Fault,
                unit,
                s.Best.Hypothesis.Fault?.Title ?? "Nothing is wrong now (it cured itself, or was operated differently)",
                s.Share,
                Reasons(s.Best.Hypothesis)
            )
            {
                ComesAndGoes = s.Best.Hypothesis.Intermittent,
            })
            .ToImmutableArray();
        var device = _circuit.FindDevice(unit);
        var conductor = _circuit.Conductors.FirstOrDefault(c => c.Id == unit);
        var place =
            device is not null ? _circuit.Location(device.Location).Name
            : conductor is not null
                ? string.Join(" – ", new[] { conductor.From, conductor.To }.Select(t => _circuit.LocationOf(t).Name).Distinct())
            : "";
        return new SuspectUnit(unit, device?.Kind.Name ?? (conductor is null ? Wording.None : "conductor"), place, share, suspects, []);
    }

    private double TypicalFit(Observation observation)
    {
        var (sum, count) = (0.0, 0);
        foreach (var hypothesis in _session.Hypotheses)
        {
            if (observation.FitOf(hypothesis) is { } fit)
            {
                sum += fit;
                count++;
            }
        }

        return sum / count;
    }

    /// <summary>Evidence for and against a hypothesis, measured against what all others expected together.</summary>
    private ImmutableArray<Reason> Reasons(Hypothesis hypothesis) =>
        [
            .. _session
                .Observations.Where(o => o.FitOf(hypothesis) is not null)
                .Select(o =>
                {
                    var (fit, foretold, _, _) = o.By(hypothesis);
                    var weight = Math.Log(fit / _typicalFit[o.Place]);
                    var healthy = o.By(_session.Healthy).Foretold;
                    var text =
                        o.Entry is Told ? $"{o.What}: {o.Observed}"
                        : fit > (foretold.Contains("stray", StringComparison.Ordinal) ? 2 * Likelihood.OutlierShare / 10 : 0.2)
                            ? $"{o.What}: {o.Observed}, as it should be with this "
                                + $"fault{(foretold == healthy ? "" : $" (healthy: {healthy})")}"
                        : $"{o.What} should be {foretold} with this fault; you saw {o.Observed}";
                    return new Reason(o.Entry.Id, text, weight);
                })
                .Where(r => Math.Abs(r.Weight) > 0.05)
                .OrderByDescending(r => Math.Abs(r.Weight))
                .Take(MostReasons),
        ];

    private DiagnosisStatus Status(SuspectUnit? top, double none, double repaired, bool proved)
    {
        var mended = _job.Repairs.Length > 0 || _job.Valid.OfType<Tightened>().Any(t => t.WasLoose);
        if (mended && repaired > 0.9)
        {
            return DiagnosisStatus.Repaired;
        }

        if (_session.Observations.Count == 0)
        {
            return DiagnosisStatus.NoEvidence;
        }

        if (none > 0.5 || _meter is not null)
        {
            return DiagnosisStatus.Contradiction;
        }

        return top is null || top.Probability < FoundShare ? DiagnosisStatus.Searching
            : proved ? DiagnosisStatus.Found
            : DiagnosisStatus.AlmostFound;
    }

    /// <summary>
    /// Units that cannot be told from this one: those near the top when no test on offer separates them, and those in which
    /// the same fault would be the same circuit (an earth fault in the winding or in the cable that ends on it).
    /// </summary>
    private ImmutableArray<string> AlikeUnits(SuspectUnit unit, ImmutableArray<SuspectUnit> units, ImmutableArray<Proposal> proposals)
    {
        if (unit.Unit.Length == 0)
        {
            return [];
        }

        var least = unit.Probability > FoundShare ? OpenShare / 2 : 0.05;
        var near = proposals.Any(p => p.Bits > TestChoice.LeastBits)
            ? []
            : units.Where(u => u.Unit != unit.Unit && u.Unit.Length > 0 && u.Probability > least).Select(u => u.Unit);
        var lead = PartIn(unit.Unit, unit.Suspects[0].Fault!);
        var same = _session
            .Hypotheses.Select(h => h.Fault)
            .OfType<FaultMode>()
            .Where(f => f.Parts.IsEmpty && f.Unit != unit.Unit && IsSameFault(f, lead))
            .Select(f => f.Unit);
        return [.. near.Concat(same).Distinct()];
    }

    /// <summary>Of two faults at once the one in this unit.</summary>
    internal static FaultMode PartIn(string unit, FaultMode fault) => fault.Parts.FirstOrDefault(p => p.Unit == unit) ?? fault;

    /// <summary>Whether two faults differ in nothing but size and in what is blamed for them.</summary>
    internal static bool IsSameFault(FaultMode a, FaultMode b) =>
        a.Alterations.Length == b.Alterations.Length && a.Alterations.Zip(b.Alterations).All(x => x.First.Scaled(0) == x.Second.Scaled(0));

    private Wording Summary(
        DiagnosisStatus status,
        ImmutableArray<SuspectUnit> units,
        ImmutableArray<Proposal> proposals,
        double none,
        TripSearch? why
    )
    {
        var top = units.FirstOrDefault(u => u.Unit.Length > 0);
        Wording lead = top is null ? "" : $"{top.Suspects[0].Title}{(top.Suspects[0].ComesAndGoes > 0.5 ? ", which comes and goes" : "")}";
        return status switch
        {
            DiagnosisStatus.NoEvidence => "Nothing recorded yet. Say what was tried and what happened, or look first.",
            DiagnosisStatus.Repaired when _consequences.Length > 0 =>
                $"Still to be put right, as a consequence: {string.Join(", ", _consequences)}. Record that as a repair too, "
                    + "then the function test.",
            DiagnosisStatus.Repaired => "Nothing recorded since the repair speaks against it. The function test proves it.",
            DiagnosisStatus.Contradiction when _meter is { } meter =>
                $"{meter.Fault.Signs}: rather the meter than the circuit ({Words.Share(meter.Share)}). Check it on a known source before going on.",
            DiagnosisStatus.Contradiction =>
                $"No single fault explains what was recorded ({Words.Share(none)} for something else). Repeat the reading that fits "
                    + "least, before going on.",
            DiagnosisStatus.Found => top!.Suspects[0].Fault is { ProofPoints: null, ProofLook: null }
                ? $"{lead}. Nothing else is left."
                : $"{lead}. Proved by its own reading."
                    + $"{(_consequences.Length > 0 ? $" Consequence, to be put right with it: {string.Join(", ", _consequences)}." : "")}",
            DiagnosisStatus.AlmostFound or DiagnosisStatus.Searching when why is not null =>
                $"{lead}: that is a consequence. Why? Likeliest: "
                    + $"{Wording.Join("; ", why.Causes.Take(2).Select(c => (Wording)$"{c.Title} ({Words.Share(c.Probability)})"))}.",
            DiagnosisStatus.AlmostFound => proposals.Any(p => p.IsProof)
                ? $"{lead}: {Words.Share(top!.Probability)}. One test shows it directly."
                : $"{lead}: {Words.Share(top!.Probability)}, not yet proved.",
            _ when top is null => "Nothing points to a fault: as recorded the circuit behaves like a good one.",
            _ when IsAllNormal() =>
                "Everything recorded so far is what a good circuit does. If it seemed wrong all the same, read the cautions of this circuit; "
                    + $"of what would not have shown yet the likeliest is: {lead} ({Words.Share(top.Probability)}).",
            _ when !proposals.Any(p => p.Bits > TestChoice.LeastBits) =>
                $"{lead}: {Words.Share(top.Probability)}. No reading on offer tells it from the next ones.",
            _ => $"{StillPossible(units)}; most likely: {lead}{top.Others} ({Words.Share(top.Probability)}).",
        };
    }

    /// <summary>It was tried, and nothing that was seen or read is otherwise than with a good circuit.</summary>
    private bool IsAllNormal() =>
        _session.Observations.Any(o => o.Entry is OperationSeen { Steps.IsEmpty: false })
        && _session.Observations.Where(o => o.Entry is not Told).All(o => o.FitOf(_session.Healthy) > (o.Entry is Reading ? 0.05 : 0.5));

    private static string StillPossible(IEnumerable<SuspectUnit> units) =>
        units.Count(u => u.Probability > 0.02 && u.Unit.Length > 0) is var count && count == 1
            ? "1 unit is still possible"
            : $"{count} units are still possible";

    private ImmutableArray<Wording> WaysOut()
    {
        var ways = ImmutableArray.CreateBuilder<Wording>();
        var worst = _session.Observations.MinBy(BestWithout);
        if (worst is not null)
        {
            ways.Add($"Repeat: {worst.What} ({worst.Observed}). Without it the rest fits a single fault best.");
        }

        ways.Add(
            _meter is { } meter
                ? $"{meter.Fault.Signs}: {meter.Fault.Check}"
                : "Check the meter on a known source, and its leads against each other."
        );
        var pair = Likeliest(f => !f.Parts.IsEmpty);
        ways.Add(
            pair is null
                ? "Two faults at once are possible: repair what is certain, then go on with what is left."
                : $"Two faults at once are possible, best: {pair.Title}. Repair what is certain, then go on with what is left."
        );
        if (Likeliest(f => f.IsWiring) is { } wired)
        {
            ways.Add($"If the wiring is not as drawn, the likeliest difference: {wired.Title}.");
        }

        ways.Add("Compare the wiring with the drawing, conductor by conductor, where the readings disagree.");
        return ways.ToImmutable();
    }

    private FaultMode? Likeliest(Func<FaultMode, bool> which) =>
        _session
            .Hypotheses.Select((h, i) => (h.Fault, Share: _posterior[i]))
            .Where(x => x.Fault is not null && which(x.Fault))
            .OrderByDescending(x => x.Share)
            .FirstOrDefault()
            .Fault;

    /// <summary>How badly everything still fits when this observation is left out; least for the one that spoils it.</summary>
    private double BestWithout(Observation left) => -_session.Hypotheses.Select(h => h.LogWeightIf([(left.Place, _ => 1)])).Max();
}
