using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// The diagnosis of one job: every suspect of the circuit as a hypothesis, followed through the journal and weighed by
/// what it foretold. A pure function of circuit and journal; the session only keeps what has been computed so far.
/// </summary>
/// <remarks>
/// Bayes' rule over faults predicted by a model of the device, and the next measurement chosen by expected entropy:
/// J. de Kleer and B. Williams, "Diagnosing multiple faults", Artificial Intelligence 32 (1987); choice by benefit over
/// cost: D. Heckerman, J. Breese and K. Rommelse, "Decision-theoretic troubleshooting", CACM 38 (1995). From memory.
/// Not safe for use by several threads at once.
/// </remarks>
public sealed class DiagnosisSession
{
    /// <summary>Prior probability that nothing is wrong now: it cured itself, or was operated wrongly.</summary>
    private const double NothingWrongPrior = 0.02;

    /// <summary>Prior probability of something that is not in the catalogue, and how such a thing fits any observation.</summary>
    private const double NoneOfThesePrior = 0.01, NoneOfTheseReadingFit = 0.04, NoneOfTheseOperationFit = 0.06;

    /// <summary>Probability of two faults at once, and how badly the leading single one has to fit before they are thought of.</summary>
    private const double PairPrior = 0.02, PairsBelow = 0.1;

    /// <summary>Nobody tries more starts than this before calling.</summary>
    private const int MostTrials = 2;

    private static readonly ConditionalWeakTable<Circuit, IReadOnlyList<Hypothesis>> Found = [];

    private readonly List<Observation> _observations = [];
    private readonly List<JournalEntry> _followed = [];
    private Hypothesis[] _hypotheses = [];
    private int _singles;
    private double _noneLogWeight;

    public DiagnosisSession(Circuit circuit)
    {
        Circuit = circuit;
        Points = new TestPoints(circuit);
        Tables = new OhmTables(Network.Of(circuit));
        FullVolts = ControlVolts(circuit);
        StraySpan = 0.7 * circuit.Supply.Number("lineVolts");
        Reset();
    }

    public Circuit Circuit { get; }

    internal TestPoints Points { get; }
    internal IOhmTables Tables { get; }
    internal double FullVolts { get; }

    /// <summary>Pairs of points that show something else with a setup, by quantity and the healthy circuit's state; found once.</summary>
    internal System.Collections.Concurrent.ConcurrentDictionary<(Quantity, Setup, CircuitState), ImmutableArray<(TerminalId From, TerminalId To)>> Worthwhile { get; } = new();

    internal double StraySpan { get; }
    internal IReadOnlyList<Hypothesis> Hypotheses => _hypotheses;
    internal IReadOnlyList<Observation> Observations => _observations;

    /// <summary>The healthy circuit in the state the journal has brought it to.</summary>
    internal Hypothesis Healthy => _hypotheses[0];

    /// <summary>Earlier repairs that the first weights are drawn from.</summary>
    public History History { get; private set; } = History.None;

    /// <summary>Takes earlier repairs into account from the beginning of the journal on.</summary>
    public void Learn(History history)
    {
        if (!history.Equals(History))
        {
            History = history;
            Reset();
        }
    }

    /// <summary>Brings the session to the end of a journal; only what is new is computed, unless something was struck out.</summary>
    public void Follow(JobState job)
    {
        var ids = job.Valid.Select(e => e.Id).ToList();
        if (_followed.Count > ids.Count || !_followed.Select(e => e.Id).SequenceEqual(ids.Take(_followed.Count)))
        {
            Reset();
        }

        foreach (var entry in job.Valid.Skip(_followed.Count).ToList())
        {
            Follow(entry);
        }
    }

    /// <summary>What the evidence amounts to, with the best next tests.</summary>
    public DiagnosisResult Diagnose(JobState job, Strategy strategy = Strategy.MostTelling, Without without = Without.None)
    {
        Follow(job);
        return new Assessment(this, job, strategy, without).Result();
    }

    /// <summary>Probability of each hypothesis; the last is "none of these".</summary>
    internal double[] Posterior()
    {
        var logs = _hypotheses.Select(h => h.LogWeight).Append(_noneLogWeight).ToArray();
        var most = logs.Max();
        var weights = logs.Select(l => Math.Exp(l - most)).ToArray();
        var sum = weights.Sum();
        return [.. weights.Select(w => w / sum)];
    }

