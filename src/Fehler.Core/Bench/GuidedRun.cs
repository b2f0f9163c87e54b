using System.Collections.Immutable;
using System.Diagnostics;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Bench;

/// <summary>
/// Somebody who does exactly what the diagnosis proposes on a simulated panel, from the symptom until a unit is found or
/// nothing more can be told. Measures the engine, and is the best possible run a trainee is compared with.
/// </summary>
public sealed class GuidedRun
{
    private const int MostTests = 30;

    private readonly List<JournalEntry> _entries = [];
    private readonly Circuit _circuit;
    private readonly SimulatedPanel _panel;

    private GuidedRun(Circuit circuit, FaultMode? fault, int seed)
    {
        _circuit = circuit;
        _panel = new SimulatedPanel(circuit, fault?.Alterations ?? [], seed);
    }

    /// <summary>The journal that came of it.</summary>
    public IReadOnlyList<JournalEntry> Entries => _entries;

    public DiagnosisResult Result { get; private set; } = null!;

    public int Readings => _entries.OfType<Reading>().Count();

    public int Looks => _entries.OfType<LookSeen>().Count();

    public double Minutes { get; private set; }

    /// <summary>How long each proposal was thought about.</summary>
    public List<TimeSpan> Thinking { get; } = [];

    /// <summary>Whether any operation so far showed something a healthy circuit does not.</summary>
    public bool HasSymptom { get; private set; }

    /// <summary>Follows the proposals on a panel with this fault.</summary>
    public static GuidedRun On(Circuit circuit, FaultMode? fault, Strategy strategy = Strategy.MostTelling, int seed = 1)
    {
        var run = new GuidedRun(circuit, fault, seed);
        run.ShowSymptom();
        run.Follow(strategy);
        return run;
    }

    /// <summary>Tries the circuit the way an operator would: start, hold, release, wait, stop.</summary>
    private void ShowSymptom()
    {
        var healthy = new SimulatedPanel(_circuit, []);
        Add(new LiveWorkAcknowledged());
        foreach (var steps in Trials(_circuit))
        {
            var seen = _panel.Operate(steps);
            HasSymptom |= !healthy.Operate(steps).SequenceEqual(seen);
            Add(new OperationSeen(steps, seen));
        }
    }

    /// <summary>Start, hold, let go, wait, stop: one entry each, in every way the circuit can be started.</summary>
    public static IEnumerable<ImmutableArray<Step>> Trials(Circuit circuit)
    {
        var runUp = RunUp.Of(circuit);
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
                yield return [start.Back(circuit)];
            }
        }

        if (runUp.WorksAtRest)
        {
            yield return [Step.Wait(150)];
        }
    }

    private void Follow(Strategy strategy)
    {
        var session = new DiagnosisSession(_circuit);
        for (var i = 0; ; i++)
        {
            var began = Stopwatch.GetTimestamp();
            Result = session.Diagnose(JobState.Of(_circuit, _entries), strategy);
            Thinking.Add(Stopwatch.GetElapsedTime(began));
            if (Result.Status == DiagnosisStatus.Found || Result.Proposals.IsEmpty || i == MostTests)
            {
                return;
            }

            Do(Result.Proposals[0]);
        }
    }

    private void Do(Proposal proposal)
    {
        Minutes += proposal.Minutes;
        switch (proposal.Setup.Change)
        {
            case SetupChange.Isolate:
                _panel.Isolate();
                Add(new Isolated(Isolation.Of(_circuit).Points));
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
                Add(new OperationSeen(proposal.Steps, _panel.Operate(proposal.Steps)));
                break;
            default:
                Add(new Reading(proposal.Quantity, proposal.From, proposal.To, proposal.Setup.Held,
                    _panel.Measure(proposal.Quantity, proposal.From, proposal.To, proposal.Setup.Held), "simulated"));
                break;
        }
    }

    private void Add(JournalEntry entry) => _entries.Add(entry with { Id = Guid.NewGuid(), Sequence = _entries.Count + 1 });
}
