using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Jobs in the database: reading them. What is written to their journals passes <see cref="JournalDoor"/>.</summary>
public sealed class JobStore(FehlerDb db, CircuitStore circuits)
{
    /// <summary>A job with its journal; null when there is none of this id.</summary>
    /// <exception cref="SetAsideException">Its circuit version cannot be read any more.</exception>
    public async Task<OpenedJob?> FindAsync(Guid id, CancellationToken cancellation)
    {
        var found = await db
            .Jobs.IgnoreQueryFilters()
            .AsNoTracking()
            .Where(j => j.Id == id)
            .Select(j => new
            {
                Row = j,
                j.CircuitVersion!.Number,
                Entries = j.Journal.OrderBy(r => r.Sequence).Select(r => new { r.Sequence, r.Json }).ToList(),
            })
            .FirstOrDefaultAsync(cancellation);
        if (found is null)
        {
            return null;
        }

        var compiled = await circuits.CompiledAsync(found.Row.CircuitVersionId, cancellation);
        var read = found.Entries.Select(e => (e.Sequence, Entry: ReadOrNull(e.Json))).ToList();
        return new OpenedJob(
            found.Row,
            found.Number,
            JobState.Of(compiled, read.Where(r => r.Entry is not null).Select(r => r.Entry!)),
            [.. read.Where(r => r.Entry is null).Select(r => r.Sequence)]
        );
    }

    /// <summary>A page of the logbook, or of one circuit's jobs.</summary>
    public Task<Page<JobListItem>> ListAsync(ListQuery query, JobFilter filter, CancellationToken cancellation)
    {
        var rows = Meant(query, filter);
        rows = (query.Sort, query.Descending) switch
        {
            ("circuitTag", false) => rows.OrderBy(j => j.Circuit!.Tag).ThenByDescending(j => j.OpenedAt),
            ("circuitTag", true) => rows.OrderByDescending(j => j.Circuit!.Tag).ThenByDescending(j => j.OpenedAt),
            ("title", false) => rows.OrderBy(j => j.Title),
            ("title", true) => rows.OrderByDescending(j => j.Title),
            ("foundText", false) => rows.OrderBy(j => j.FoundText == null).ThenBy(j => j.FoundText),
            ("foundText", true) => rows.OrderBy(j => j.FoundText == null).ThenByDescending(j => j.FoundText),
            ("outcome", false) => rows.OrderBy(j => j.Outcome).ThenByDescending(j => j.OpenedAt),
            ("outcome", true) => rows.OrderByDescending(j => j.Outcome).ThenByDescending(j => j.OpenedAt),
            ("entries", false) => rows.OrderBy(j => j.EntryCount).ThenByDescending(j => j.OpenedAt),
            ("entries", true) => rows.OrderByDescending(j => j.EntryCount).ThenByDescending(j => j.OpenedAt),
            ("openedAt", false) => rows.OrderBy(j => j.OpenedAt),
            ("openedAt" or "", _) => rows.OrderByDescending(j => j.OpenedAt),
            _ => throw query.UnknownSort("openedAt, circuitTag, title, foundText, outcome or entries"),
        };
        return query.PageAsync(
            rows,
            j => new JobListItem(
                j.Id,
                j.CircuitId,
                j.Circuit!.Tag,
                j.Circuit.Title,
                j.Circuit.Area,
                j.Title,
                j.OpenedAt,
                j.ClosedAt,
                j.Outcome,
                j.FoundUnit,
                j.FoundText,
                j.EntryCount,
                j.Origin
            ),
            cancellation
        );
    }

    private IQueryable<JobRow> Meant(ListQuery query, JobFilter filter) =>
        filter.Of(query.Matching(db.Jobs.AsNoTracking(), word => j => EF.Functions.Like(j.SearchText, word, "\\")));

    /// <summary>
    /// How a circuit was left by the last job on it, when that was handed over with something left behind; null otherwise.
    /// </summary>
    public async Task<HandedOver?> HandedOverAsync(Guid circuit, CancellationToken cancellation)
    {
        var last = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == circuit)
            .OrderByDescending(j => j.OpenedAt)
            .Select(j => new { j.Id, j.Outcome })
            .FirstOrDefaultAsync(cancellation);
        if (
            last?.Outcome != nameof(CloseOutcome.HandedOver)
            || await FindAsync(last.Id, cancellation)
                is not { State: { Closing: { } closing, Leftovers: { IsEmpty: false } leftovers } } job
        )
        {
            return null;
        }

