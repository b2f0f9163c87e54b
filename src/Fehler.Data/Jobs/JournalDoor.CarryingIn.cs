using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <content>A job that was recorded elsewhere is carried in.</content>
public sealed partial class JournalDoor
{
    /// <summary>
    /// Carries a job in that was recorded elsewhere. Its entries pass the same rules; a closed job is never added to; and what is added to
    /// an
    /// open one ends with a note that the state of the circuit is not known here.
    /// </summary>
    /// <param name="record">The job as it was: id, circuit and version ids of this database, title, time.</param>
    /// <param name="entries">Its journal in order.</param>
    /// <param name="cancellation">Cancels it.</param>
    public Task<CarriedJob> CarryInAsync(JobRow record, IReadOnlyList<JournalEntry> entries, CancellationToken cancellation) =>
        turns.InTurnAsync(TurnOf(record.Id), () => CarryInTurnAsync(record, entries, cancellation), cancellation);

    private async Task<CarriedJob> CarryInTurnAsync(JobRow record, IReadOnlyList<JournalEntry> entries, CancellationToken cancellation)
    {
        var here = await jobs.FindAsync(record.Id, cancellation);
        if (here is not null && here.State.Closing is not null)
        {
            var fresh = entries.Count(e => here.State.Entries.All(h => h.Id != e.Id));
            return new CarriedJob(0, fresh == 0 ? [] : [$"{fresh} entries for “{here.Row.Title}”: the job is closed here."]);
        }

        var compiled = await circuits.CompiledAsync(record.CircuitVersionId, cancellation);
        var (known, state) = here is null
            ? ([], JobState.Of(compiled, []))
            : (here.State.Entries.Select(e => e.Id).ToHashSet(), here.State);
        var taken = await db
            .Journal.Where(r => entries.Select(e => e.Id).Contains(r.Id) && r.JobId != record.Id)
            .Select(r => r.Id)
            .ToListAsync(cancellation);
        var (added, setAside, now) = (new List<JournalEntry>(), new List<string>(), time.GetUtcNow());
        foreach (var entry in entries.Where(e => !known.Contains(e.Id) && e is not CarriedIn))
        {
            // What was true of the circuit over there is no statement about the one here: an open job does not take its safety over.
            var reason =
                taken.Contains(entry.Id) ? "its id belongs to another job"
                : here is not null && entry is (Isolated or ProvedDead or Energised or LiveWorkAcknowledged)
                    ? "a safety state cannot be carried into an open job"
                : EntryRules.Refuse(entry, now) ?? state.RefuseCarried(entry);
            if (reason is not null)
            {
                setAside.Add($"“{EntryWords.Of(entry)}”: {reason}");
                continue;
            }

            added.Add(entry with { Sequence = state.Entries.Length + 1, Received = now, Origin = record.Origin });
            state = state.With(added[^1]);
        }

        if (added.Count > 0 && state.Closing is null)
        {
            added.Add(
                new CarriedIn(record.Origin)
                {
                    Id = Guid.CreateVersion7(),
                    Sequence = state.Entries.Length + 1,
                    At = now,
                    Received = now,
                    Origin = record.Origin,
                }
            );
            state = state.With(added[^1]);
        }

        if (added.Count == 0)
        {
            return new CarriedJob(0, setAside);
        }

        var row = here is null
            ? db.Jobs.Add(record).Entity
            : await db.Jobs.IgnoreQueryFilters().FirstAsync(j => j.Id == record.Id, cancellation);
        db.Journal.AddRange(added.Select(e => ToRow(record.Id, e)));
        Project(row, state, state.Entries.Length);
        await SaveAsync(row, state, true, cancellation);
        news.Tell(record.Id, row.EntryCount);
        db.ChangeTracker.Clear();
        return new CarriedJob(added.Count, setAside);
    }
}
