using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

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
    private const double NegligibleShare = 0.003;

    private const int MostHypotheses = 260, MostProposals = 8;

    private readonly DiagnosisSession _session;
    private readonly JobState _job;
    private readonly Strategy _strategy;
    private readonly Circuit _circuit;
    private readonly Hypothesis[] _live;
    private readonly double[] _weights;
    private readonly int[] _unitOf;
    private readonly string[] _units;
    private readonly CostModel _cost;
    private readonly double _entropy;
    private readonly ImmutableArray<Step> _resets;

    public TestChoice(DiagnosisSession session, JobState job, Strategy strategy, double[] posterior)
    {
        _session = session;
        _job = job;
        _strategy = strategy;
        _circuit = session.Circuit;
        var ranked = session.Hypotheses.Select((h, i) => (Hypothesis: h, Weight: posterior[i])).OrderByDescending(x => x.Weight).ToList();
        var kept = new List<(Hypothesis Hypothesis, double Weight)>();
        var left = 1 - posterior[^1];
        foreach (var x in ranked.Take(MostHypotheses))
        {
            if (left < NegligibleShare && kept.Count > 1)
            {
                break;
            }

            kept.Add(x);
            left -= x.Weight;
        }

        _live = [.. kept.Select(x => x.Hypothesis)];
        var sum = kept.Sum(x => x.Weight);
        _weights = [.. kept.Select(x => x.Weight / sum)];
        _units = [.. _live.Select(UnitName).Distinct()];
        _unitOf = [.. _live.Select(h => Array.IndexOf(_units, UnitName(h)))];
        _cost = new CostModel(_circuit, job.Valid.OfType<Reading>().LastOrDefault()?.From, strategy);
        _entropy = Entropy(Enumerable.Range(0, _live.Length));
        _resets = [.. Resets()];
    }

    public ImmutableArray<Proposal> Proposals(SuspectUnit? top)
    {
        var candidates = Candidates();
        var measured = _job.Valid.OfType<Reading>().Select(r => (r.From, r.To, r.Held.Length > 0 ? r.Held[0] : null, r.Quantity == Quantity.Volts)).ToHashSet();
        var best = candidates.Where(c => c.Bits > LeastBits && !measured.Contains((c.From, c.To, c.Setup.Held.Length > 0 ? c.Setup.Held[0] : null, c.Quantity == Quantity.Volts)));
        var ordered = (_strategy == Strategy.FromSupply ? FromSupply(best) : best.OrderByDescending(c => c.Bits / c.Minutes)).Take(MostProposals).ToList();
        if (top is { Probability: > 0.8 } && Proof(top, candidates) is { } proof)
        {
            if (top.Probability >= 0.95)
            {
                ordered.RemoveAll(c => c == proof);
                ordered.Insert(0, proof);
            }
            else if (!ordered.Contains(proof))
            {
                ordered.Add(proof);
            }

            return [.. ordered.Take(MostProposals).Select(c => Describe(c, c == proof))];
        }

        return [.. ordered.Select(c => Describe(c, false))];
    }

    private IOrderedEnumerable<Candidate> FromSupply(IEnumerable<Candidate> candidates) => candidates
        .Where(c => c.Kind != ProposalKind.Reading || c.Quantity == Quantity.Volts || _job.IsIsolated)
        .OrderBy(c => c.Kind == ProposalKind.Look ? -1 : c.Kind == ProposalKind.Operation ? 10000 : _session.Points.Position.GetValueOrDefault(c.From, 9999))
        .ThenBy(c => c.Minutes);

    private List<Candidate> Candidates()
    {
        var all = new List<Candidate>();
        foreach (var setup in Setups(live: true))
        {
            all.AddRange(Readings(Quantity.Volts, setup, _session.Points.Volts));
        }

        foreach (var setup in Setups(live: false))
        {
            all.AddRange(Readings(Quantity.Ohms, setup, _session.Points.Ohms));
        }

        all.AddRange(Looks());
        all.AddRange(Operations());
        return all;
    }

    /// <summary>States that can be set up: nothing held, or one actuator held.</summary>
    private IEnumerable<Setup> Setups(bool live)
    {
        var change = live == !_job.IsIsolated ? SetupChange.None : live ? SetupChange.Energise : SetupChange.Isolate;
        yield return new Setup(change, [], !live);
        foreach (var device in _circuit.Devices)
        {
            foreach (var actuation in device.Kind.Actuations(device).Where(a => a.Returns && (!a.DeadOnly || !live)))
            {
                var held = new Step(device.Tag, actuation.Position);

                // Live, a Start is held; a Stop held live shows nothing that a Start not held does not.
                if (!live)
                {
                    yield return new Setup(change, [held], true);
                }
                else if (device.Kind.Elements(device)[0].Role == ElementRole.NormallyOpen)
                {
                    yield return new Setup(change, [.. _resets, held], false);
                }
            }
        }
    }

    /// <summary>Devices that most hypotheses say stand where they should not (a tripped overload): reset before a try.</summary>
    private IEnumerable<Step> Resets()
    {
        for (var i = 0; i < _circuit.Devices.Length; i++)
        {
            var device = _circuit.Devices[i];
            var rest = device.Kind.InitialPosition(device);
            var name = device.Kind.Positions(device)[rest];
            if (!Isolation.Of(_circuit).Points.Contains(device.Tag) && device.Kind.Actuations(device).Any(a => a.Resets && a.Position == name)
                && _live.Select((h, k) => h.State.Devices[i].Position != rest ? _weights[k] : 0).Sum() > 0.3)
            {
                yield return new Step(device.Tag, name);
            }
        }
    }

    private Candidate[] Readings(Quantity quantity, Setup setup, ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        var healthy = _session.Healthy.Predict(quantity, _session.Tables, pairs, setup);
        var predictions = new Prediction[_live.Length][];
        System.Threading.Tasks.Parallel.For(0, _live.Length, h =>
            predictions[h] = _live[h] == _session.Healthy ? healthy : _live[h].Predict(quantity, _session.Tables, pairs, setup));
        var found = new Candidate[pairs.Length];
        System.Threading.Tasks.Parallel.For(0, pairs.Length, i =>
        {
            var foretold = new Prediction[_live.Length];
            for (var h = 0; h < _live.Length; h++)
            {
                foretold[h] = predictions[h][i];
            }

            var groups = Group(foretold);
            found[i] = new Candidate(ProposalKind.Reading, setup, Gain(groups), _cost.OfReading(quantity, pairs[i].From, pairs[i].To, setup))
            {
                Quantity = quantity,
                From = pairs[i].From,
                To = pairs[i].To,
                Groups = groups,
                Foretold = foretold,
                Good = healthy[i],
            };
        });
        return found;
    }

    private IEnumerable<Candidate> Looks()
    {
        var looked = _job.Valid.OfType<LookSeen>().Select(l => (l.Device, l.Look)).ToHashSet();
        foreach (var device in _circuit.Devices.Where(d => !(_job.IsIsolated && Isolation.Of(_circuit).Points.Contains(d.Tag))))
        {
            foreach (var look in device.Kind.Looks(device).Where(l => !looked.Contains((device.Tag, l.Id))))
            {
                var change = look.DeadOnly && !_job.IsIsolated ? SetupChange.Isolate : SetupChange.None;
                var seen = _live.Select(h => h.Seen(device.Tag, look.Id)).ToArray();
                var groups = GroupWords(seen);
                yield return new Candidate(ProposalKind.Look, new Setup(change, [], look.DeadOnly || _job.IsIsolated), Gain(groups), _cost.OfLook(device, look, change))
                {
                    Device = device.Tag,
                    Look = look.Id,
                    Text = look.Question,
                    Groups = groups,
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

        foreach (var device in _circuit.Devices)
        {
            foreach (var actuation in device.Kind.Actuations(device).Where(a => a is { Returns: true, DeadOnly: false }))
            {
                var held = new Step(device.Tag, actuation.Position);
                var rest = new Step(device.Tag, device.Kind.Positions(device)[device.Kind.InitialPosition(device)]);
                ImmutableArray<Step>[] trials = device.Kind.Elements(device)[0].Role == ElementRole.NormallyOpen
                    ? [[.. _resets, held, rest], [.. _resets, held, rest, Step.Wait(120)]] : [[held, rest]];
                foreach (var steps in trials)
                {
                    var energise = _job.IsIsolated ? Isolation.Of(_circuit).On : [];
                    var all = energise.Concat(steps).ToList();
                    var seen = new string[_live.Length];
                    System.Threading.Tasks.Parallel.For(0, _live.Length, h => seen[h] = Words.Of(_live[h].Foresee(all)));
                    var groups = GroupWords(seen);
                    yield return new Candidate(ProposalKind.Operation, new Setup(_job.IsIsolated ? SetupChange.Energise : SetupChange.None, [], false), Gain(groups), _cost.OfOperation(_job.IsIsolated) + steps.Sum(s => s.Seconds) / 60)
                    {
                        Steps = steps,
                        Text = $"Operate: {Words.Of(steps)}",
                        Groups = groups,
                        Shown = seen,
                        GoodText = Words.Of(_session.Healthy.Foresee(all)),
                    };
                }
            }
        }
    }

    /// <summary>Groups of hypotheses whose predictions no meter would tell apart. Stray goes with nothing: both may read near zero.</summary>
    private static List<List<int>> Group(Prediction[] foretold)
    {
        var overLimit = new List<int>();
        var ranges = new List<(double Low, double High, int Index)>();
        for (var h = 0; h < foretold.Length; h++)
        {
            if (foretold[h].Kind == PredictionKind.OverLimit)
            {
                overLimit.Add(h);
            }
            else
            {
                var (low, high) = foretold[h].Kind == PredictionKind.Stray ? (0, 1) : foretold[h].Range;
                ranges.Add((low, high, h));
            }
        }

        ranges.Sort((a, b) => a.Low.CompareTo(b.Low));
        var groups = new List<List<int>>();
        var edge = double.NegativeInfinity;
        foreach (var (low, high, index) in ranges)
        {
            if (groups.Count == 0 || low > edge)
            {
                groups.Add([]);
            }

            groups[^1].Add(index);
            edge = Math.Max(edge, high);
        }

        if (overLimit.Count > 0)
        {
            groups.Add(overLimit);
        }

        return groups;
    }

    private static List<List<int>> GroupWords(string[] seen) =>
        [.. seen.Select((s, i) => (s, i)).GroupBy(x => x.s).Select(g => g.Select(x => x.i).ToList())];

    /// <summary>Expected fall of the uncertainty about the unit, bits. One answer in thirty is wrong, which takes its share.</summary>
    private double Gain(List<List<int>> groups)
    {
        if (groups.Count < 2)
        {
            return 0;
        }

        var left = 0.0;
        foreach (var group in groups)
        {
            var weight = group.Sum(h => _weights[h]);
            if (weight > 0)
            {
                left += weight * Entropy(group);
            }
        }

        return (1 - Likelihood.OutlierShare) * Math.Max(0, _entropy - left);
    }

    /// <summary>Entropy over units within a set of hypotheses, bits.</summary>
    private double Entropy(IEnumerable<int> hypotheses)
    {
        Span<double> units = _units.Length <= 512 ? stackalloc double[_units.Length] : new double[_units.Length];
        units.Clear();
        var total = 0.0;
        foreach (var h in hypotheses)
        {
            units[_unitOf[h]] += _weights[h];
            total += _weights[h];
        }

        var entropy = 0.0;
        foreach (var weight in units)
        {
            if (weight > 0)
            {
                entropy -= weight / total * Math.Log2(weight / total);
            }
        }

        return entropy;
    }

    /// <summary>The cheapest reading or look that shows the leading suspect directly.</summary>
    private Candidate? Proof(SuspectUnit top, List<Candidate> candidates)
    {
        if (top.Suspects[0].Fault is not { } fault)
        {
            return null;
        }

        var index = Array.FindIndex(_live, h => h.Fault?.Id == fault.Id);
        if (index < 0)
        {
            return null;
        }

        var made = _job.Valid.OfType<Reading>().ToList();
        return candidates.Where(c => c.Kind switch
        {
            ProposalKind.Reading => fault.ProofPoints is { } p && ((c.From, c.To) == p || (c.To, c.From) == p) && Differs(c.Foretold![index], c.Good)
                && !made.Any(r => (r.From, r.To) == (c.From, c.To) && r.Held.SequenceEqual(c.Setup.Held) && (r.Quantity == Quantity.Volts) == (c.Quantity == Quantity.Volts)),
            ProposalKind.Look => fault.ProofLook == (c.Device, c.Look),
            _ => false,
        }).MinBy(c => c.Minutes);
    }

    private static bool Differs(Prediction a, Prediction b) => a.Kind != b.Kind
        || (a.Kind == PredictionKind.Value && (a.Range.Low > b.Range.High || b.Range.Low > a.Range.High));

    private Proposal Describe(Candidate c, bool proof)
    {
        var outcomes = c.Groups.Select(g => Outcome(c, g)).OrderByDescending(o => o.Probability).Take(5).ToImmutableArray();
        var state = Words.Setup(_circuit, c.Setup);
        return new Proposal
        {
            Kind = c.Kind,
            Quantity = c.Quantity,
            From = c.From,
            To = c.To,
            Setup = c.Setup,
            Device = c.Device,
            Look = c.Look,
            Steps = c.Steps,
            Title = c.Kind == ProposalKind.Reading
                ? $"{(c.Quantity == Quantity.Volts ? "Volts" : "Ohms")} from {Words.Point(_circuit, c.From)} to {Words.Point(_circuit, c.To)}, {state}"
                : c.Text,
            Good = c.Kind == ProposalKind.Reading ? Words.Of(c.Good, c.Quantity) : c.GoodText,
            GoodValue = c is { Kind: ProposalKind.Reading, Good.Kind: PredictionKind.Value } ? Math.Round(c.Good.Value, 3) : null,
            Outcomes = outcomes,
            Bits = c.Bits,
            Minutes = c.Minutes,
            IsProof = proof,
            Why = proof && c.Bits <= LeastBits ? "Shows the leading suspect directly."
                : FormattableString.Invariant($"Takes about {c.Minutes:0.#} min and is worth {c.Bits:0.00} of the {_entropy:0.00} bits still open; it splits {_units.Count(u => u.Length > 0)} units {string.Join(" / ", outcomes.Select(o => $"{o.Probability * 100:0} %"))}."),
            Cautions = Cautions(c),
        };
    }

    private ProposalOutcome Outcome(Candidate c, List<int> group)
    {
        var weight = group.Sum(h => _weights[h]);
        var leaves = group.GroupBy(h => _units[_unitOf[h]]).Select(g => (Unit: g.Key, Probability: g.Sum(h => _weights[h]) / weight))
            .OrderByDescending(u => u.Probability).Take(4).ToImmutableArray();
        string shows;
        if (c.Kind != ProposalKind.Reading)
        {
            shows = c.Shown![group[0]];
        }
        else if (c.Foretold![group[0]].Kind == PredictionKind.OverLimit)
        {
            shows = "OL";
        }
        else
        {
            var values = group.Where(h => c.Foretold[h].Kind == PredictionKind.Value).Select(h => Math.Abs(c.Foretold[h].Value)).ToList();
            shows = values.Count == 0 ? "nothing that holds (stray)" : Range(c.Quantity, values.Min(), values.Max());
        }

        return new ProposalOutcome(shows, weight, leaves);
    }

    private static string Range(Quantity quantity, double low, double high)
    {
        var (a, b) = (Words.Of(new Prediction(PredictionKind.Value, low), quantity), Words.Of(new Prediction(PredictionKind.Value, high), quantity));
        return a == b || high - low < 0.1 * high ? b : $"{a.Replace("about ", "", StringComparison.Ordinal)} to {b.Replace("about ", "", StringComparison.Ordinal)}";
    }

    private static ImmutableArray<string> Cautions(Candidate c)
    {
        var cautions = ImmutableArray.CreateBuilder<string>();
        if (c is { Kind: ProposalKind.Reading, Quantity: Quantity.Volts })
        {
            cautions.Add("Live work: insulated probes, one hand where you can, local rules for live testing.");
        }

        if (c.Kind == ProposalKind.Reading && c.Quantity != Quantity.Volts && c.Setup.Change == SetupChange.Isolate)
        {
            cautions.Add("Isolate, lock off and prove dead at the point of work first.");
        }

        if (c.Setup.Change == SetupChange.Energise || c.Kind == ProposalKind.Operation || (c.Quantity == Quantity.Volts && c.Setup.Held.Length > 0))
        {
            cautions.Add("The motor may start: warn everyone and stand clear.");
        }

        return cautions.ToImmutable();
    }

    private static string UnitName(Hypothesis h) => h.Fault?.Unit ?? "";

    private sealed record Candidate(ProposalKind Kind, Setup Setup, double Bits, double Minutes)
    {
        public Quantity Quantity { get; init; }
        public TerminalId From { get; init; }
        public TerminalId To { get; init; }
        public string Device { get; init; } = "";
        public string Look { get; init; } = "";
        public ImmutableArray<Step> Steps { get; init; } = [];
        public string Text { get; init; } = "";
        public string GoodText { get; init; } = "";
        public Prediction Good { get; init; }
        public required List<List<int>> Groups { get; init; }
        public Prediction[]? Foretold { get; init; }
        public string[]? Shown { get; init; }
    }
}