    private void Reset()
    {
        _followed.Clear();
        _observations.Clear();
        _hypotheses = [.. Found.GetValue(Circuit, AllAsFound).Select(h => h.Clone())];
        _singles = _hypotheses.Length;
        if (!History.Equals(History.None))
        {
            var factors = History.Factors(Circuit);
            foreach (var hypothesis in _hypotheses.Where(h => h.Fault is not null))
            {
                hypothesis.Weigh(factors[hypothesis.Fault!.Id]);
            }
        }

        _noneLogWeight = Math.Log(NoneOfThesePrior);
    }

    private static List<Hypothesis> AllAsFound(Circuit circuit)
    {
        var healthy = Network.Of(circuit);
        var faults = FaultCatalogue.Of(circuit);
        var total = faults.Sum(f => f.Weight);
        var trial = Trial(circuit);
        return [
            .. Hypothesis.AsFound(healthy, null, NothingWrongPrior, trial),
            .. faults.AsParallel().AsOrdered().SelectMany(f => Hypothesis.AsFound(healthy, f, (1 - NothingWrongPrior - NoneOfThesePrior) * f.Weight / total, trial)),
        ];
    }

    /// <summary>What somebody has usually tried before calling: start, wait, stop.</summary>
    private static ImmutableArray<Step> Trial(Circuit circuit)
    {
        var runUp = RunUp.Of(circuit);
        var steps = new List<Step>();
        foreach (var start in runUp.Starts.Take(MostTrials))
        {
            steps.AddRange([.. start.Prepare, start.Act, Step.Wait(30)]);
            if (start.LetGo is not null)
            {
                steps.Add(start.LetGo);
            }

            steps.Add(Step.Wait(600));
            steps.AddRange(start.LetGo is null
                ? [start.Back(circuit)]
                : runUp.Stops.Take(1).SelectMany(stop => new[] { new Step(stop.Tag, "pressed"), Step.Wait(1), new Step(stop.Tag, "released") }));
        }

        return runUp.WorksAtRest ? [Step.Wait(600)] : [.. steps];
    }

    private static double ControlVolts(Circuit circuit)
    {
        var simulator = new Simulator(Network.Of(circuit));
        var solution = simulator.Start().Solution;
        var head = circuit.Paths.Where(p => p.Type == PathType.Control && p.From.Length == 1 && p.To.Contains(circuit.Reference)).Select(p => p.From[0]).FirstOrDefault();
        return head == default ? 0 : Math.Max(solution.Volts(head, circuit.Reference).Magnitude, Math.Abs(solution.DcVolts(head, circuit.Reference)));
    }

    private void Follow(JournalEntry entry)
    {
        var observation = Judge(entry, _hypotheses);
        _followed.Add(entry);
        if (observation is null)
        {
            return;
        }

        observation.Healthy = observation.Foretold[0];
        observation.HealthyFit = observation.Fit[0];
        _observations.Add(observation);
        _noneLogWeight += Math.Log(NoneFit(entry));
        if (FitOfLeading() < PairsBelow)
        {
            SuspectPairs();
        }
    }

    /// <summary>How well the leading single fault fits all evidence, each piece measured against the single fault that fits it best.</summary>
    private double FitOfLeading()
    {
        var leading = Enumerable.Range(0, _singles).MaxBy(i => _hypotheses[i].LogWeight);
        return _observations.Aggregate(1.0, (fit, o) => fit * Math.Min(1, o.Fit[leading] / o.Fit.Take(_singles).Max()));
    }

    /// <summary>No single fault fits: pairs are followed through the journal so far and stand beside the single ones.</summary>
    private void SuspectPairs()
    {
        var total = FaultCatalogue.Of(Circuit).Sum(f => f.Weight);
        var healthy = Network.Of(Circuit);
        var trial = Trial(Circuit);
        var chosen = PairChoice.Of(_hypotheses[.._singles], _observations, f => Math.Log(f.Weight / total)).ToList();
        Hypothesis[] pairs = [.. chosen.AsParallel().AsOrdered().SelectMany(p => Hypothesis.AsFound(healthy, p, PairPrior * p.Weight / (total * total), trial))];
        var judged = _followed.Select(e => Judge(e, pairs)).OfType<Observation>().ToList();
        for (var i = 0; i < _observations.Count; i++)
        {
            _observations[i].Extend(_singles, judged[i]);
        }

        _hypotheses = [.. _hypotheses.Take(_singles), .. pairs];
    }

