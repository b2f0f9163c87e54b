using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

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
public sealed partial class DiagnosisSession
{
    /// <summary>Prior probability of something that is not in the catalogue.</summary>
    internal const double NoneOfThesePrior = 0.01;

    /// <summary>
    /// Share of faults that strike between two things that were tried, once it is known that the circuit worked before: half of what a
    /// person is called for ran this morning (common practice). At the very moment at which a button is let go of a running machine next
    /// to none do: what happens then is what the button does.
    /// </summary>
    private const double StrikeShare = 0.5,
        StrikeAtOnceShare = 0.01;

    /// <summary>Something takes time, s, in which something may fail or trip.</summary>
    internal const double TakesTime = 2;

    /// <summary>How badly a healthy circuit has to fit before something has struck, and how well it has to have fitted before.</summary>
    private const double StruckBelow = 0.2,
        WorkedAbove = 0.3;

    /// <summary>What those weigh together that are left behind, at most: nothing that is said changes by it.</summary>
    private const double NegligibleShare = 1e-3;

    private readonly List<Observation> _observations = [];
    private readonly List<JournalEntry> _followed = [];
    private readonly EntryJudge _judge;
    private readonly ExchangedWires _exchanged;
    private Hypothesis[] _hypotheses = [];
    private int _singles;
    private double _noneLogWeight;
    private bool _hasStruck;

    public DiagnosisSession(CompiledCircuit compiled)
    {
        Compiled = compiled;
        Tables = new OwnOhmTables(compiled.OhmTables);
        _judge = new EntryJudge(this);
        _exchanged = new ExchangedWires(compiled);
        Reset();
    }

    public CompiledCircuit Compiled { get; }

    public Circuit Circuit => Compiled.Circuit;

    internal TestPoints Points => Compiled.TestPoints;
    internal OwnOhmTables Tables { get; }
    internal double FullVolts => Beginning.FullVolts;
    internal double StraySpan => Beginning.StraySpan;

    /// <summary>Pairs of points that show something else with a setup, by quantity and the healthy circuit's state; found once.</summary>
    internal System.Collections.Concurrent.ConcurrentDictionary<
        (Quantity, Setup, CircuitState),
        ImmutableArray<(TerminalId From, TerminalId To)>
    > TellingPairs { get; } = new();

    internal IReadOnlyList<Hypothesis> Hypotheses => _hypotheses;
    internal IReadOnlyList<Observation> Observations => _observations;

    /// <summary>The healthy circuit in the state the journal has brought it to.</summary>
    internal Hypothesis Healthy => _hypotheses[0];

    /// <summary>The meter was checked on a known source and shows what it should.</summary>
    internal bool MeterIsGood { get; private set; }

    /// <summary>Earlier repairs that the first weights are drawn from.</summary>
    public History History { get; private set; } = History.None;

    /// <summary>Takes earlier repairs into account from the beginning of the journal on.</summary>
    public void Learn(History history)
    {
        if (!history.Equals(History))
        {
            History = history;
            Tables.Know(history.Ohms, new Simulator(Compiled.Network).Do(CircuitState.AtRest(Circuit), Compiled.Isolation.Off).State);
            TellingPairs.Clear();
            Reset();
        }
    }

    /// <summary>Brings the session to the end of a journal; only what is new is computed, unless something was struck out.</summary>
    public void Follow(JobState job)
    {
        var entries = job.Valid.Where(e => !job.Void.ContainsKey(e.Id)).ToList();
        var ids = entries.Select(e => e.Id).ToList();
        if (_followed.Count > ids.Count || !_followed.Select(e => e.Id).SequenceEqual(ids.Take(_followed.Count)))
        {
            Reset();
        }

        MeterIsGood = entries.OfType<MeterChecked>().LastOrDefault() is { Good: true };
        foreach (var entry in entries.Skip(_followed.Count).ToList())
        {
            Follow(entry);
        }
    }

    /// <summary>What the evidence amounts to, with the best next tests.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits any more; the session is then begun anew by its next use.</exception>
    public DiagnosisResult Diagnose(
        JobState job,
        Strategy strategy = Strategy.MostTelling,
        Without without = Without.None,
        CancellationToken cancellation = default
    )
    {
        _cancellation = cancellation;
        try
        {
            Follow(job);
            return new Assessment(this, job, strategy, without).Result();
        }
        catch (Exception e) when (IsCancelled(e))
        {
            // It may have been stopped with some hypotheses brought on and others not.
            Reset();
            throw new OperationCanceledException(cancellation);
        }
        finally
        {
            _cancellation = CancellationToken.None;
        }
    }

    /// <summary>How the devices of a job stand on which nothing was seen or done yet: at rest. Null once something was.</summary>
    public static CircuitState? AtRest(JobState job) =>
        job.Entries.All(e => e is Complaint or Told or Note or Photo) ? new Simulator(job.Compiled.Network).Start().State : null;

    /// <summary>How the devices stand, as <see cref="DiagnosisResult.Standing"/> has it, without what might be measured next.</summary>
    public CircuitState Standing(JobState job)
    {
        Follow(job);
        return new Assessment(this, job, Strategy.MostTelling, Without.None).Standing.State;
    }

