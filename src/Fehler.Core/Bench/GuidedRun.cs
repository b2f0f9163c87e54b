using System.Collections.Immutable;
using System.Diagnostics;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Bench;

/// <summary>
/// Somebody who does exactly what the diagnosis proposes on a simulated panel, from the symptom until a unit is found or
/// nothing more can be told. Measures the engine, and is the best possible run a trainee is compared with.
/// </summary>
public sealed class GuidedRun
{
    private const int MostTests = 30;
    private const double IsolatedShare = 0.95;

    /// <summary>Less likely units are not listed.</summary>
    private const double LeastShare = 0.002;

    private readonly List<JournalEntry> _entries = [];
    private readonly CompiledCircuit _compiled;
    private readonly Circuit _circuit;
    private readonly GuidedRunOptions _options;
    private readonly SimulatedPanel _panel;
    private readonly HumanMistakes _mistakes;
    private readonly List<FaultMode> _left;

    private GuidedRun(CompiledCircuit compiled, IEnumerable<FaultMode> faults, GuidedRunOptions options)
    {
        (_compiled, _circuit) = (compiled, compiled.Circuit);
        _options = options;
        _left = [.. faults];
        _panel = new SimulatedPanel(
            compiled,
            options.StrikesWhileRunning ? [] : [.. _left.SelectMany(f => f.Alterations)],
            options.Seed,
            options.Differs
        );
        _mistakes = new HumanMistakes(_circuit, _panel, options);
    }

    /// <summary>The journal that came of it.</summary>
    public IReadOnlyList<JournalEntry> Entries => _entries;

    /// <summary>What the diagnosis said last, before anything was repaired.</summary>
    public DiagnosisResult Result { get; private set; } = null!;

    public int Readings => _entries.OfType<Reading>().Count();

    /// <summary>
    /// Readings until one unit, with those that nothing tells from it, held 95 %: what came after was proof. All of them when that never
    /// was.
    /// </summary>
    public int ReadingsToIsolate { get; private set; } = -1;

    public int Looks => _entries.OfType<LookSeen>().Count();

    public double Minutes { get; private set; }

    /// <summary>How long each proposal was thought about.</summary>
    public List<TimeSpan> Thinking { get; } = [];

    /// <summary>Whether any operation so far showed something a healthy circuit does not.</summary>
    public bool HasSymptom { get; private set; }

    /// <summary>At the last try everything was as with a good circuit: what is left, if anything, only a function test shows.</summary>
    public bool WorksAgain { get; private set; }

    /// <summary>
    /// Uncertainty about the unit when only the symptom was known, bits: as many yes-or-no readings are needed on average.
    /// </summary>
    public double BitsAfterSymptom { get; private set; }

    /// <summary>
    /// What naming this fault's unit takes when only the symptom is known, bits: the logarithm of how unlikely it then is. Its mean over
    /// faults as often as they happen is the entropy; a rare fault takes more.
    /// </summary>
    public double BitsOfFault { get; private set; }

    /// <summary>Faults that are still in the panel.</summary>
    public IReadOnlyList<FaultMode> Left => _left;

    /// <summary>Follows the proposals on a panel with this fault, or none, until a unit is found.</summary>
    public static GuidedRun On(CompiledCircuit compiled, FaultMode? fault, Strategy strategy = Strategy.MostTelling, int seed = 1) =>
        On(compiled, fault is null ? [] : [fault], new GuidedRunOptions { Strategy = strategy, Seed = seed });

    /// <summary>
    /// Follows the proposals on a panel with these faults. With several, each unit that is found is repaired, the circuit is tried
    /// again, and it goes on until it works or a sound unit is blamed.
    /// </summary>
    public static GuidedRun On(CompiledCircuit compiled, IReadOnlyCollection<FaultMode> faults, GuidedRunOptions options)
    {
        var run = new GuidedRun(compiled, faults, options);
        run.ShowSymptom();
        run.Follow();
        return run;
    }

    /// <summary>Tries the circuit the way an operator would: start, hold, release, wait, stop.</summary>
    private void ShowSymptom()
    {
        // A sound panel of the same make: what scatters is no symptom.
        var healthy = new SimulatedPanel(_compiled, [], _options.Seed, _options.Differs);
        var shows = false;
        Add(new LiveWorkAcknowledged());
        foreach (var told in _entries.OfType<OperationSeen>().Any() ? [] : _options.Told)
        {
            Add(told);
        }

        if (_options.BeginsRunning && !_entries.OfType<OperationSeen>().Any())
        {
            shows |= BeginInTheMiddle(healthy);
        }

        foreach (var steps in Trials(_compiled))
        {
            var how = _mistakes.Next();
            if (how == Mistake.NotQuitePressed)
            {
                Add(new OperationSeen(steps, _panel.Operate([])));
                continue;
            }

            var before = _panel.Operate([]);
            var seen = _panel.Operate(steps);
            if (_options.StrikesWhileRunning && !_hasStruck && IsWorking(seen))
            {
                // It ran, and then it did not: what is seen next is the first that anybody sees of the fault.
                Add(new OperationSeen(steps, seen));
                healthy.Operate(steps);
                _hasStruck = true;
                _panel.Strike([.. _left.SelectMany(f => f.Alterations)]);
                ImmutableArray<Step> later = [Step.Wait(20)];
                seen = _panel.Operate(later);
                shows |= !healthy.Operate(later).SequenceEqual(seen);
                Add(new OperationSeen(later, seen));
                continue;
            }

            shows |= !healthy.Operate(steps).SequenceEqual(seen);
            if (how != Mistake.NotWrittenDown)
            {
                Add(new OperationSeen(steps, how == Mistake.Misremembered ? _mistakes.Misremembered(before, seen) : seen));
            }
        }

        HasSymptom |= shows;
        WorksAgain = !shows;
    }

