using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>What the door says of an entry.</summary>
public abstract record DoorAnswer
{
    /// <summary>It is on disk.</summary>
    /// <param name="Job">The job with it.</param>
    /// <param name="Sequence">Its place in the journal.</param>
    /// <param name="WasKnown">It had been recorded before: sent again after a lost answer.</param>
    public sealed record Recorded(OpenedJob Job, int Sequence, bool WasKnown) : DoorAnswer;

    /// <summary>It was not taken; says why and what to do.</summary>
    /// <param name="Reason">In words for a person.</param>
    /// <param name="IsConflict">The journal has moved on (closed, or another entry has this id), rather than the entry being wrong by
    /// itself.</param>
    public sealed record Refused(string Reason, bool IsConflict) : DoorAnswer;

    /// <summary>There is no such job.</summary>
    public sealed record NoSuchJob : DoorAnswer;
}

/// <summary>What carrying a job in from elsewhere came to.</summary>
/// <param name="Entries">Entries that were added.</param>
/// <param name="SetAside">Entries that were not taken, each with its reason.</param>
public sealed record CarriedJob(int Entries, IReadOnlyList<string> SetAside);

/// <summary>
/// The one door to every journal, for the interface, programs, bundles and the demo alike: checks an entry by the rules of the core, writes
/// it,
/// and brings what lists and learning need up to date in the same transaction.
/// </summary>
public sealed partial class JournalDoor(
    FehlerDb db,
    JobStore jobs,
    CircuitStore circuits,
    FollowedValues followed,
    Turns turns,
    JobNews news,
    Maker maker,
    TimeProvider time
)
{
    /// <summary>
    /// Opens a job on the newest version of a circuit with its complaint as the first entry; null when there is no such circuit.
    /// </summary>
    /// <exception cref="RefusedException">The complaint cannot be taken.</exception>
    /// <param name="circuitId">The circuit.</param>
    /// <param name="complaint">What was reported, in words; the title of the job.</param>
    /// <param name="reported">What was reported as evidence; recorded after the complaint, as told by whoever called.</param>
    /// <param name="who">Who opens it.</param>
    /// <param name="cancellation">Cancels it.</param>
    public Task<OpenedJob?> OpenAsync(
        Guid circuitId,
        string complaint,
        IReadOnlyList<JournalEntry> reported,
        string who,
        CancellationToken cancellation
    ) => OpenAsync(circuitId, complaint, reported, who, Guid.CreateVersion7(), time.GetUtcNow(), cancellation);

    /// <summary>
    /// Opens a job that was begun at a time of its own under an id of its own (without a connection; the demo's history). One that is here
    /// already is answered as it stands.
    /// </summary>
    /// <exception cref="RefusedException">The id is that of a job on another circuit, or the complaint cannot be taken.</exception>
    public Task<OpenedJob?> OpenAsync(
        Guid circuitId,
        string complaint,
        IReadOnlyList<JournalEntry> reported,
        string who,
        Guid id,
        DateTimeOffset at,
        CancellationToken cancellation
    ) =>
        turns.InTurnAsync(
            TurnOf(id),
            async () =>
                await jobs.FindAsync(id, cancellation) is { } known
                    ? known.Row.CircuitId == circuitId
                        ? known
                        : throw new RefusedException("Another job has this id already; give every job an id of its own.")
                    : await OpenInTurnAsync(circuitId, complaint, reported, who, id, at, cancellation),
            cancellation
        );

    private async Task<OpenedJob?> OpenInTurnAsync(
        Guid circuitId,
        string complaint,
        IReadOnlyList<JournalEntry> reported,
        string who,
        Guid id,
        DateTimeOffset at,
        CancellationToken cancellation
    )
    {
        if (await circuits.FindAsync(circuitId, cancellation) is not { } found)
        {
            return null;
        }

        var job = new JobRow
        {
            Id = id,
            CircuitId = circuitId,
            CircuitVersionId = found.VersionId,
            Title = complaint.Trim(),
            OpenedAt = at,
        };
        var left = await jobs.HandedOverAsync(circuitId, cancellation);
        await BeginAsync(
            job,
            found.Compiled,
            [.. EntryTaking.FirstEntries(complaint, left?.Leftovers, reported)],
            new Stamp(at, who.Trim()),
            cancellation
        );
        return await jobs.FindAsync(job.Id, cancellation);
    }

    /// <summary>Records an entry. When it answers that it is recorded it is on disk.</summary>
    public Task<DoorAnswer> AppendAsync(Guid jobId, JournalEntry entry, CancellationToken cancellation) =>
        turns.InTurnAsync(TurnOf(jobId), () => AppendInTurnAsync(jobId, entry, cancellation), cancellation);

    private static string TurnOf(Guid job) => $"job {job}";

    private async Task<DoorAnswer> AppendInTurnAsync(Guid jobId, JournalEntry entry, CancellationToken cancellation)
    {
        if (await jobs.FindAsync(jobId, cancellation) is not { } job)
        {
            return new DoorAnswer.NoSuchJob();
        }

        if (await KnownAsync(job, entry, cancellation) is { } known)
        {
            return known;
        }

        var now = time.GetUtcNow();
        var (exercise, answer) = Practised(job, entry);
        if (answer is DoorAnswer.Refused ended)
        {
            return ended;
        }

        if (exercise?.Answer is { Stops: { } stops })
        {
            await StopAsync(job, exercise.Value.Exercise, stops, entry.Who, cancellation);
            return new DoorAnswer.Refused($"Stopped: {stops}", true);
        }

        entry = exercise?.Answer.Entry ?? entry;
        if (entry is Photo photo && !await db.Photos.AnyAsync(p => p.Id == photo.Picture && p.JobId == jobId, cancellation))
        {
            return new DoorAnswer.Refused("Send the picture itself to the job's photos; the entry follows from it.", false);
        }

        var taken = EntryTaking.Take(job.State, entry, NextSequence(job), now);
        if (taken.Entry is null)
        {
            return new DoorAnswer.Refused(taken.Refused!, job.State.Closing is not null);
        }

        var stamped = taken.Entry with { MadeOn = maker.Device };
        var row = await db.Jobs.IgnoreQueryFilters().FirstAsync(j => j.Id == jobId, cancellation);
        var after = JobState.Of(job.Compiled, job.State.Entries.Append(stamped));
        db.Journal.Add(ToRow(jobId, stamped));
        Project(row, after, stamped.Sequence);
        if (exercise is { Answer.Mistake: { } mistake } practised)
        {
            row.Exercise = Written(practised.Exercise with { Mistakes = practised.Exercise.Mistakes.Add(mistake) });
        }

        await SaveAsync(row, after, stamped is Finding or Closed or StruckOut, cancellation);
        news.Tell(jobId, row.EntryCount);
        return new DoorAnswer.Recorded(job with { Row = row, State = after }, stamped.Sequence, false);
    }

    /// <summary>An entry that is here already: the same one again is answered as before, another one under its id is a conflict.</summary>
    private async Task<DoorAnswer?> KnownAsync(OpenedJob job, JournalEntry entry, CancellationToken cancellation)
    {
        if (
            entry.Id == Guid.Empty
            || await db.Journal.AsNoTracking().FirstOrDefaultAsync(r => r.Id == entry.Id, cancellation) is not { } row
        )
        {
            return null;
        }

        if (job.Row.Exercise is not null && row.JobId == job.Row.Id)
        {
            // What was measured is the panel's and not what was sent.
            return new DoorAnswer.Recorded(job, row.Sequence, true);
        }

        var isSame =
            row.JobId == job.Row.Id
            && EntryTaking.Understand(entry, out var meant) is null
            && Bare(JournalJson.Read(row.Json)) == Bare(meant);
        return isSame
            ? new DoorAnswer.Recorded(job, row.Sequence, true)
            : new DoorAnswer.Refused("Another entry has this id already; give every entry an id of its own.", true);
    }

    /// <summary>An entry without what the door stamps on it.</summary>
    private static string Bare(JournalEntry entry) =>
        JournalJson.Write(
            entry with
            {
                Id = Guid.Empty,
                Sequence = 0,
                At = default,
                Received = default,
                Origin = "",
                MadeOn = "",
                Second = "",
            }
        );

    private static int NextSequence(OpenedJob job) => Math.Max(job.Row.EntryCount, job.State.Entries.Length + job.SetAside.Length) + 1;

    /// <summary>When and by whom the first entries of a job are made.</summary>
    private sealed record Stamp(DateTimeOffset At, string Who);

    private async Task BeginAsync(
        JobRow job,
        CompiledCircuit compiled,
        IReadOnlyList<JournalEntry> entries,
        Stamp by,
        CancellationToken cancellation
    )
    {
        var state = EntryTaking.Open(JobState.Of(compiled, []), job.Id, entries, by.At, by.Who, time.GetUtcNow());
        db.Jobs.Add(job);
        foreach (var entry in state.Entries)
        {
            db.Journal.Add(ToRow(job.Id, entry with { MadeOn = maker.Device }));
        }

        Project(job, state, state.Entries.Length);
        await SaveAsync(job, state, true, cancellation);
    }

    /// <summary>Brings what lists and learning need up to date with the journal.</summary>
    internal static void Project(JobRow row, JobState state, int entries)
    {
        row.EntryCount = entries;
        (row.ClosedAt, row.Outcome) = (state.Closing?.At, state.Closing?.Outcome.ToString());
        (row.FoundUnit, row.FoundText, row.FoundFault) = (state.LastFinding?.Unit, state.LastFinding?.Text, state.LastFinding?.Fault);
        row.FoundKind =
            state.LastFinding is { Fault.Length: > 0 } finding && state.Compiled.Faults.Find(finding.Fault) is { } mode
                ? History.KeyOf(state.Circuit, mode)
                : null;
        var found = row.FoundFault is { Length: > 0 } fault ? state.Compiled.Faults.Find(fault) : null;
        row.FoundCause = row.FoundKind is { } kind ? CauseOf(kind) : null;
        row.FoundAt = state.LastFinding?.At;
        row.MinutesDown = state.Closing?.MinutesDown ?? 0;
        row.ReadingCount = state.Valid.Count(e => e is Reading);
        row.Told = string.Join(',', state.Valid.OfType<Told>().Select(t => t.What).Distinct());
        row.Tripped = found?.AskWhy is not null;
        row.OwnOhms = state.Closing is { Outcome: CloseOutcome.RepairedAndProved }
            ? JsonSerializer.Serialize(OwnResistances.Of(state).GroupBy(o => o.Pair).ToDictionary(g => g.Key, g => g.Last().Ohms.Value))
            : null;
        row.SearchText = string.Join(
                ' ',
                state.Circuit.Tag,
                state.Circuit.Title,
                state.Circuit.Area,
                row.Title,
                row.FoundUnit,
                row.FoundText,
                state.Circuit.Enclosure,
                row.OpenedAt.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                string.Join(' ', state.Repairs.Select(r => $"{r.Unit} {r.Action} {r.Cause} {string.Join(' ', r.Parts)}")),
                string.Join(' ', state.Valid.Select(e => e.Who).Distinct()),
                state.Closing is { } closing ? $"{EntryWords.Of(closing.Outcome)} {closing.Text}" : "open"
            )
            .ToLowerInvariant();
    }

    /// <summary>What failed without the terminals it failed at: "1-2-welded" and "3-4-welded" are one cause.</summary>
    private static string CauseOf(string kind) =>
        AtTerminals().Replace(kind[(kind.IndexOf('/', StringComparison.Ordinal) + 1)..], "").Trim('-');

    [GeneratedRegex("(?<=^|-)[A-Z0-9.~]+(-|$)")]
    private static partial Regex AtTerminals();

    private async Task SaveAsync(JobRow job, JobState state, bool changesCircuit, CancellationToken cancellation)
    {
        if (!changesCircuit)
        {
            await db.SaveChangesAsync(cancellation);
            return;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await db.SaveChangesAsync(cancellation);
        var circuit = await db.Circuits.FirstAsync(c => c.Id == job.CircuitId, cancellation);
        var mine = db.Jobs.Where(j => j.CircuitId == job.CircuitId);
        circuit.JobCount = await mine.CountAsync(cancellation);
        circuit.OpenJobId = await mine.Where(j => j.ClosedAt == null)
            .OrderByDescending(j => j.OpenedAt)
            .Select(j => (Guid?)j.Id)
            .FirstOrDefaultAsync(cancellation);
        circuit.LastJobAt = await mine.MaxAsync(j => (DateTimeOffset?)j.OpenedAt, cancellation);
        circuit.LastFound = await mine.Where(j => j.FoundText != null)
            .OrderByDescending(j => j.OpenedAt)
            .Select(j => j.FoundText)
            .FirstOrDefaultAsync(cancellation);
        if (state.Closing is not null && job.Exercise is null)
        {
            await followed.DrawAsync(circuit, job, state, cancellation);
        }

        circuit.SearchText = string.Join(' ', circuit.Tag, circuit.Title, circuit.Area, circuit.Enclosure, circuit.LastFound)
            .ToLowerInvariant();
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
    }

    private static JournalRow ToRow(Guid job, JournalEntry entry) =>
        new()
        {
            Id = entry.Id,
            JobId = job,
            Sequence = entry.Sequence,
            At = entry.At,
            Received = entry.Received,
            Who = entry.Who,
            Kind = entry.GetType().Name,
            Json = JournalJson.Write(entry),
        };
}
