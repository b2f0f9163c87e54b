using System.IO.Compression;
using System.Text.Json;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>
/// Circuits with their whole history as one file: JSON in a zip (docs/formats/bundle.md). Everything has its own id, so what is there
/// already is recognised and taking a bundle in twice changes nothing. Journals come in by <see cref="JournalDoor"/>, like everything else.
/// </summary>
public sealed partial class Bundle(
    FehlerDb db,
    CompiledCircuits compiled,
    JournalDoor door,
    CircuitStore circuits,
    WorkStore work,
    FollowedValues followed,
    Turns turns
)
{
    public const string FormatName = "fehler-bundle";

    /// <summary>Writes a bundle of one circuit, or of all, as it goes along.</summary>
    public async Task WriteAsync(Stream target, Guid? circuit, CancellationToken cancellation)
    {
        await using var zip = await ZipArchive.CreateAsync(
            target,
            ZipArchiveMode.Create,
            leaveOpen: true,
            entryNameEncoding: null,
            cancellation
        );
        await AddAsync(zip, "bundle.json", new BundleManifest(FormatName, 1), cancellation);
        var ids = await db
            .Circuits.AsNoTracking()
            .Where(c => circuit == null || c.Id == circuit)
            .OrderBy(c => c.Tag)
            .Select(c => c.Id)
            .ToListAsync(cancellation);
        foreach (var id in ids)
        {
            await WriteCircuitAsync(zip, id, cancellation);
        }
    }

    private async Task WriteCircuitAsync(ZipArchive zip, Guid id, CancellationToken cancellation)
    {
        var row = await db.Circuits.AsNoTracking().Include(c => c.Versions).FirstAsync(c => c.Id == id, cancellation);
        var versions = row.Versions.OrderBy(v => v.Number).Select(v => (Row: v, File: ParsedOrNull(v.Json))).Where(v => v.File is not null);
        await AddAsync(
            zip,
            $"circuits/{row.Id}.json",
            new BundledCircuit(
                row.Id,
                row.Tag,
                row.CreatedAt,
                [.. versions.Select(v => new BundledVersion(v.Row.Id, v.Row.Number, v.Row.CreatedAt, v.File!.Value))]
            ),
            cancellation
        );
        var jobs = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == id)
            .OrderBy(j => j.OpenedAt)
            .Select(j => j.Id)
            .ToListAsync(cancellation);
        foreach (var batch in jobs.Chunk(50))
        {
            var rows = await db
                .Jobs.AsNoTracking()
                .Include(j => j.Journal)
                .Where(j => batch.Contains(j.Id))
                .OrderBy(j => j.OpenedAt)
                .ToListAsync(cancellation);
            foreach (var job in rows)
            {
                List<JournalEntry> journal =
                [
                    .. job.Journal.OrderBy(j => j.Sequence).Select(j => EntryOrNull(j.Json)).OfType<JournalEntry>(),
                ];
                await AddAsync(
                    zip,
                    $"jobs/{job.Id}.json",
                    new BundledJob(job.Id, id, job.CircuitVersionId, job.Title, job.OpenedAt, journal),
                    cancellation
                );
                await foreach (var photo in db.Photos.AsNoTracking().Where(p => p.JobId == job.Id).AsAsyncEnumerable())
                {
                    await AddAsync(zip, $"photos/{photo.Id}.json", new BundledPhoto(photo.Id, job.Id, photo.Bytes), cancellation);
                }
            }
        }

        await foreach (var f in db.FollowUps.AsNoTracking().Where(f => f.CircuitId == id).OrderBy(f => f.CreatedAt).AsAsyncEnumerable())
        {
            await AddAsync(
                zip,
                $"follow-ups/{f.Id}.json",
                new BundledFollowUp(f.Id, row.Tag, f.JobId, f.Text, f.Due, f.Who, f.CreatedAt, f.DoneAt, f.DoneBy),
                cancellation
            );
        }

        await foreach (var w in db.Work.AsNoTracking().Where(w => w.CircuitId == id).OrderBy(w => w.At).AsAsyncEnumerable())
        {
            await AddAsync(
                zip,
                $"rounds/{w.Id}.json",
                new BundledRound(
                    w.Id,
                    row.Tag,
                    w.Rule,
                    w.At,
                    w.Who,
                    w.Text,
                    w.Minutes,
                    w.Working,
                    JsonSerializer.Deserialize<List<JournalEntry>>(w.Json, JournalJson.Options)
                ),
                cancellation
            );
        }

        foreach (
            var check in await db.BenchChecks.AsNoTracking().Where(b => b.CircuitId == id).OrderBy(b => b.At).ToListAsync(cancellation)
        )
        {
            if (ParsedOrNull(check.Json) is { } items)
            {
                await AddAsync(
                    zip,
                    $"bench-checks/{check.Id}.json",
                    new BundledBenchCheck(check.Id, id, check.CircuitVersionId, check.At, check.Who, check.Passed, check.Failed, items),
                    cancellation
                );
            }
        }
    }

    private static JsonElement? ParsedOrNull(string json)
    {
        try
        {
            using var document = JsonDocument.Parse(json);
            return document.RootElement.Clone();
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static JournalEntry? EntryOrNull(string json)
    {
        try
        {
            return JournalJson.Read(json);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static async Task AddAsync<T>(ZipArchive zip, string name, T record, CancellationToken cancellation)
    {
        await using var stream = await zip.CreateEntry(name).OpenAsync(cancellation);
        await JsonSerializer.SerializeAsync(stream, record, JournalJson.Options, cancellation);
    }
}