    /// <summary>Brings hypotheses past an entry and weighs them by it; null when it is no evidence.</summary>
    private Observation? Judge(JournalEntry entry, Hypothesis[] hypotheses)
    {
        void ForEach(Action<Hypothesis> action) => System.Threading.Tasks.Parallel.ForEach(hypotheses, action);

        Observation Weigh(Func<Hypothesis, (double Fit, string Foretold)> judge)
        {
            var observation = new Observation(entry, hypotheses.Length);
            System.Threading.Tasks.Parallel.For(0, hypotheses.Length, i =>
            {
                (observation.Fit[i], observation.Foretold[i]) = judge(hypotheses[i]);
                hypotheses[i].Weigh(observation.Fit[i]);
            });
            return observation;
        }

        if (entry is Reading or LookSeen or Isolated or Energised or Repair or WireLifted or WireLanded)
        {
            ForEach(h => h.LetGo());
        }

        switch (entry)
        {
            case OperationSeen operation:
                return Weigh(h => Operated(h, operation.Steps, operation.Seen));
            case FunctionTested test when FunctionTest.Of(Circuit).FirstOrDefault(s => s.Id == test.Step) is { } step:
                return Weigh(h => Operated(h, [.. step.Before, .. step.Steps], Seen(test, step)));
            case LookSeen { Answer: not LookSeen.NotSure } look:
                return Weigh(h => h.Seen(look.Device, look.Look) is var seen ? (Likelihood.OfLook(look.Answer, seen), seen) : default);
            case Reading reading:
                return Weigh(h => Read(h, reading));
            case Isolated:
                ForEach(h => h.Operate(Isolation.Of(Circuit).Off));
                return null;
            case Energised:
                ForEach(h => h.Operate(Isolation.Of(Circuit).On));
                return null;
            case WireLifted lifted:
                ForEach(h => h.Lift(lifted.Conductor));
                return null;
            case WireLanded landed:
                ForEach(h => h.Land(landed.Conductor));
                return null;
            case Repair repair when repair.Unit.Length > 0:
                ForEach(h => h.Repair(repair.Unit));
                return null;
            default:
                return null;
        }
    }

    private static ImmutableSortedDictionary<string, string> Seen(FunctionTested test, FunctionTestStep step) =>
        test.Seen.Count > 0 || !test.Passed ? test.Seen : step.Expected;

    private static (double Fit, string Foretold) Operated(Hypothesis hypothesis, ImmutableArray<Step> steps, ImmutableSortedDictionary<string, string> seen)
    {
        var appearances = hypothesis.Operate(steps).Appearances;
        return (seen.Aggregate(1.0, (fit, s) => fit * Likelihood.OfAppearance(s.Value, appearances.GetValueOrDefault(s.Key, ""))),
            string.Join(", ", seen.Keys.Select(k => $"{k} {appearances.GetValueOrDefault(k, "")}")));
    }

    private (double Fit, string Foretold) Read(Hypothesis hypothesis, Reading reading)
    {
        var setup = new Setup(SetupChange.None, reading.Held, !reading.Quantity.IsLive());
        var prediction = hypothesis.Predict(reading.Quantity, Tables, [(reading.From, reading.To)], setup)[0];
        var fit = reading.Value.Kind == ReadingKind.NotSure ? 1 : hypothesis.Fit(reading.Value, prediction, FullVolts, StraySpan);
        hypothesis.HoldAndRelease(setup);
        return (fit, Words.Of(prediction, reading.Quantity));
    }

    /// <summary>How something that is not in the catalogue fits an entry.</summary>
    private double NoneFit(JournalEntry entry) => entry switch
    {
        OperationSeen operation => Math.Pow(NoneOfTheseOperationFit, Math.Min(2, operation.Seen.Count)),
        FunctionTested test => Math.Pow(NoneOfTheseOperationFit, Math.Min(2, Seen(test, FunctionTest.Of(Circuit).First(s => s.Id == test.Step)).Count)),
        LookSeen => 0.3,
        Reading { Value.Kind: ReadingKind.NotSure } => 1,
        _ => NoneOfTheseReadingFit,
    };
}
