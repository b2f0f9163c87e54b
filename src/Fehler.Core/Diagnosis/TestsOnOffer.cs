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
    private readonly Circuit _circuit = session.Circuit;
    private readonly Prudence _prudence = new(session.Circuit, job, weighed);
    private readonly SetupsOnOffer _setups = new(session, job, weighed);

    /// <summary>
    /// Where a wiring that differs from the drawing shows itself, of those that are likely: between terminals that no drawing joins, so that they
    /// are not among the points of the circuit.
    /// </summary>
    private readonly ImmutableArray<(TerminalId From, TerminalId To)> _ownOfUnusual =
    [
        .. weighed
            .Live.Where((h, i) => h.Fault?.IsWiring == true && weighed.Weights[i] > SetupsOnOffer.LeastSuspicion)
            .Select(h => h.Fault!.ProofPoints)
            .OfType<(TerminalId From, TerminalId To)>()
            .Where(p => !session.Points.Ohms.Contains(p) && !session.Points.Ohms.Contains((p.To, p.From)))
            .Where(p => !new[] { p.From, p.To }.Any(session.Compiled.Isolation.LiveTerminals.Contains))
            .Distinct(),
    ];

    /// <summary>Who measured volts last with a two-pole tester does so again.</summary>
    private readonly bool _isLowImpedance = job.Valid.OfType<Reading>().LastOrDefault(r => r.Quantity.IsVolts()) is { LowImpedance: true };

    /// <summary>What a two-pole tester may still show where nothing holds a point, V.</summary>
    private const double SettledVolts = 4;

    private OperationsOnOffer Operations => new(session, job, weighed, _setups, _prudence, cost);

    /// <summary>See <see cref="OperationsOnOffer.SwitchingOff"/>; null where no motor hums.</summary>
    public Candidate? SwitchingOff() => humming.Length == 0 ? null : Operations.SwitchingOff(humming);

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

        foreach (var setup in _setups.States(live: false))
        {
            yield return Reading(Quantity.Ohms, setup, [.. session.Points.Ohms, .. _ownOfUnusual]);
            if (setup.Held.IsEmpty)
            {
                yield return Reading(Quantity.Insulation, setup, session.Points.Insulation);
            }
        }

        foreach (var setup in _setups.Lifted())
        {
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
    /// Tests on the machine as it stands or runs: nobody makes one beside a motor that stands and hums, see <see cref="OperationsOnOffer.SwitchingOff"/>.
    /// </summary>
    private IEnumerable<(double LeastMinutes, Func<IEnumerable<Candidate>> Tests)> WhileItStands(OfReadings reading)
    {
        yield return (0, Looks);
        yield return (0, Operations.AsItStands);
        yield return (cost.OfOperation(job.IsIsolated), Operations.Tries);
        foreach (var setup in _setups.States(live: true).Where(s => _prudence.Allows(s.Held)))
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

        var own = weighed
            .Live.Where((_, i) => weighed.Weights[i] > SetupsOnOffer.LeastSuspicion)
            .Select(h => h.Fault?.ProofPoints)
            .ToHashSet();
        return [.. telling, .. pairs.Where(p => own.Contains(p) && !telling.Contains(p))];
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
}
