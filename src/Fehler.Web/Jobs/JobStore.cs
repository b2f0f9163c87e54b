using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Data;
using Fehler.Web.Circuits;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Jobs;

/// <summary>A job as loaded: its row, its circuit version and the state its journal amounts to.</summary>
internal sealed record OpenedJob(JobRow Row, CompiledCircuit Compiled, JobState State)
{
    public Circuit Circuit => Compiled.Circuit;
};

/// <summary>Jobs and their journals in the database.</summary>
internal sealed class JobStore(FehlerDb db, CircuitCache cache, TimeProvider time)
{
    /// <summary>Older jobs than the latest so many say little about what fails now.</summary>
    private const int MostLearned = 500;

    public async Task<OpenedJob?> FindAsync(Guid id, CancellationToken cancellation)
    {
        var row = await db.Jobs.AsNoTracking().Include(j => j.CircuitVersion).Include(j => j.Journal).FirstOrDefaultAsync(j => j.Id == id, cancellation);
        if (row is null)
        {
            return null;
        }

        var compiled = cache.Get(row.CircuitVersionId, row.CircuitVersion!.Json);
        return new OpenedJob(row, compiled, JobState.Of(compiled, row.Journal.Select(ToEntry)));
    }

    public async Task<List<JobListItem>> ListAsync(Guid? circuit, CancellationToken cancellation) =>
        await db.Jobs.AsNoTracking().Where(j => circuit == null || j.CircuitId == circuit).OrderByDescending(j => j.OpenedAt)
            .Select(j => new JobListItem(j.Id, j.CircuitId, j.Circuit!.Tag, j.Circuit.Title, j.Circuit.Area, j.Title, j.OpenedAt, j.ClosedAt, j.Outcome, j.FoundUnit, j.FoundText, j.Journal.Count))
            .ToListAsync(cancellation);