        return new HandedOver(job.Row.Id, closing.Who, closing.At, closing.Text, leftovers);
    }

    /// <summary>Every reading of the jobs that a filter leaves, job by job from the oldest, without holding more than one page of them.</summary>
    public async IAsyncEnumerable<ReadingLine> ReadingsAsync(
        ListQuery query,
        JobFilter filter,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancellation
    )
    {
        const int page = 100;
        for (var first = 0; ; first += page)
        {
            var jobs = await Meant(query, filter)
                .OrderBy(j => j.OpenedAt)
                .ThenBy(j => j.Id)
                .Skip(first)
                .Take(page)
                .Select(j => new
                {
                    j.Id,
                    j.Circuit!.Tag,
                    j.Title,
                    Entries = j
                        .Journal.Where(r => r.Kind == nameof(Reading) || r.Kind == nameof(StruckOut))
                        .OrderBy(r => r.Sequence)
                        .Select(r => r.Json)
                        .ToList(),
                })
                .ToListAsync(cancellation);
            foreach (var job in jobs)
            {
                var entries = job.Entries.Select(ReadOrNull).ToList();
                var struck = entries.OfType<StruckOut>().Select(s => s.Entry).ToHashSet();
                foreach (var reading in entries.OfType<Reading>())
                {
                    yield return new ReadingLine(job.Tag, job.Id, job.Title, reading, struck.Contains(reading.Id));
                }
            }

            if (jobs.Count < page)
            {
                yield break;
            }
        }
    }

    /// <summary>What the logbook can be narrowed to: areas that have jobs, and people who made entries.</summary>
    public async Task<JobChoices> ChoicesAsync(CancellationToken cancellation) =>
        new(
            await db.Jobs.Select(j => j.Circuit!.Area).Distinct().OrderBy(a => a).Take(MostChoices).ToListAsync(cancellation),
            await db
                .Journal.Where(r => r.Who != "" && db.Jobs.Any(j => j.Id == r.JobId))
                .Select(r => r.Who)
                .Distinct()
                .OrderBy(w => w)
                .Take(MostChoices)
                .ToListAsync(cancellation)
        );

    internal const int MostChoices = 500;

    private const int MostRepairs = 2_000,
        MostParts = 12;

    /// <summary>
    /// Parts that repairs used up here, those of units with the same letters (KM, F, S) first, then by how often: what is likely to be used
    /// again.
    /// </summary>
    /// <param name="unit">What is being repaired; empty when it is not known.</param>
    /// <param name="cancellation">Cancels it.</param>
    public async Task<List<string>> PartsAsync(string unit, CancellationToken cancellation)
    {
        var repairs = await db
            .Journal.AsNoTracking()
            .Where(r => r.Kind == nameof(Repair) && db.Jobs.Any(j => j.Id == r.JobId))
            .OrderByDescending(r => r.At)
            .Select(r => r.Json)
            .Take(MostRepairs)
            .ToListAsync(cancellation);
        var letters = Letters(unit);
        return
        [
            .. repairs
                .Select(ReadOrNull)
                .OfType<Repair>()
                .SelectMany(r => r.Parts.Select(p => (Part: p.Trim(), IsAlike: Letters(r.Unit) == letters)))
                .Where(p => p.Part.Length > 0)
                .GroupBy(p => p.Part, StringComparer.OrdinalIgnoreCase)
                .OrderByDescending(g => g.Count(p => p.IsAlike))
                .ThenByDescending(g => g.Count())
                .Select(g => g.Key)
                .Take(MostParts),
        ];
    }

    /// <summary>The letters that a tag begins with; empty for a conductor.</summary>
    private static string Letters(string unit) => string.Concat(unit.TakeWhile(char.IsAsciiLetter));

    /// <summary>Number of entries; null when there is no such job.</summary>
    public async Task<int?> SequenceAsync(Guid id, CancellationToken cancellation) =>
        await db.Jobs.IgnoreQueryFilters().Where(j => j.Id == id).Select(j => (int?)j.EntryCount).FirstOrDefaultAsync(cancellation);

    /// <summary>Whether a job is an exercise on a simulated panel.</summary>
    public Task<bool> IsExerciseAsync(Guid id, CancellationToken cancellation) =>
        db.Jobs.IgnoreQueryFilters().AnyAsync(j => j.Id == id && j.Exercise != null, cancellation);

    /// <summary>The newest open jobs.</summary>
    public Task<List<Guid>> OpenAsync(int most, CancellationToken cancellation) =>
        db.Jobs.Where(j => j.ClosedAt == null).OrderByDescending(j => j.OpenedAt).Select(j => j.Id).Take(most).ToListAsync(cancellation);

    /// <summary>An entry that cannot be read is set aside; it never stops the rest of its job.</summary>
    internal static JournalEntry? ReadOrNull(string json)
    {
        try
        {
            return JournalJson.Read(json);
        }
        catch (Exception e) when (e is System.Text.Json.JsonException or NotSupportedException or FormatException)
        {
            return null;
        }
    }
}