    /// <summary>
    /// What to ask before a reading counts that nothing which is suspected would show: most of these are leads, setting or state. Null for one
    /// that some suspect explains.
    /// </summary>
    public string? Doubt(JobState job, Reading reading)
    {
        const double considered = 1e-5;
        if (reading.Value.Kind is ReadingKind.NotSure or ReadingKind.Unsteady || job.Refuse(reading) is not null)
        {
            return null;
        }

        Follow(job);
        var weights = Posterior();
        var suspects = _hypotheses
            .Select((h, i) => (Hypothesis: h, Weight: weights[i]))
            .Where(x => x.Weight > considered && IsUpToDate(x.Hypothesis))
            .OrderByDescending(x => x.Weight)
            .Select(x => x.Hypothesis)
            .ToList();
        if (suspects.Any(h => _judge.Explains(h, reading)))
        {
            return null;
        }

        var good = suspects.Take(1).Select(h => Words.Of(_judge.Sound(h, reading), reading.Quantity)).FirstOrDefault();
        var slipped = suspects.Select(h => _judge.Slipped(h, reading)).FirstOrDefault(pair => pair is not null);
        return $"Nothing that is suspected shows {ReadingText.Show(reading.Value, reading.Quantity)} here"
            + $"{(good is null ? "" : $" (good: {good})")}. Are both leads where they are drawn, is the meter set right, does everything stand "
            + $"as it is shown?{(slipped is var (from, to) ? $" {from} to {to} would show that." : "")}";
    }

    private CancellationToken _cancellation;

    /// <summary>Asked for between pieces of work that take some milliseconds.</summary>
    internal void StopWhenCancelled() => _cancellation.ThrowIfCancellationRequested();

    private static bool IsCancelled(Exception e) =>
        e is OperationCanceledException || (e is AggregateException several && several.InnerExceptions.Any(IsCancelled));

    /// <summary>Forgets what was solved for readings: it makes the next proposal quicker and takes most of a session's memory.</summary>
    public void Rest()
    {
        foreach (var hypothesis in _hypotheses)
        {
            hypothesis.Rest();
        }
    }

    /// <summary>About how much memory the session holds by itself.</summary>
    public long Bytes => _hypotheses.Sum(h => h.PreparedBytes + 400) + 10_000;

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
        var factors = History.Equals(History.None) ? null : History.Factors(Compiled);
        _hypotheses = [.. Beginning.All.Select(h => h.Clone())];
        foreach (var hypothesis in _hypotheses.Where(h => h.Fault is not null && factors is not null))
        {
            hypothesis.Factor = factors![hypothesis.Fault!.Id];
        }

