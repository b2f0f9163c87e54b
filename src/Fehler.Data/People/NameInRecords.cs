using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Where a person's name stands in the records, and putting another in its place when the person asks for it.</summary>
internal static class NameInRecords
{
    /// <summary>Replaces a name in journals, upkeep, follow-ups, bench checks, shutdown lists and the security log.</summary>
    public static async Task ReplaceAsync(FehlerDb db, string name, string other, CancellationToken cancellation)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var jobs = new HashSet<Guid>();
        await foreach (var row in db.Journal.Where(r => r.Who == name || r.Json.Contains(name)).AsAsyncEnumerable())
        {
            var entry = JournalJson.Read(row.Json);
            if (entry.Who == name || entry.Second == name)
            {
                row.Json = JournalJson.Write(
                    entry with
                    {
                        Who = entry.Who == name ? other : entry.Who,
                        Second = entry.Second == name ? other : entry.Second,
                    }
                );
                row.Who = entry.Who == name ? other : entry.Who;
                jobs.Add(row.JobId);
            }
        }

        await db.SaveChangesAsync(cancellation);
        var (small, replaced) = (name.ToLowerInvariant(), other.ToLowerInvariant());
        foreach (var some in jobs.Chunk(500))
        {
            await db
                .Jobs.IgnoreQueryFilters()
                .Where(j => some.Contains(j.Id))
                .ExecuteUpdateAsync(s => s.SetProperty(j => j.SearchText, j => j.SearchText.Replace(small, replaced)), cancellation);
        }

        await db.Work.Where(w => w.Who == name).ExecuteUpdateAsync(s => s.SetProperty(w => w.Who, other), cancellation);
        await db.BenchChecks.Where(b => b.Who == name).ExecuteUpdateAsync(s => s.SetProperty(b => b.Who, other), cancellation);
        await db.Shutdowns.Where(x => x.Who == name).ExecuteUpdateAsync(s => s.SetProperty(x => x.Who, other), cancellation);
        await db.FollowUps.Where(f => f.Who == name).ExecuteUpdateAsync(s => s.SetProperty(f => f.Who, other), cancellation);
        await db.FollowUps.Where(f => f.DoneBy == name).ExecuteUpdateAsync(s => s.SetProperty(f => f.DoneBy, other), cancellation);
        await db.SecurityEvents.Where(e => e.Who == name).ExecuteUpdateAsync(s => s.SetProperty(e => e.Who, other), cancellation);
        await db.SecurityEvents.Where(e => e.By == name).ExecuteUpdateAsync(s => s.SetProperty(e => e.By, other), cancellation);
        await db.Devices.Where(d => d.TrustedBy == name).ExecuteUpdateAsync(s => s.SetProperty(d => d.TrustedBy, other), cancellation);
        await transaction.CommitAsync(cancellation);
    }
}
