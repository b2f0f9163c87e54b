using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.History;

/// <summary>A job of the demo plant's past, as the demo brings it in.</summary>
internal sealed record PastJob(string Circuit, string Complaint, string Who, double DaysAgo, IReadOnlyList<JournalEntry> Entries);

/// <summary>
/// Jobs of two years: a fault by the catalogue's own weights strikes a panel that differs from its description, the diagnosis is followed,
/// what it names is repaired and the function test passed. What is not found ends as nothing found.
/// </summary>
internal sealed class PastJobs(IReadOnlyList<CompiledCircuit> circuits, int seed)
{
    private const double Days = 730;

    /// <summary>Jobs take from minutes to hours beyond what the meter takes: fetching parts, waiting (common practice).</summary>
    private const double LeastRepair = 12,
        MostRepair = 150;

    /// <summary>What wears, in the way that the sawmill wears it: these circuits come again and again.</summary>
    private static readonly Dictionary<string, double> Hard = new()
    {
        ["CH-110"] = 4,
        ["IN-101"] = 3,
        ["KF-402"] = 3,
        ["GC-501"] = 2.5,
        ["LD-102"] = 2,
    };

    private static readonly string[] People = ["R. Halvar", "M. Okonjo", "T. Brenn", "A. Werning"];

    private static readonly string[] Reasons = ["", "wear", "vibration", "damp", "dust and resin", "loose since the last work", "age"];

    private readonly Random _chance = new(seed);

    /// <summary>As many jobs as are asked for, the oldest first.</summary>
    public List<PastJob> Make(int count, Action<int, string> progress)
    {
        var jobs = new List<PastJob>();
        for (var tries = 0; jobs.Count < count && tries < 4 * count; tries++)
        {
            var compiled = Drawn(circuits, c => Hard.GetValueOrDefault(c.Circuit.Tag, 1));
            var fault = Drawn([.. compiled.Faults.Where(f => !f.IsWiring)], f => f.Weight);
            if (Job(compiled, fault, Math.Round(30 + (Days - 30) * _chance.NextDouble(), 1)) is { } job)
            {
                jobs.Add(job);
                progress(jobs.Count, $"{job.Circuit} {fault.Id}: {job.Entries.Count} entries");
            }
        }

        return [.. jobs.OrderByDescending(j => j.DaysAgo)];
    }

    private PastJob? Job(CompiledCircuit compiled, FaultMode fault, double daysAgo)
    {
        var run = GuidedRun.On(compiled, [fault], new GuidedRunOptions { Seed = _chance.Next(), Differs = true });
        if (!run.HasSymptom)
        {
            return null;
        }

        var job = JobState.Of(compiled, []);
        bool Add(JournalEntry entry)
        {
            var stamped = entry with { Id = Guid.NewGuid(), Sequence = job.Entries.Length + 1 };
            if (job.Refuse(stamped) is not null)
            {
                return false;
            }

            job = job.With(stamped);
            return true;
        }

        foreach (var entry in run.Entries)
        {
            Add(entry);
        }

        var named = run.Result.Units.FirstOrDefault(u => u.Unit.Length > 0);
        var isFound =
            run.Result.Status == DiagnosisStatus.Found
            && named is not null
            && (named.Unit == fault.Unit || named.Alike.Contains(fault.Unit));
        if (!isFound)
        {
            if (job.IsIsolated)
            {
                Add(new Energised());
            }

            // Where something was repaired on the way it is no "nothing found": such a job is left out.
            return Add(new Closed(CloseOutcome.NothingFound, "", Math.Round(20 + 60 * _chance.NextDouble())))
                ? Written(compiled, job, run, daysAgo)
                : null;
        }

        var minutes = Math.Round(LeastRepair + (MostRepair - LeastRepair) * Math.Pow(_chance.NextDouble(), 2));
        Add(new Finding(fault.Unit, fault.Id, fault.Title.ToString()));
        if (!job.IsIsolated)
        {
            Add(new Isolated(compiled.Isolation.Points));
            Add(new ProvedDead(true, true));
        }

        var parts =
            compiled.Circuit.FindDevice(fault.Unit) is { } device && _chance.NextDouble() < 0.7
                ? ImmutableArray.Create(device.Kind.ReplaceableUnit.ToString())
                : [];
        Add(new Repair(fault.Unit, parts.IsEmpty ? "put right" : "replaced", parts, minutes, Reasons[_chance.Next(Reasons.Length)]));
        Add(new Energised());
        Add(new LiveWorkAcknowledged());
        foreach (var step in compiled.FunctionTest.Steps)
        {
            Add(new FunctionTested(step.Id, true, ImmutableSortedDictionary<string, string>.Empty));
            var load = 0.9 + 0.15 * _chance.NextDouble();
            foreach (var current in step.Currents)
            {
                var amps = Math.Round(current.Amps * load * (1 + 0.02 * (_chance.NextDouble() - 0.5)), current.Amps > 20 ? 1 : 2);
                Add(new Reading(Quantity.Amps, current.Terminal, current.Terminal, [], ReadingValue.Of(amps)));
            }
        }

        foreach (var item in RestoreList.Of(job))
        {
            Add(new Restored(item.Id));
        }

        return Add(new Closed(CloseOutcome.RepairedAndProved, "", Math.Round(minutes + run.Minutes + 10)))
            ? Written(compiled, job, run, daysAgo)
            : null;
    }

    private PastJob Written(CompiledCircuit compiled, JobState job, GuidedRun run, double daysAgo) =>
        new(
            compiled.Circuit.Tag,
            PanelTrial.Said(compiled.Circuit, [.. run.Entries.OfType<OperationSeen>().Select(o => o.Seen)]),
            People[_chance.Next(People.Length)],
            daysAgo,
            [.. job.Entries.Select(e => e with { Id = Guid.Empty, Sequence = 0 })]
        );

    private T Drawn<T>(IReadOnlyList<T> from, Func<T, double> weight)
    {
        var at = _chance.NextDouble() * from.Sum(weight);
        foreach (var one in from)
        {
            at -= weight(one);
            if (at <= 0)
            {
                return one;
            }
        }

        return from[^1];
    }
}
