using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Chooses the next test: for every pair of points, quantity and state that can be set up, what each live hypothesis
/// foretells, how far the answers would tell the units apart, and what it costs.
/// </summary>
internal sealed class TestChoice
{
    /// <summary>Below this a test tells nothing worth the way to the panel, bits.</summary>
    public const double LeastBits = 0.03;

    /// <summary>Hypotheses that together hold all but this share are weighed; the rest cannot change the choice.</summary>
    private const double NegligibleShare = 0.005;

    /// <summary>Suspects of the leading unit below this share of it are not worth a proof of their own.</summary>
    private const double LeastProvedShare = 0.04;

    private const int MostHypotheses = 140,
        MostProposals = 8;

    /// <summary>Of a fault of unknown size no more than this many sizes are weighed for the choice.</summary>
    private const int MostVariants = 3;

    /// <summary>
    /// Actuators that are thought of being held or operated in one choice: those that the suspicion points at first. A chain of
    /// twelve stations has two dozen buttons, and most of them tell the same.
    /// </summary>
    private const int MostHeldLive = 3,
        MostHeldDead = 6,
        MostOperated = 4;

    /// <summary>
    /// Wires are lifted off no more devices than this, and only where the wires hold at least this share of what is suspected there.
    /// </summary>
    private const int MostLifted = 2;
    private const double LeastDivided = 0.05;

    private readonly DiagnosisSession _session;
    private readonly JobState _job;
    private readonly Strategy _strategy;
    private readonly Without _without;
    private readonly Circuit _circuit;
    private readonly Hypothesis[] _live;
    private readonly double[] _weights;
    private readonly ImmutableArray<string> _units;
    private readonly OutcomeGrouping _grouping;
    private readonly CostModel _cost;
    private readonly ImmutableArray<Step> _resets;
    private readonly HashSet<(TerminalId From, TerminalId To, Step? Held, Quantity Quantity)> _measured;

    public TestChoice(DiagnosisSession session, JobState job, Strategy strategy, Without without, double[] posterior)
    {
        _session = session;
        _job = job;
        _strategy = strategy;
        _without = without;
        _circuit = session.Circuit;
        var ranked = session.Hypotheses.Select((h, i) => (Hypothesis: h, Weight: posterior[i])).OrderByDescending(x => x.Weight).ToList();
        var kept = new List<(Hypothesis Hypothesis, double Weight)>();
        var left = 1 - posterior[^1];
        var variants = new Dictionary<string, int>();
        foreach (var x in ranked)
        {
            if ((left < NegligibleShare && kept.Count > 1) || kept.Count == MostHypotheses)
            {
                break;
            }

            left -= x.Weight;
            var mode = x.Hypothesis.Fault?.Id ?? "";
            variants[mode] = variants.GetValueOrDefault(mode) + 1;
            if (variants[mode] <= MostVariants)
            {
                kept.Add(x);
            }
        }

        _live = [.. kept.Select(x => x.Hypothesis)];
        var sum = kept.Sum(x => x.Weight);
        _weights = [.. kept.Select(x => x.Weight / sum)];
        _units = [.. _live.Select(h => h.Fault?.Unit ?? "")];
        _grouping = new OutcomeGrouping(_weights, _units);
        _cost = new CostModel(_circuit, job.Valid.OfType<Reading>().LastOrDefault()?.From, strategy);
        _resets = [.. Resets()];
        _measured = job
            .Valid.OfType<Reading>()
            .Select(r => (r.From, r.To, r.Held.Length > 0 ? r.Held[0] : null, Sort(r.Quantity)))
            .ToHashSet();
    }

    /// <param name="top">The leading unit while its own proof has not been made; null otherwise.</param>
    public ImmutableArray<Proposal> Proposals(SuspectUnit? top)
    {
        var isProofDue = top is { Probability: > 0.8 };
        var candidates = Candidates(all: isProofDue || _strategy is Strategy.FromSupply or Strategy.Halving);
        var writer = new ProposalWriter(_circuit, _weights, _units, _grouping, StandingOtherwise());
        var ordered = Distinct(Ordered(candidates.Where(IsWorthProposing))).Take(MostProposals).ToList();
        var proof = isProofDue ? Proof(top!, candidates) : null;
        if (proof is not null && top!.Probability >= 0.95)
        {
            ordered.RemoveAll(c => c == proof);
            ordered.Insert(0, proof);
        }
        else if (proof is not null && !ordered.Contains(proof))
        {
            ordered.Add(proof);
        }

        LookBeforeReset(ordered, candidates);
        return [.. ordered.Take(MostProposals).Select(c => writer.Describe(c, c == proof))];
    }

