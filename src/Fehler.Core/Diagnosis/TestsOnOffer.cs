using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Every test that can be made now: for every pair of points, quantity and state that can be set up, every look and every operation, what
/// each hypothesis foretells, how far the answers would tell the units apart, and what it costs.
/// </summary>
/// <param name="session">The diagnosis.</param>
/// <param name="job">The job as it stands.</param>
/// <param name="without">What cannot be done now.</param>
/// <param name="weighed">Hypotheses that are weighed.</param>
/// <param name="cost">What each test costs.</param>
/// <param name="humming">Tags of motors that stand and hum; empty when none does.</param>
internal sealed class TestsOnOffer(
    DiagnosisSession session,
    JobState job,
    Without without,
    WeighedHypotheses weighed,
    CostModel cost,
    string humming
)
{
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
    private const int MostLifted = 2,
        MostLiftedWires = 3;

    /// <summary>Share of the suspicion on a button from which its cover comes off to press the block itself.</summary>
    private const double WorthACoverOff = 0.3;

    private const double LeastDivided = 0.05;

    private readonly Circuit _circuit = session.Circuit;
    private readonly ImmutableArray<Step> _resets = [.. Resets(session, weighed)];

    /// <summary>
    /// Where a wiring that differs from the drawing shows itself, of those that are likely: between terminals that no drawing joins, so that they
    /// are not among the points of the circuit.
    /// </summary>
    private readonly ImmutableArray<(TerminalId From, TerminalId To)> _ownOfUnusual =
    [
        .. weighed
            .Live.Where((h, i) => h.Fault?.IsWiring == true && weighed.Weights[i] > LeastDivided)
            .Select(h => h.Fault!.ProofPoints)
            .OfType<(TerminalId From, TerminalId To)>()
            .Where(p => !session.Points.Ohms.Contains(p) && !session.Points.Ohms.Contains((p.To, p.From)))
            .Where(p => !new[] { p.From, p.To }.Any(session.Compiled.Isolation.LiveTerminals.Contains))
            .Distinct(),
    ];

    private readonly Prudence _prudence = new(session.Circuit, job, weighed);

    /// <summary>Who measured volts last with a two-pole tester does so again.</summary>
    private readonly bool _isLowImpedance = job.Valid.OfType<Reading>().LastOrDefault(r => r.Quantity.IsVolts()) is { LowImpedance: true };

    /// <summary>What a two-pole tester may still show where nothing holds a point, V.</summary>
    private const double SettledVolts = 4;

    /// <summary>Tests with what they would tell.</summary>
    /// <param name="first">As many as are wanted: what cannot come under these, whatever it would tell, is left out.</param>
    /// <param name="isWorthProposing">Counts a test among them.</param>
    public List<Candidate> Worth(int first, Func<Candidate, bool> isWorthProposing)
    {
        var found = new List<Candidate>();
        foreach (var (leastMinutes, tests) in Tests().OrderBy(t => t.LeastMinutes))
        {
            // No test tells more than what is open. The first few are worth more a minute than that: so are they than anything here.
            if (first <= found.Count(c => isWorthProposing(c) && c.Bits / c.Minutes >= weighed.Grouping.Entropy / leastMinutes))
            {
                break;
            }

            session.StopWhenCancelled();
            found.AddRange(tests().Where(c => without == Without.None || CanBeMade(c)));
        }

        return found;
    }

    private delegate (double LeastMinutes, Func<IEnumerable<Candidate>> Tests) OfReadings(
        Quantity quantity,
        Setup setup,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs,
        bool onlyTelling = true
    );

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
                cost.LeastOfReading(quantity, setup),
                () => Readings(quantity, setup, onlyTelling ? TellingPairs(quantity, setup, pairs) : pairs)
            );

        foreach (var test in humming.Length > 0 ? [] : WhileItStands(Reading))
        {
            yield return test;
        }

        foreach (var setup in Setups(live: false))
        {
            yield return Reading(Quantity.Ohms, setup, [.. session.Points.Ohms, .. _ownOfUnusual]);
            if (setup.Held.IsEmpty)
            {
                yield return Reading(Quantity.Insulation, setup, session.Points.Insulation);
            }
        }

        foreach (var setup in Lifted())
        {
            yield return Reading(Quantity.Ohms, setup, session.Points.Around([.. setup.Lifts(_circuit)]), onlyTelling: false);
        }

        foreach (var end in job.Lifted.Count > 0 ? [] : new LeakSplits(session.Compiled.Network, weighed).Best().Take(MostLiftedWires))
        {
            var setup = new Setup(WhenDead, [], true) { LiftedEnd = end };
            yield return Reading(Quantity.Ohms, setup, session.Points.Around([.. setup.Lifts(_circuit)]), onlyTelling: false);
        }

        if (job.Lifted.Count > 0 && job.IsIsolated)
        {
            yield return Reading(
                Quantity.Ohms,
                new Setup(SetupChange.None, [], true),
                session.Points.Around([.. job.Lifted.Select(l => (_circuit.Conductors.First(c => c.Id == l.Key), l.Value))]),
                onlyTelling: false
            );
        }
    }

    /// <summary>
    /// Tests on the machine as it stands or runs: nobody makes one beside a motor that stands and hums, see <see cref="SwitchingOff"/>.
    /// </summary>
    private IEnumerable<(double LeastMinutes, Func<IEnumerable<Candidate>> Tests)> WhileItStands(OfReadings reading)
    {
        yield return (0, Looks);
        yield return (0, AsItStands);
        yield return (cost.OfOperation(job.IsIsolated), Operations);
        foreach (var setup in Setups(live: true).Where(s => _prudence.Allows(s.Held)))
        {
            yield return reading(Quantity.Volts, setup, session.Points.Volts);
            yield return reading(Quantity.DcVolts, setup, session.Points.DcVolts);
            yield return reading(Quantity.Amps, setup, session.Points.Amps);
            if (setup.Held.Length > 0)
            {
                yield return reading(Quantity.StartingAmps, setup, session.Points.Amps);
            }
        }
    }

    /// <summary>
    /// What switches a motor off that stands and hums: the button let go that is held, a Stop, what was put where it runs put back. Null where,
    /// as far as is known, none of it would or it has just been tried: then it is isolated.
    /// </summary>
    public Candidate? SwitchingOff()
    {
        if (humming.Length == 0)
        {
            return null;
        }

        ImmutableArray<Step> done = [.. job.Valid.OfType<OperationSeen>().SelectMany(o => o.Steps)];
        IEnumerable<ImmutableArray<Step>> ways =
        [
            .. StepRules.Released(_circuit, done) is { } letGo
                ?
                [
                    [letGo],
                ]
                : Array.Empty<ImmutableArray<Step>>(),
            .. session.Compiled.RunUp.Ends.Where(e => !done.TakeLast(e.Length).SequenceEqual(e)),
        ];
        return ways.FirstOrDefault(w => !weighed.Standing.Stalls(w)) is { IsDefault: false } way
            ? Watching(Setup.AsItIs, [], way, cost.OfOperation(false), $"Switch it off: {Words.Of(way)}") with
            {
                Why = $"{humming} stands and hums, and burns within a minute. What is measured next is measured on a stopped machine.",
            }
            : null;
    }

    private bool CanBeMade(Candidate c)
    {
        var isLive = c.Kind == ProposalKind.Reading && c.Quantity.IsLive();
        var places =
            c.Kind == ProposalKind.Reading ? [c.From, c.To]
            : c.Device.Length > 0 ? new[] { new TerminalId(c.Device, "") }
            : [];
        return !(without.HasFlag(Without.Live) && isLive)
            && !(without.HasFlag(Without.Isolating) && c.Setup.Change == SetupChange.Isolate)
            && !(
                without.HasFlag(Without.Operating)
                && ((c.Kind == ProposalKind.Operation && !c.Steps.IsEmpty) || (isLive && c.Setup.Held.Length > 0))
            )
            && !(without.HasFlag(Without.Field) && places.Any(p => _circuit.LocationOf(p).Type != LocationType.Enclosure))
            && !(without.HasFlag(Without.Clamp) && isLive && c.Quantity.IsAmps())
            && !(without.HasFlag(Without.InsulationTester) && c is { Kind: ProposalKind.Reading, Quantity: Quantity.Insulation })
            && !(without.HasFlag(Without.Lifting) && c.Setup.HasLifts);
    }

    /// <summary>
    /// With something held only those points are worth the leads where a good circuit then shows something else and, live, the suspects' own: a bad
    /// joint shows its volts only while current flows. The rest tells no more than without.
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

        var telling = session.TellingPairs.GetOrAdd(
            (quantity, setup, session.Healthy.State),
            _ =>
            {
                var idle = session.Healthy.Predict(quantity, session.Tables, pairs, setup with { Held = [] });
                var held = session.Healthy.Predict(quantity, session.Tables, pairs, setup);
                return [.. pairs.Where((_, i) => idle[i].DiffersFrom(held[i]))];
            }
        );
        if (setup.Dead)
        {
            return telling;
        }

        var own = weighed.Live.Where((_, i) => weighed.Weights[i] > LeastDivided).Select(h => h.Fault?.ProofPoints).ToHashSet();
        return [.. telling, .. pairs.Where(p => own.Contains(p) && !telling.Contains(p))];
    }

    /// <summary>
    /// Wires lifted off the devices at whose ends the suspicion is divided between device and wires: nothing else tells a winding from the
    /// cable that feeds it.
    /// </summary>
    private IEnumerable<Setup> Lifted()
    {
        if (job.Lifted.Count > 0)
        {
            return [];
        }

        return _circuit
            .Devices.Where(d => !d.Kind.IsStrip && !d.Kind.IsSupply)
            .Select(d =>
                (
                    Device: d.Tag,
                    Own: weighed.Live.Select((h, i) => weighed.Units[i] == d.Tag ? weighed.Weights[i] : 0).Sum(),
                    Near: Suspicion(d.Tag)
                )
            )
            .Where(d => d.Near > LeastDivided && d.Near - d.Own > Assessment.OpenShare * d.Near)
            .OrderByDescending(d => d.Near)
            .Take(MostLifted)
            .Select(d => new Setup(WhenDead, [], true) { LiftedAt = d.Device });
    }

    private SetupChange WhenDead => job.IsIsolated ? SetupChange.None : SetupChange.Isolate;

    /// <summary>
    /// States that can be set up: nothing held, or one actuator held, or put elsewhere than it stands (a selector, a float, a limit).
    /// </summary>
    private IEnumerable<Setup> Setups(bool live)
    {
        var change =
            live == !job.IsIsolated ? SetupChange.None
            : live ? SetupChange.Energise
            : SetupChange.Isolate;
        yield return new Setup(change, [], !live);
        // Live, a Start is held; a Stop held live shows nothing that a Start not held does not.
        var actuators = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d)
                .Where(a => a.Returns || (Trial.IsSetFor(d, a) && a.Position != StandsAt(d)))
                .Where(a => !live || (!a.DeadOnly && d.Kind.Elements(d)[0].Role == ElementRole.NormallyOpen))
                .Where(a => !a.IsPastOperator || Suspicion(d.Tag) > WorthACoverOff)
                .Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in MostSuspected(actuators, live ? MostHeldLive : MostHeldDead))
        {
            yield return live ? new Setup(change, [.. _resets, .. Before(held, change), held], false) : new Setup(change, [held], true);
        }
    }

    /// <summary>Where a device stands, by what is possible.</summary>
    private string StandsAt(Device device) => weighed.Standing.State.PositionOf(_circuit, device);

    /// <summary>
    /// What has to be done before a Start that is held does anything: the control switched on, a selector put to where it counts. It has dropped
    /// out when the circuit was isolated, and where holding the Start alone moves nothing it may not have been done yet.
    /// </summary>
    private ImmutableArray<Step> Before(Step held, SetupChange change) =>
        session.Compiled.RunUp.Starts.FirstOrDefault(s => s.Act.Device == held.Device) is { Prepare: { IsEmpty: false } before }
        && (change == SetupChange.Energise || weighed.Standing.Foresee([held]).Seen == weighed.Standing.Foresee([]).Seen)
            ? before
            : [];

    /// <summary>The steps whose devices, and what is landed on them, the suspicion points at most.</summary>
    private IEnumerable<Step> MostSuspected(IEnumerable<Step> steps, int most) =>
        steps.OrderByDescending(s => Suspicion(s.Device)).Take(most);

    private double Suspicion(string tag)
    {
        var near = _circuit.Conductors.Where(c => c.From.Device == tag || c.To.Device == tag).Select(c => c.Id).Append(tag).ToHashSet();
        return Math.Round(weighed.Live.Select((h, i) => near.Contains(weighed.Units[i]) ? weighed.Weights[i] : 0).Sum(), 6);
    }

    /// <summary>Devices that most hypotheses say stand where they should not (a tripped overload): reset before a try.</summary>
    private static IEnumerable<Step> Resets(DiagnosisSession session, WeighedHypotheses weighed)
    {
        for (var i = 0; i < session.Circuit.Devices.Length; i++)
        {
            var device = session.Circuit.Devices[i];
            var rest = device.Kind.InitialPosition(device);
            var name = device.Kind.Positions(device)[rest];
            if (
                !session.Compiled.Isolation.Points.Contains(device.Tag)
                && StepRules.IsReset(session.Circuit, new Step(device.Tag, name))
                && weighed.Live.Select((h, k) => h.State.Devices[i].Position != rest ? weighed.Weights[k] : 0).Sum() > 0.3
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

        var good = Shown(weighed.Standing.PredictSound(quantity, session.Tables, pairs, setup));
        var predictions = new Prediction[weighed.Live.Length][];
        AtOnce.For(weighed.Live.Length, h => predictions[h] = Shown(weighed.Live[h].Predict(quantity, session.Tables, pairs, setup)));
        var found = new Candidate[pairs.Length];
        var risk = _prudence.Risk(quantity, setup);
        AtOnce.For(
            pairs.Length,
            i =>
                found[i] = new Candidate(
                    ProposalKind.Reading,
                    setup,
                    weighed.Grouping.Gain(predictions, i),
                    cost.OfReading(quantity, pairs[i].From, pairs[i].To, setup) + risk
                )
                {
                    Quantity = quantity,
                    From = pairs[i].From,
                    To = pairs[i].To,
                    Table = predictions,
                    Column = i,
                    Good = good[i],
                }
        );
        return found;
    }

    /// <summary>
    /// What the meter at hand shows: what only leaks in is settled by the load of a two-pole tester, and shows next to nothing.
    /// </summary>
    private Prediction[] Shown(Prediction[] foretold) =>
        _isLowImpedance
            ? [.. foretold.Select(p => p.Kind == PredictionKind.Stray ? new Prediction(PredictionKind.Value, 0, SettledVolts) : p)]
            : foretold;

    private IEnumerable<Candidate> Looks()
    {
        var looked = job.Valid.OfType<LookSeen>().Select(l => (l.Device, l.Look)).ToHashSet();
        var isLive = !job.IsIsolated;
        foreach (var device in _circuit.Devices.Where(d => !(job.IsIsolated && session.Compiled.Isolation.Points.Contains(d.Tag))))
        {
            foreach (var look in device.Kind.Looks(device).Where(l => !looked.Contains((device.Tag, l.Id)) && (isLive || !l.Measured)))
            {
                var change = look.DeadOnly && !job.IsIsolated ? SetupChange.Isolate : SetupChange.None;
                var seen = weighed.Live.Select(h => h.Seen(device.Tag, look.Id)).ToArray();
                yield return new Candidate(
                    ProposalKind.Look,
                    new Setup(change, [], look.DeadOnly || job.IsIsolated),
                    weighed.Grouping.Gain(seen),
                    cost.OfLook(device, look, change)
                )
                {
                    Device = device.Tag,
                    Look = look.Id,
                    Text = look.Question,
                    ShowsWhatResetWipes = look.WipedByReset,
                    Shown = seen,
                    GoodText = session.Healthy.Seen(device.Tag, look.Id),
                };
            }
        }
    }

    /// <summary>
    /// How it stands now. What was held for a reading may have moved something, and nobody has said what: a glance tells what a reading
    /// of each wire would.
    /// </summary>
    private IEnumerable<Candidate> AsItStands()
    {
        var moved = job.Valid.LastOrDefault(e => e is Reading { Held.IsEmpty: false } or OperationSeen or Isolated or Energised or Repair);
        if (moved is not Reading { Alone: false } || job.IsIsolated)
        {
            yield break;
        }

        yield return Watching(
            new Setup(SetupChange.None, [], false),
            [],
            [],
            CostModel.GlanceMinutes,
            "Touch nothing and look how it stands"
        );
    }

    private IEnumerable<Candidate> Operations()
    {
        if (job.Lifted.Count > 0)
        {
            yield break;
        }

        var energise = job.IsIsolated ? session.Compiled.Isolation.On : [];
        var setup = new Setup(job.IsIsolated ? SetupChange.Energise : SetupChange.None, [], false);
        foreach (var steps in Trials().Where(s => !IsDone(s) && _prudence.Allows(s)))
        {
            yield return Watching(
                setup,
                energise,
                steps,
                cost.OfOperation(job.IsIsolated) + steps.Sum(s => s.Seconds) / 60 + _prudence.Risk(setup, steps),
                steps.All(s => s.Device.Length == 0) ? $"Touch nothing, {Words.Of(steps)} and look" : $"Operate: {Words.Of(steps)}"
            );
        }
    }

    /// <summary>Something is done, or nothing, and the devices are watched.</summary>
    private Candidate Watching(Setup setup, ImmutableArray<Step> before, ImmutableArray<Step> steps, double minutes, string text)
    {
        ImmutableArray<Step> all = [.. before, .. steps];
        var foreseen = new Arrival[weighed.Live.Length];
        AtOnce.For(weighed.Live.Length, h => foreseen[h] = weighed.Live[h].Foresee(all));
        string[] seen = [.. foreseen.Select(a => a.Seen)];
        var good = session.Healthy.Foresee(all);
        return new Candidate(ProposalKind.Operation, setup, weighed.Grouping.Gain(seen), minutes)
        {
            Steps = steps,
            Text = text,
            Shown = seen,
            GoodText = good.Seen,
            Foreseen = foreseen,
            GoodArrival = good,
        };
    }

    /// <summary>The same has been tried since anything was last changed: it shows the same again, whatever was looked at.</summary>
    private bool IsDone(ImmutableArray<Step> steps)
    {
        var since = job.Valid.Reverse().TakeWhile(e => e is not (Repair or Tightened or WireLanded or Energised)).Reverse();
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
        if (!job.IsIsolated && !session.Healthy.IsAtRest)
        {
            yield return [Step.Wait(30)];
        }

        foreach (var start in session.Compiled.RunUp.Starts.Where(s => s.LetGo is null))
        {
            // What stays where it is put: put there, left so for a while, and put back.
            var isOn = StandsAt(_circuit.Device(start.Act.Device)) == start.Act.Position;
            ImmutableArray<Step> run = [.. _resets, .. start.Prepare, start.Act];
            IEnumerable<ImmutableArray<Step>> ways = isOn
                ?
                [
                    [start.Back(_circuit)],
                ]
                : [run, [.. run, Step.Wait(120)]];
            foreach (var way in ways)
            {
                yield return way;
            }
        }

        var starts = session.Compiled.RunUp.Starts.ToLookup(s => s.Act.Device);
        var buttons = _circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d).Where(a => a is { Returns: true, DeadOnly: false }).Select(a => new Step(d.Tag, a.Position))
        );
        foreach (var held in MostSuspected(buttons, MostOperated))
        {
            var device = _circuit.Device(held.Device);
            var rest = StepRules.Rested(_circuit, held);
            var start = starts[device.Tag].FirstOrDefault();
            ImmutableArray<Step> prepare = start?.Prepare ?? [];
            if (device.Kind.Elements(device)[0].Role != ElementRole.NormallyOpen)
            {
                yield return [held, rest];
                continue;
            }

            if (start is { Holds: false })
            {
                // What runs only while it is held is looked at while it is held.
                yield return [.. _resets, .. prepare, held];
                continue;
            }

            yield return [.. _resets, .. prepare, held, rest];
            yield return [.. _resets, .. prepare, held, rest, Step.Wait(120)];
        }
    }
}
