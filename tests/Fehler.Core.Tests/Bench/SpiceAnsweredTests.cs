using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Bench;

/// <summary>
/// The whole job against an outside simulator: the proposals are followed on panels of every family whose meter is ngspice, on other
/// circuits
/// than the evaluation's. The aims are those of the work order: the unit or one that nothing tells from it, and never above 99 % and wrong.
/// </summary>
public class SpiceAnsweredTests
{
    private const int FaultsEach = 2,
        MostTests = 30;

    [Fact]
    public void Single_faults_are_isolated_with_readings_of_an_outside_simulator()
    {
        var ends = RunAll(wrong: 0, missing: 0);
        ends.Count.ShouldBeGreaterThan(40);
        ends.Count(e => e.IsRight).ShouldBeGreaterThanOrEqualTo((int)Math.Ceiling(0.95 * ends.Count), Missed(ends));
        ends.ShouldNotContain(e => !e.IsRight && e.Share > 0.99, Missed(ends));
        ends.Average(e => e.Readings).ShouldBeLessThan(9);
    }

    /// <summary>One reading in ten of something else, one in ten that nobody is sure of.</summary>
    [Fact]
    public void Wrong_and_missing_readings_are_survived()
    {
        var ends = RunAll(wrong: 0.1, missing: 0.1);
        ends.Count(e => e.IsRight).ShouldBeGreaterThanOrEqualTo((int)Math.Ceiling(0.9 * ends.Count), Missed(ends));
        // Two wrong readings that agree may still convince: one end in these some forty-five does (reached, not wished for).
        ends.Count(e => !e.IsRight && e.Share > 0.99).ShouldBeLessThanOrEqualTo(1, Missed(ends));
    }

    private sealed record End(string What, bool IsRight, double Share, int Readings, string Said);

    private static string Missed(IEnumerable<End> ends) =>
        string.Join("\n", ends.Where(e => !e.IsRight).Select(e => $"{e.What}: {e.Said}"));

    private static List<End> RunAll(double wrong, double missing)
    {
        var ends = new ConcurrentBag<End>();
        Parallel.ForEach(
            FamilySamples.Names.Select(n => n.Data),
            name =>
            {
                var circuit = FamilySamples.Of(name);
                var faults = FaultCatalogue.Of(circuit);
                var stride = faults.Count / 7;
                var done = 0;
                for (var i = stride / 2; i < faults.Count && done < FaultsEach; i += stride)
                {
                    if (Follow(name, circuit, faults[i], new SpicePanel(circuit, faults[i], wrong, missing, seed: i)) is { } end)
                    {
                        ends.Add(end);
                        done++;
                    }
                }
            }
        );
        return [.. ends.OrderBy(e => e.What, StringComparer.Ordinal)];
    }

    /// <summary>From the symptom to the end of what the engine has to propose; null when an operator would notice nothing.</summary>
    private static End? Follow(string name, Circuit circuit, FaultMode fault, SpicePanel panel)
    {
        var entries = new List<JournalEntry>();
        void Add(JournalEntry entry) => entries.Add(entry with { Id = Guid.NewGuid(), Sequence = entries.Count + 1 });
        var healthy = new SimulatedPanel(circuit.Compiled(), []);
        var shows = false;
        Add(new LiveWorkAcknowledged());
        foreach (var steps in GuidedRun.Trials(circuit.Compiled()))
        {
            var seen = panel.Operate(steps);
            shows |= !healthy.Operate(steps).SequenceEqual(seen);
            Add(new OperationSeen(steps, seen));
        }

        if (!shows)
        {
            return null;
        }

        var session = new DiagnosisSession(circuit.Compiled());
        DiagnosisResult result;
        for (var i = 0; ; i++)
        {
            result = session.Diagnose(JobState.Of(circuit.Compiled(), entries));
            if (result.Status == DiagnosisStatus.Found || result.Proposals.IsEmpty || i == MostTests)
            {
                break;
            }

            Do(result.Proposals[0], circuit, panel, Add);
        }

        var top = result.Units.FirstOrDefault(u => u.Unit.Length > 0);
        return new End(
            $"{name}, {fault.Id} {fault.Variant}",
            top is not null && (top.Unit == fault.Unit || top.Alike.Contains(fault.Unit)),
            top?.Probability ?? 0,
            entries.OfType<Reading>().Count(),
            $"{result.Status} {top?.Unit} {top?.Probability:P0}, after {entries.OfType<Reading>().Count()} readings"
        );
    }

    private static void Do(Proposal proposal, Circuit circuit, SpicePanel panel, Action<JournalEntry> add)
    {
        if (proposal.Setup.Change == SetupChange.Isolate)
        {
            panel.Isolate();
            add(new Isolated(circuit.Compiled().Isolation.Points));
            add(new ProvedDead(true, true));
        }
        else if (proposal.Setup.Change == SetupChange.Energise)
        {
            panel.Energise();
            add(new Energised());
            add(new LiveWorkAcknowledged());
        }

        switch (proposal.Kind)
        {
            case ProposalKind.Look:
                add(new LookSeen(proposal.Device, proposal.Look, panel.Look(proposal.Device, proposal.Look)));
                break;
            case ProposalKind.Operation:
                add(new OperationSeen(proposal.Steps, panel.Operate(proposal.Steps)));
                if (StepRules.Released(circuit, proposal.Steps) is { } release)
                {
                    add(new OperationSeen([release], panel.Operate([release])));
                }

                break;
            default:
                var lifts = proposal.Setup.Lifts(circuit).ToList();
                foreach (var (conductor, end) in lifts)
                {
                    panel.Lift(conductor.EndAt(end));
                    add(new WireLifted(conductor.Id, end));
                }

                add(
                    new Reading(
                        proposal.Quantity,
                        proposal.From,
                        proposal.To,
                        proposal.Setup.Held,
                        panel.Measure(proposal.Quantity, proposal.From, proposal.To, proposal.Setup.Held),
                        "outside"
                    )
                );
                foreach (var (conductor, _) in lifts)
                {
                    panel.Land(conductor.Id);
                    add(new WireLanded(conductor.Id));
                }

                break;
        }
    }
}
