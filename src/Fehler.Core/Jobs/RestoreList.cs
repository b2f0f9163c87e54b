using System.Collections.Immutable;

namespace Fehler.Core.Jobs;

/// <summary>A thing to confirm before the circuit is handed back.</summary>
public sealed record RestoreItem(string Id, string Text);

/// <summary>
/// What has to be put back after work in the panel (common practice): what this job really lifted, took out, turned and locked by name, and
/// what is easily forgotten in any.
/// </summary>
public static class RestoreList
{
    public static ImmutableArray<RestoreItem> Of(JobState job)
    {
        var lifted = job
            .Valid.OfType<WireLifted>()
            .GroupBy(l => l.Conductor)
            .Select(g => g.Last())
            .Select(l => $"{job.Circuit.Conductors.FirstOrDefault(c => c.Id == l.Conductor)?.Wire} ({l.Conductor}) on {l.End}")
            .ToList();
        var screws = job.Valid.OfType<Tightened>().Select(t => t.Terminal.ToString()).Distinct().ToList();
        var alone = job.Valid.OfType<Reading>().Where(r => r.Alone).Select(r => r.From.Device).Distinct().ToList();
        // One item, however much was done: journals from before know these ids.
        string[] done =
        [
            lifted.Count == 0
                ? "Every wire is back on its terminal and tight; count them against the drawing."
                : $"Lifted in this job, back on and tight: {string.Join(", ", lifted)}. The others counted against the drawing.",
            .. alone.Count == 0 ? Array.Empty<string>() : [$"Measured by itself, back in with every wire on: {string.Join(", ", alone)}."],
            .. screws.Count == 0 ? Array.Empty<string>() : [$"Screws that were tried are tight: {string.Join(", ", screws)}."],
        ];
        return
        [
            new("wires", string.Join(" ", done)),
            new("earth", "Protective conductors are connected and checked."),
            new("tools", "Tools and test leads are out of the panel."),
            new("covers", "Covers are on, and the button operators still reach their contacts with the covers on."),
            new("locks", Locks(job) + " off, and everyone who worked here knows that it is switched on."),
        ];
    }

    private static string Locks(JobState job) =>
        job.Locks.IsEmpty ? "Personal locks are"
        : job.Locks.Count > 1 ? $"The locks of {string.Join(" and ", job.Locks)} are"
        : $"The lock of {job.Locks.First()} is";
}