        _singles = _hypotheses.Length;
        _hasStruck = false;
        _exchanged.Clear();
        _noneLogWeight = Math.Log(NoneOfThesePrior);
    }

    private StartingHypotheses Beginning => Compiled.StartingHypotheses;

    private void Follow(JournalEntry entry)
    {
        var followed = FollowedOn().ToList();
        var before = Healthy.State;
        _followed.Add(entry);
        if (!_judge.IsEvidence(entry))
        {
            Bring(followed);
            return;
        }

        _observations.Add(new Observation(entry, _observations.Count));
        _noneLogWeight += Math.Log(_judge.NoneFit(entry));
        Bring(followed);
        if (HasStruck(entry) && entry is OperationSeen { Steps: var during })
        {
            Strike(before, during, TimePassed(entry, before) ? StrikeShare : StrikeAtOnceShare);
        }
        else if (IsFoundStruck(entry))
        {
            Strike(Healthy.State, [], StrikeShare);
        }

        WakeWhatMatters();
        if (FitOfLeading() < PairsBelow)
        {
            BringAll();
            if (FitOfLeading() < PairsBelow)
            {
                SuspectMore();
            }
        }
    }

    /// <summary>
    /// Hypotheses that are followed on: all but those that together weigh next to nothing. No observation makes a hypothesis weigh
    /// more than before, so what one weighed when it was left behind is the most it can weigh; should that matter one day, it is
    /// brought up to date.
    /// </summary>
    private IEnumerable<Hypothesis> FollowedOn()
    {
        var rest = _hypotheses.Skip(1).Where(IsUpToDate).OrderBy(h => h.LogWeight).ToList();
        var most = _hypotheses.Max(h => h.LogWeight);
        var left = 0.0;
        var first = rest.TakeWhile(h => (left += Math.Exp(h.LogWeight - most)) < NegligibleShare / 4).Count();
        return rest.Skip(first).Prepend(_hypotheses[0]);
    }

    /// <summary>It worked, as a healthy circuit does, and now it does not.</summary>
    private bool HasStruck(JournalEntry entry)
    {
        if (_hasStruck || entry is not OperationSeen || Healthy.Judged[^1].Fit >= StruckBelow)
        {
            return false;
        }

        var tried = _observations.SkipLast(1).Where(o => o.Entry is OperationSeen).ToList();
        return tried.Any(o => ((OperationSeen)o.Entry).Seen.Any(s => Circuit.Device(s.Key).Kind.IsWorking(s.Value)))
            && tried.Aggregate(1.0, (fit, o) => fit * o.By(Healthy).Fit) > WorkedAbove;
    }

    /// <summary>
    /// The job begins with a machine that was started before anybody wrote anything down and that runs otherwise than a healthy one: what it has
    /// may have struck since that start. On two lines a motor runs on rough which would never have started.
    /// </summary>
    private bool IsFoundStruck(JournalEntry entry) =>
        !_hasStruck
        && entry is OperationSeen { Steps.IsEmpty: true }
        && _observations.SkipLast(1).All(o => o.Entry is Told)
        && Healthy.Judged[^1].Fit < StruckBelow
        && Healthy.SeenNow.Any(s => Circuit.Device(s.Key).Kind.IsWorking(s.Value));

    /// <summary>
    /// Somebody waited; or at rest again everything that was done had been done before, when it worked: who knows how long ago that was.
    /// What is tried for the first time and fails has hardly broken just then.
    /// </summary>
    private bool TimePassed(JournalEntry entry, CircuitState before) =>
        entry is OperationSeen { Steps: var steps }
        && (
            steps.IsEmpty
            || steps.Any(s => s.Seconds >= TakesTime)
            || (
                !steps.Except(_observations.SkipLast(1).Select(o => o.Entry).OfType<OperationSeen>().SelectMany(o => o.Steps)).Any()
                && !new Simulator(Compiled.Network).Observe(before).Appearances.Any(s => Circuit.Device(s.Key).Kind.IsWorking(s.Value))
            )
        );

    /// <summary>Every fault as one that has struck since the entry before: it stands beside the one that was there from the start.</summary>
    private void Strike(CircuitState before, ImmutableArray<Step> during, double share)
    {
        _hasStruck = true;
        var byFault = _hypotheses
            .Take(_singles)
            .Where(h => h is { Fault: not null, IsRepaired: false })
            .GroupBy(h => h.Fault!, ReferenceEqualityComparer.Instance)
            .ToList();
        var struck = AtOnce.Of(
            byFault,
            g => g.First().Struck(Healthy, before, during, _followed.Count - 1, _observations.SkipLast(1), share * g.Sum(h => h.Prior))
        );
        _hypotheses = [.. _hypotheses.Take(_singles), .. struck, .. _hypotheses.Skip(_singles)];
        _singles += struck.Length;
        Bring(struck);
    }

    private bool IsUpToDate(Hypothesis hypothesis) => hypothesis.Followed == _followed.Count;

    /// <summary>Brings those up to date that were left behind and could matter.</summary>
    private void WakeWhatMatters()
    {
        while (true)
        {
            var behind = _hypotheses.Where(h => !IsUpToDate(h)).OrderByDescending(h => h.LogWeight).ToList();
            var most = _hypotheses.Max(h => h.LogWeight);
            var all = Math.Exp(_noneLogWeight - most) + _hypotheses.Sum(h => Math.Exp(h.LogWeight - most));
            var left = behind.Sum(h => Math.Exp(h.LogWeight - most));
            if (left < NegligibleShare * all)
            {
                return;
            }

            // What turns out to fit as little as it did before is left again on the way.
            var least = most + Math.Log(NegligibleShare / 4 * all / behind.Count);
            Bring(
                [
                    .. behind.TakeWhile(h =>
                        (left -= Math.Exp(h.LogWeight - most)) > -1 && left + Math.Exp(h.LogWeight - most) > NegligibleShare / 2 * all
                    ),
                ],
                least
            );
        }
    }

    /// <summary>
    /// Brings every hypothesis to the end of the journal, for questions that are about the unlikely ones too; the hundreds of wirings that
    /// nothing points to stay behind.
    /// </summary>
    internal void BringAll() => Bring([.. Catalogued.Where(h => !IsUpToDate(h))]);

    /// <summary>All but the wirings that were thought of because nothing else fitted.</summary>
    internal IEnumerable<Hypothesis> Catalogued => _hypotheses.Where((h, i) => i < _singles || !IsDifference(h));

    private static bool IsDifference(Hypothesis h) => h.Fault is { IsWiring: true, Parts.IsEmpty: true };

    /// <summary>Brings hypotheses to the end of the journal; the healthy circuit first, which the others are compared with.</summary>
    private void Bring(IReadOnlyList<Hypothesis> hypotheses, double least = double.NegativeInfinity)
    {
        Bring(Healthy, double.NegativeInfinity);
        AtOnce.Each(hypotheses.Where(h => h != Healthy), h => Bring(h, least));
    }

    /// <param name="hypothesis">Which one.</param>
    /// <param name="least">It is left on the way when it weighs less than this.</param>
    private void Bring(Hypothesis hypothesis, double least)
    {
        for (; !IsUpToDate(hypothesis) && hypothesis.LogWeight > least; hypothesis.Followed++)
        {
            StopWhenCancelled();
            if (_judge.Judge(hypothesis, _followed[hypothesis.Followed]) is { } judgement)
            {
                hypothesis.Judge(judgement, hypothesis == Healthy ? judgement : Healthy.Judged[hypothesis.Judged.Count]);
            }
        }
    }
}