    /// <summary>What was found, repaired and proved on jobs that were opened before this one.</summary>
    public async Task<History> HistoryAsync(JobRow job, CancellationToken cancellation)
    {
        var done = nameof(CloseOutcome.RepairedAndProved);
        var jobs = await db.Jobs.AsNoTracking().Include(j => j.CircuitVersion).Include(j => j.Journal.Where(r => r.Kind == nameof(Finding)))
            .Where(j => j.Id != job.Id && j.Outcome == done && j.OpenedAt < job.OpenedAt).OrderByDescending(j => j.OpenedAt).Take(MostLearned).ToListAsync(cancellation);
        var found = jobs.Where(j => j.Journal.Count > 0)
            .Select(j => (j.CircuitId, Compiled: cache.Get(j.CircuitVersionId, j.CircuitVersion!.Json), Fault: ((Finding)ToEntry(j.Journal.MaxBy(r => r.Sequence)!)).Fault))
            .Select(x => (x.CircuitId, x.Compiled.Circuit, Mode: x.Compiled.Faults.Find(x.Fault))).Where(x => x.Mode is not null).ToList();
        static ImmutableSortedDictionary<string, int> Count(IEnumerable<string> keys) =>
            keys.GroupBy(k => k).ToImmutableSortedDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);
        return new History(
            Count(found.Where(x => x.CircuitId == job.CircuitId).Select(x => x.Mode!.Id)),
            Count(found.Where(x => x.CircuitId != job.CircuitId).Select(x => History.KeyOf(x.Circuit, x.Mode!))))
        {
            Ohms = await OwnOhmsAsync(job, cancellation),
            Years = await YearsAsync(job, cancellation),
        };
    }

    /// <summary>The last resistances of coils and windings read on this circuit in a job that ended repaired and proved, unless that unit was repaired after.</summary>
    private async Task<ImmutableSortedDictionary<string, double>> OwnOhmsAsync(JobRow job, CancellationToken cancellation)
    {
        var done = nameof(CloseOutcome.RepairedAndProved);
        var jobs = await db.Jobs.AsNoTracking().Include(j => j.CircuitVersion).Include(j => j.Journal).Where(j => j.Id != job.Id && j.CircuitId == job.CircuitId && j.Outcome == done && j.OpenedAt < job.OpenedAt)
            .OrderBy(j => j.OpenedAt).Take(MostLearned).ToListAsync(cancellation);
        var ohms = ImmutableSortedDictionary.CreateBuilder<string, double>(StringComparer.Ordinal);
        foreach (var earlier in jobs)
        {
            var state = JobState.Of(cache.Get(earlier.CircuitVersionId, earlier.CircuitVersion!.Json), earlier.Journal.Select(ToEntry));
            foreach (var (pair, value) in OwnResistances.Of(state))
            {
                ohms[pair] = value;
            }
        }

        return ohms.ToImmutable();
    }

    /// <summary>Years since each device was fitted, by the description or by the last repair that replaced something in it.</summary>
    private async Task<ImmutableSortedDictionary<string, double>> YearsAsync(JobRow job, CancellationToken cancellation)
    {
        var version = await db.CircuitVersions.AsNoTracking().FirstAsync(v => v.Id == job.CircuitVersionId, cancellation);
        var years = cache.Get(version.Id, version.Json).Circuit.Devices.Where(d => d[DeviceKind.FittedYear] > 0)
            .ToDictionary(d => d.Tag, d => Math.Max(0, job.OpenedAt.Year - d[DeviceKind.FittedYear]));
        var repairs = await db.Jobs.AsNoTracking().Where(j => j.CircuitId == job.CircuitId && j.Id != job.Id)
            .SelectMany(j => j.Journal.Where(r => r.Kind == nameof(Repair))).ToListAsync(cancellation);
        foreach (var repair in repairs.Select(ToEntry).OfType<Repair>().Where(r => r.Parts.Length > 0 && r.At < job.OpenedAt).OrderBy(r => r.At))
        {
            years[repair.Unit] = (job.OpenedAt - repair.At).TotalDays / 365.25;
        }

        return years.ToImmutableSortedDictionary(StringComparer.Ordinal);
    }

    /// <summary>Number of entries; null when there is no such job.</summary>
    public async Task<int?> SequenceAsync(Guid id, CancellationToken cancellation) =>
        await db.Jobs.AnyAsync(j => j.Id == id, cancellation) ? await db.Journal.CountAsync(r => r.JobId == id, cancellation) : null;

    /// <summary>Opens a job on a circuit version with its complaint as the first entry.</summary>
    public async Task<Guid> OpenAsync(Guid circuitId, Guid versionId, string complaint, string who, DateTimeOffset? at, CancellationToken cancellation)
    {
        var now = at ?? time.GetUtcNow();
        var job = new JobRow { Id = Guid.CreateVersion7(), CircuitId = circuitId, CircuitVersionId = versionId, Title = complaint, OpenedAt = now };
        db.Jobs.Add(job);
        db.Journal.Add(ToRow(job.Id, new Complaint(complaint) { Id = Guid.CreateVersion7(), Sequence = 1, At = now, Who = who }));
        await db.SaveChangesAsync(cancellation);
        return job.Id;
    }

    /// <summary>Whether this entry is in the journal already: a client that got no answer sends it again.</summary>
    public async Task<int?> KnownAsync(Guid jobId, Guid entryId, CancellationToken cancellation) =>
        await db.Journal.Where(r => r.JobId == jobId && r.Id == entryId).Select(r => (int?)r.Sequence).FirstOrDefaultAsync(cancellation);

    /// <summary>Writes an entry. When this returns it is on disk.</summary>
    public async Task<JournalEntry> AppendAsync(OpenedJob job, JournalEntry entry, CancellationToken cancellation)
    {
        var stamped = entry with
        {
            Id = entry.Id == Guid.Empty ? Guid.CreateVersion7() : entry.Id,
            Sequence = job.State.Entries.Length + 1,
            At = entry.At == default ? time.GetUtcNow() : entry.At,
        };
        db.Journal.Add(ToRow(job.Row.Id, stamped));
        var row = await db.Jobs.FirstAsync(j => j.Id == job.Row.Id, cancellation);
        var after = JobState.Of(job.Compiled, job.State.Entries.Append(stamped));
        row.ClosedAt = after.Closing?.At;
        row.Outcome = after.Closing?.Outcome.ToString();
        row.FoundUnit = after.LastFinding?.Unit;
        row.FoundText = after.LastFinding?.Text;
        await db.SaveChangesAsync(cancellation);
        return stamped;
    }

    private static JournalRow ToRow(Guid job, JournalEntry entry) => new()
    {
        Id = entry.Id,
        JobId = job,
        Sequence = entry.Sequence,
        At = entry.At,
        Who = entry.Who,
        Kind = entry.GetType().Name,
        Json = JournalJson.Write(entry),
    };

    private static JournalEntry ToEntry(JournalRow row) => JournalJson.Read(row.Json);
}