    /// <summary>Somebody started it and wrote nothing down: the first that is known is how it stands.</summary>
    /// <returns>Whether a good circuit would stand otherwise.</returns>
    private bool BeginInTheMiddle(SimulatedPanel healthy)
    {
        ImmutableArray<Step> started = [.. _compiled.RunUp.Starts.Take(1).SelectMany(s => s.Run), Step.Wait(60)];
        _panel.Operate(started);
        if (_options.StrikesWhileRunning && !_hasStruck)
        {
            _hasStruck = true;
            _panel.Strike([.. _left.SelectMany(f => f.Alterations)]);
        }

        ImmutableArray<Step> later = [Step.Wait(20)];
        var seen = _panel.Operate(later);
        Add(new OperationSeen([], seen));
        healthy.Operate(started);
        var shows = !healthy.Operate(later).SequenceEqual(seen);
        StopAll();
        foreach (var stop in _compiled.RunUp.Stops)
        {
            healthy.Operate([new Step(stop.Tag, "pressed"), new Step(stop.Tag, "released"), Step.Wait(30)]);
        }

        return shows;
    }

    private bool _hasStruck;

    private bool IsWorking(ImmutableSortedDictionary<string, string> seen) => seen.Any(s => _circuit.Device(s.Key).Kind.IsWorking(s.Value));

    /// <summary>Start, hold, let go, wait, stop: one entry each, in every way the circuit can be started.</summary>
    public static IEnumerable<ImmutableArray<Step>> Trials(CompiledCircuit compiled)
    {
        var runUp = compiled.RunUp;
        var stops = runUp.Stops.ToList();
        yield return [Step.Wait(1)];
        for (var k = 0; k < runUp.Starts.Length; k++)
        {
            var start = runUp.Starts[k];
            yield return [.. start.Prepare, start.Act];
            if (start.LetGo is not null)
            {
                yield return [start.LetGo];
            }

            yield return [Step.Wait(150)];
            if (start.Holds && stops.Count > 0)
            {
                var stop = stops[k % stops.Count].Tag;
                yield return [new Step(stop, "pressed")];
                yield return [new Step(stop, "released")];
                yield return [Step.Wait(1)];
            }
            else if (start.LetGo is null)
            {
                yield return [start.Back(compiled.Circuit)];
            }
        }

        if (runUp.WorksAtRest)
        {
            yield return [Step.Wait(150)];
        }
    }

    private void Follow()
    {
        var session = new DiagnosisSession(_compiled);
        var isSeveral = _left.Count > 1;
        for (var i = 0; ; i++)
        {
            var began = Stopwatch.GetTimestamp();
            Result = session.Diagnose(JobState.Of(_compiled, _entries), _options.Strategy);
            Thinking.Add(Stopwatch.GetElapsedTime(began));
            if (i == 0)
            {
                BitsAfterSymptom = Result.Entropy;
                BitsOfFault = -Math.Log2(
                    Math.Max(LeastShare, _left.Count == 0 ? 1 : Result.Units.FirstOrDefault(u => u.Unit == _left[0].Unit)?.Probability ?? 0)
                );
            }

            var isIsolated =
                Result.Units.FirstOrDefault(u => u.Unit.Length > 0) is { } top
                && top.Probability + Result.Units.Where(u => top.Alike.Contains(u.Unit)).Sum(u => u.Probability) >= IsolatedShare;
            ReadingsToIsolate = isIsolated && ReadingsToIsolate < 0 ? Readings : ReadingsToIsolate;
            var isEnd = Result.Status == DiagnosisStatus.Found || Result.Proposals.IsEmpty || i >= MostTests * (isSeveral ? 2 : 1);
            if (isEnd && !(isSeveral && RepairedOne()))
            {
                return;
            }

            if (!isEnd)
            {
                Do(Result.Proposals[0]);
            }
        }
    }