    /// <summary>Where a good circuit would stand now, for what has a coil and stands otherwise with the leading suspect.</summary>
    private string StandingOtherwise() =>
        string.Join(
            ", ",
            _circuit
                .Devices.Select(
                    (d, i) => (Device: d, Good: _session.Healthy.State.Devices[i].Position, Now: _live[0].State.Devices[i].Position)
                )
                .Where(x => x.Good != x.Now && x.Device.Kind.CoilOf(x.Device) is not null)
                .Select(x => $"{x.Device.Tag} {x.Device.Kind.Positions(x.Device)[x.Good]}")
        );

    /// <summary>It tells something and has not been made.</summary>
    private bool IsWorthProposing(Candidate c) =>
        c.Bits > LeastBits && !_measured.Contains((c.From, c.To, c.Setup.Held.Length > 0 ? c.Setup.Held[0] : null, Sort(c.Quantity)));

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
            _ => candidates.OrderByDescending(c => c.Bits / c.Minutes),
        };

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
            .Where(c => c.Kind != ProposalKind.Reading || c.Quantity.IsLive() || _job.IsIsolated)
            .OrderBy(c =>
                c.Kind == ProposalKind.Look ? -1
                : c.Kind == ProposalKind.Operation ? 10000
                : _session.Points.Position.GetValueOrDefault(c.From, 9999)
            )
            .ThenBy(c => c.Minutes);

    /// <param name="all">Every test; otherwise those are left out that cannot come under the first few, whatever they would tell.</param>
    private List<Candidate> Candidates(bool all)
    {
        var found = new List<Candidate>();
        foreach (var (leastMinutes, tests) in Tests().OrderBy(t => t.LeastMinutes))
        {
            // No test tells more than what is open. The first few are worth more a minute than that: so are they than anything here.
            if (!all && MostProposals <= found.Count(c => IsWorthProposing(c) && c.Bits / c.Minutes >= _grouping.Entropy / leastMinutes))
            {
                break;
            }

            _session.StopWhenCancelled();
            found.AddRange(tests().Where(c => _without == Without.None || CanBeMade(c)));
        }

        return found;
    }

    /// <summary>Kinds of test by the least that one of them costs.</summary>
    private IEnumerable<(double LeastMinutes, Func<IEnumerable<Candidate>> Tests)> Tests()
    {
        (double, Func<IEnumerable<Candidate>>) Reading(
            Quantity quantity,
            Setup setup,
            ImmutableArray<(TerminalId From, TerminalId To)> pairs,
            bool onlyTelling = true
        ) =>
            (
                _cost.LeastOfReading(quantity, setup),
                () => Readings(quantity, setup, onlyTelling ? TellingPairs(quantity, setup, pairs) : pairs)
            );

        yield return (0, Looks);
        yield return (_cost.OfOperation(_job.IsIsolated), Operations);
        foreach (var setup in Setups(live: true))
        {
            yield return Reading(Quantity.Volts, setup, _session.Points.Volts);
            yield return Reading(Quantity.DcVolts, setup, _session.Points.DcVolts);
            yield return Reading(Quantity.Amps, setup, _session.Points.Amps);
            if (setup.Held.Length > 0)
            {
                yield return Reading(Quantity.StartingAmps, setup, _session.Points.Amps);
            }
        }

        foreach (var setup in Setups(live: false))
        {
            yield return Reading(Quantity.Ohms, setup, _session.Points.Ohms);
            if (setup.Held.IsEmpty)
            {
                yield return Reading(Quantity.Insulation, setup, _session.Points.Insulation);
            }
        }

        foreach (var setup in Lifted())
        {
            yield return Reading(Quantity.Ohms, setup, _session.Points.Around([.. setup.Lifts(_circuit)]), onlyTelling: false);
        }

        if (_job.Lifted.Count > 0 && _job.IsIsolated)
        {
            yield return Reading(
                Quantity.Ohms,
                new Setup(SetupChange.None, [], true),
                _session.Points.Around([.. _job.Lifted.Select(l => (_circuit.Conductors.First(c => c.Id == l.Key), l.Value))]),
                onlyTelling: false
            );
        }
    }

    private bool CanBeMade(Candidate c)
    {
        var isLive = c.Kind == ProposalKind.Reading && c.Quantity.IsLive();
        var places =
            c.Kind == ProposalKind.Reading ? [c.From, c.To]
            : c.Device.Length > 0 ? new[] { new TerminalId(c.Device, "") }
            : [];
        return !(_without.HasFlag(Without.Live) && isLive)
            && !(_without.HasFlag(Without.Isolating) && c.Setup.Change == SetupChange.Isolate)
            && !(_without.HasFlag(Without.Operating) && (c.Kind == ProposalKind.Operation || (isLive && c.Setup.Held.Length > 0)))
            && !(_without.HasFlag(Without.Field) && places.Any(p => _circuit.LocationOf(p).Type != LocationType.Enclosure))
            && !(_without.HasFlag(Without.Clamp) && isLive && c.Quantity.IsAmps())
            && !(_without.HasFlag(Without.InsulationTester) && c is { Kind: ProposalKind.Reading, Quantity: Quantity.Insulation })
            && !(_without.HasFlag(Without.Lifting) && c.Setup.LiftedAt.Length > 0);
    }

    /// <summary>
    /// With something held only those points are worth the leads where a good circuit then shows something else: the rest tells no
    /// more than without.
    /// </summary>
    private ImmutableArray<(TerminalId From, TerminalId To)> TellingPairs(
        Quantity quantity,
        Setup setup,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs
    )
    {
        if (setup.Held.IsEmpty || pairs.IsEmpty)
        {
            return pairs;
        }

        return _session.TellingPairs.GetOrAdd(
            (quantity, setup, _session.Healthy.State),
            _ =>
            {
                var idle = _session.Healthy.Predict(quantity, _session.Tables, pairs, setup with { Held = [] });
                var held = _session.Healthy.Predict(quantity, _session.Tables, pairs, setup);
                return [.. pairs.Where((_, i) => Differs(idle[i], held[i]))];
            }
        );
    }

    /// <summary>
    /// Wires lifted off the devices at whose ends the suspicion is divided between device and wires: nothing else tells a winding from the
    /// cable that feeds it.
    /// </summary>
    private IEnumerable<Setup> Lifted()
    {
        if (_job.Lifted.Count > 0)
        {
            return [];
        }

        var change = _job.IsIsolated ? SetupChange.None : SetupChange.Isolate;
        return _circuit
            .Devices.Where(d => !d.Kind.IsStrip && !d.Kind.IsSupply)
            .Select(d => (Device: d.Tag, Own: _live.Select((h, i) => _units[i] == d.Tag ? _weights[i] : 0).Sum(), Near: Suspicion(d.Tag)))
            .Where(d => d.Near > LeastDivided && d.Near - d.Own > LeastDivided * d.Near)
            .OrderByDescending(d => d.Near)
            .Take(MostLifted)
            .Select(d => new Setup(change, [], true) { LiftedAt = d.Device });
    }

    /// <summary>States that can be set up: nothing held, or one actuator held.</summary>
    private IEnumerable<Setup> Setups(bool live)
    {
        var change =
            live == !_job.IsIsolated ? SetupChange.None
            : live ? SetupChange.Energise
            : SetupChange.Isolate;
        yield return new Setup(change, [], !live);
        // Live, a Start is held; a Stop held live shows nothing that a Start not held does not.
        var actuators = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d)
                .Where(a => a.Returns && (live ? !a.DeadOnly && d.Kind.Elements(d)[0].Role == ElementRole.NormallyOpen : true))
                .Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in MostSuspected(actuators, live ? MostHeldLive : MostHeldDead))
        {
            yield return live ? new Setup(change, [.. _resets, held], false) : new Setup(change, [held], true);
        }
    }

    /// <summary>The steps whose devices, and what is landed on them, the suspicion points at most.</summary>
    private IEnumerable<Step> MostSuspected(IEnumerable<Step> steps, int most) =>
        steps.OrderByDescending(s => Suspicion(s.Device)).Take(most);

    private double Suspicion(string tag)
    {
        var near = _circuit.Conductors.Where(c => c.From.Device == tag || c.To.Device == tag).Select(c => c.Id).Append(tag).ToHashSet();
        return Math.Round(_live.Select((h, i) => near.Contains(_units[i]) ? _weights[i] : 0).Sum(), 6);
    }

    /// <summary>Devices that most hypotheses say stand where they should not (a tripped overload): reset before a try.</summary>
    private IEnumerable<Step> Resets()
    {
        for (var i = 0; i < _circuit.Devices.Length; i++)
        {
            var device = _circuit.Devices[i];
            var rest = device.Kind.InitialPosition(device);
            var name = device.Kind.Positions(device)[rest];
            if (
                !_session.Compiled.Isolation.Points.Contains(device.Tag)
                && device.Kind.Actuations(device).Any(a => a.Resets && a.Position == name)
                && _live.Select((h, k) => h.State.Devices[i].Position != rest ? _weights[k] : 0).Sum() > 0.3
            )
            {
                yield return new Step(device.Tag, name);
            }
        }
    }

    private Candidate[] Readings(Quantity quantity, Setup setup, ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        if (pairs.IsEmpty)
        {
            return [];
        }

        var healthy = _session.Healthy.Predict(quantity, _session.Tables, pairs, setup);
        var predictions = new Prediction[_live.Length][];
        System.Threading.Tasks.Parallel.For(
            0,
            _live.Length,
            h => predictions[h] = _live[h] == _session.Healthy ? healthy : _live[h].Predict(quantity, _session.Tables, pairs, setup)
        );
        var found = new Candidate[pairs.Length];
        System.Threading.Tasks.Parallel.For(
            0,
            pairs.Length,
            i =>
                found[i] = new Candidate(
                    ProposalKind.Reading,
                    setup,
                    _grouping.Gain(predictions, i),
                    _cost.OfReading(quantity, pairs[i].From, pairs[i].To, setup)
                )
                {
                    Quantity = quantity,
                    From = pairs[i].From,
                    To = pairs[i].To,
                    Table = predictions,
                    Column = i,
                    Good = healthy[i],
                }
        );
        return found;
    }

    private IEnumerable<Candidate> Looks()
    {
        var looked = _job.Valid.OfType<LookSeen>().Select(l => (l.Device, l.Look)).ToHashSet();
        var isLive = !_job.IsIsolated;
        foreach (var device in _circuit.Devices.Where(d => !(_job.IsIsolated && _session.Compiled.Isolation.Points.Contains(d.Tag))))
        {
            foreach (var look in device.Kind.Looks(device).Where(l => !looked.Contains((device.Tag, l.Id)) && (isLive || !l.Measured)))
            {
                var change = look.DeadOnly && !_job.IsIsolated ? SetupChange.Isolate : SetupChange.None;
                var seen = _live.Select(h => h.Seen(device.Tag, look.Id)).ToArray();
                yield return new Candidate(
                    ProposalKind.Look,
                    new Setup(change, [], look.DeadOnly || _job.IsIsolated),
                    _grouping.Gain(seen),
                    _cost.OfLook(device, look, change)
                )
                {
                    Device = device.Tag,
                    Look = look.Id,
                    Text = look.Question,
                    ShowsWhatResetWipes = look.WipedByReset,
                    Shown = seen,
                    GoodText = _session.Healthy.Seen(device.Tag, look.Id),
                };
            }
        }
    }

    private IEnumerable<Candidate> Operations()
    {
        if (_job.Lifted.Count > 0)
        {
            yield break;
        }

        var energise = _job.IsIsolated ? _session.Compiled.Isolation.On : [];
        foreach (var steps in Trials().Where(s => !IsDone(s)))
        {
            List<Step> all = [.. energise, .. steps];
            var seen = new string[_live.Length];
            System.Threading.Tasks.Parallel.For(0, _live.Length, h => seen[h] = _live[h].Foresee(all));
            yield return new Candidate(
                ProposalKind.Operation,
                new Setup(_job.IsIsolated ? SetupChange.Energise : SetupChange.None, [], false),
                _grouping.Gain(seen),
                _cost.OfOperation(_job.IsIsolated) + steps.Sum(s => s.Seconds) / 60
            )
            {
                Steps = steps,
                Text = steps.All(s => s.Device.Length == 0) ? $"Touch nothing, {Words.Of(steps)} and look" : $"Operate: {Words.Of(steps)}",
                Shown = seen,
                GoodText = _session.Healthy.Foresee(all),
            };
        }
    }

    /// <summary>The same has been tried since anything was last changed: it shows the same again, whatever was looked at.</summary>
    private bool IsDone(ImmutableArray<Step> steps)
    {
        var since = _job.Valid.Reverse().TakeWhile(e => e is not (Repair or Tightened or WireLanded or Energised)).Reverse();
        var done = since.OfType<OperationSeen>().SelectMany(o => o.Steps).ToList();
        return Enumerable
            .Range(0, Math.Max(0, done.Count - steps.Length + 1))
            .Any(i => steps.SequenceEqual(done.Skip(i).Take(steps.Length)));
    }

    /// <summary>
    /// Waiting, while something is under way; starts with what has to be done before them, once shortly and once for a while; and Stops.
    /// </summary>
    private IEnumerable<ImmutableArray<Step>> Trials()
    {
        if (!_job.IsIsolated && !_session.Healthy.IsAtRest)
        {
            yield return [Step.Wait(30)];
        }

        var starts = _session.Compiled.RunUp.Starts.ToLookup(s => s.Act.Device);
        var buttons = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d).Where(a => a is { Returns: true, DeadOnly: false }).Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in MostSuspected(buttons, MostOperated))
        {
            var device = _circuit.Device(held.Device);
            var rest = new Step(device.Tag, device.Kind.Positions(device)[device.Kind.InitialPosition(device)]);
            ImmutableArray<Step> prepare = starts[device.Tag].FirstOrDefault()?.Prepare ?? [];
            if (device.Kind.Elements(device)[0].Role != ElementRole.NormallyOpen)
            {
                yield return [held, rest];
                continue;
            }

            yield return [.. _resets, .. prepare, held, rest];
            yield return [.. _resets, .. prepare, held, rest, Step.Wait(120)];
        }
    }

    /// <summary>
    /// The cheapest reading or look that shows a suspect of the leading unit directly, or that it is another one of the same
    /// unit: a dead coil and a jammed armature are both the contactor, but not the same repair.
    /// </summary>
    private Candidate? Proof(SuspectUnit top, List<Candidate> candidates) =>
        top
            .Suspects.Where(s => s.Fault is not null && s.Probability > LeastProvedShare * top.Probability)
            .Select(s => Proof(s.Fault!, s.Fault!.Parts.FirstOrDefault(p => p.Unit == top.Unit) ?? s.Fault, candidates))
            .FirstOrDefault(c => c is not null);

    private Candidate? Proof(FaultMode suspect, FaultMode fault, List<Candidate> candidates)
    {
        var index = Array.FindIndex(_live, h => h.Fault?.Id == suspect.Id);
        if (index < 0)
        {
            return null;
        }

        var made = _job.Valid.OfType<Reading>().ToList();
        return candidates
            .Where(c =>
                c.Kind switch
                {
                    ProposalKind.Reading => fault.ProofPoints is { } p
                        && ((c.From, c.To) == p || (c.To, c.From) == p)
                        && c.Foretold(index).Kind != PredictionKind.Stray
                        && Differs(c.Foretold(index), c.Good)
                        && !made.Any(r =>
                            (r.From, r.To) == (c.From, c.To) && r.Held.SequenceEqual(c.Setup.Held) && Sort(r.Quantity) == Sort(c.Quantity)
                        ),
                    ProposalKind.Look => fault.ProofLook == (c.Device, c.Look),
                    _ => false,
                }
            )
            .MinBy(c => c.Minutes);
    }

    /// <summary>Ohms and the beep are one reading.</summary>
    private static Quantity Sort(Quantity quantity) => quantity == Quantity.Continuity ? Quantity.Ohms : quantity;

    private static bool Differs(Prediction a, Prediction b) =>
        a.Kind != b.Kind || (a.Kind == PredictionKind.Value && (a.Range.Low > b.Range.High || b.Range.Low > a.Range.High));
}