    /// <summary>Repairs the leading unit, if it is one of those at fault, and tries the circuit again.</summary>
    private bool RepairedOne()
    {
        var named = Result.Units.FirstOrDefault(u => u.Unit.Length > 0);
        var fault = named is null ? null : _left.FirstOrDefault(f => f.Unit == named.Unit || named.Alike.Contains(f.Unit));
        if (fault is null && !(named is not null && StandsTripped(named.Unit)))
        {
            return false;
        }

        // What only tripped or blew is put right below, and shows at the next try whether it was the cause.
        if (fault is not null)
        {
            _left.RemoveAll(f => f.Unit == fault.Unit);
            _panel.Repair(fault.Unit, [.. _left.SelectMany(f => f.Alterations)]);
            Add(new Repair(fault.Unit, "repaired", []));
        }

        // What blew with it is replaced: nobody tries a motor again behind a blown fuse.
        foreach (var tag in _compiled.Faults.Protective.Select(d => d.Tag).Where(StandsTripped))
        {
            _panel.Repair(tag, [.. _left.SelectMany(f => f.Alterations)]);
            Add(new Repair(tag, "replaced", []));
        }

        if (_panel.IsIsolated)
        {
            _panel.Energise();
            Add(new Energised());
        }

        ResetWhatTripped();
        StopAll();
        ShowSymptom();
        return !WorksAgain && _left.Count > 0;
    }

    /// <summary>A repaired circuit may have started by itself: it is stopped before it is tried again.</summary>
    private void StopAll()
    {
        foreach (var stop in _compiled.RunUp.Stops)
        {
            foreach (
                ImmutableArray<Step> steps in new ImmutableArray<Step>[]
                {
                    [new Step(stop.Tag, "pressed")],
                    [new Step(stop.Tag, "released")],
                    [Step.Wait(30)],
                }
            )
            {
                Add(new OperationSeen(steps, _panel.Operate(steps)));
            }
        }
    }

    /// <summary>Before it is tried again, whatever stands tripped is reset; what had only tripped is no fault any more.</summary>
    private void ResetWhatTripped()
    {
        for (var i = 0; i < _circuit.Devices.Length; i++)
        {
            var device = _circuit.Devices[i];
            var rest = device.Kind.InitialPosition(device);
            if (
                _panel.State.Devices[i].Position != rest
                && device.Kind.Actuations(device).FirstOrDefault(a => a.Resets && a.Position == device.Kind.Positions(device)[rest])
                    is { } reset
            )
            {
                ImmutableArray<Step> steps = [new Step(device.Tag, reset.Position)];
                Add(new OperationSeen(steps, _panel.Operate(steps)));
            }
        }

        _left.RemoveAll(f =>
            f.Alterations.All(a =>
                a is FoundInPosition p
                && _panel.State.Devices.ElementAt(_circuit.Devices.ToList().FindIndex(d => d.Tag == p.Device)).Position != p.Position
            )
        );
    }

    private bool StandsTripped(string tag) =>
        _compiled.Faults.Protective.FirstOrDefault(d => d.Tag == tag) is { } device
        && !_compiled.Isolation.Points.Contains(tag)
        && _panel.State.Devices[_circuit.Devices.IndexOf(device)].Position != device.Kind.InitialPosition(device);

    private void Do(Proposal proposal)
    {
        Minutes += proposal.Minutes;
        switch (proposal.Setup.Change)
        {
            case SetupChange.Isolate:
                _panel.Isolate();
                Add(new Isolated(_compiled.Isolation.Points));
                Add(new ProvedDead(true, true));
                break;
            case SetupChange.Energise:
                _panel.Energise();
                Add(new Energised());
                Add(new LiveWorkAcknowledged());
                break;
        }

        switch (proposal.Kind)
        {
            case ProposalKind.Look:
                Add(new LookSeen(proposal.Device, proposal.Look, _panel.Look(proposal.Device, proposal.Look)));
                break;
            case ProposalKind.Operation:
                Add(new OperationSeen(proposal.Steps, _panel.Operate(_mistakes.Next() == Mistake.NotQuitePressed ? [] : proposal.Steps)));
                if (StepRules.Released(_circuit, proposal.Steps) is { } release)
                {
                    Add(new OperationSeen([release], _panel.Operate([release])));
                }

                break;
            default:
                var lifts = proposal.Setup.Lifts(_circuit).ToList();
                foreach (var (conductor, end) in lifts)
                {
                    _panel.Lift(conductor.EndAt(end));
                    Add(new WireLifted(conductor.Id, end));
                }

                Add(
                    new Reading(
                        proposal.Quantity,
                        proposal.From,
                        proposal.To,
                        proposal.Setup.Held,
                        _mistakes.Reading(proposal),
                        "simulated"
                    )
                );
                foreach (var (conductor, _) in lifts)
                {
                    _panel.Land(conductor.Id);
                    Add(new WireLanded(conductor.Id));
                }

                break;
        }
    }

    private void Add(JournalEntry entry) => _entries.Add(entry with { Id = Guid.NewGuid(), Sequence = _entries.Count + 1 });
}
