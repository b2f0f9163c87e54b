using System.IO.Compression;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Data;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Bundles;

/// <summary>What taking a bundle in has added; all zero when everything was there already.</summary>
public sealed record BundleResult(int Circuits, int Versions, int Jobs, int Entries, int BenchChecks);

/// <summary>
/// Circuits with their whole history as one file: JSON in a zip (docs/formats/bundle.md). Everything has its own id, so what is there
/// already is recognised and taking a bundle in twice changes nothing.
/// </summary>
internal sealed class Bundle(FehlerDb db)
{
    public const string FormatName = "fehler-bundle";

    private const long LargestEntry = 20_000_000;

    /// <summary>Writes a bundle of one circuit, or of all.</summary>
    public async Task WriteAsync(Stream target, Guid? circuit, CancellationToken cancellation)
    {
        using var zip = new ZipArchive(target, ZipArchiveMode.Create, leaveOpen: true);
        await AddAsync(zip, "bundle.json", new Manifest(FormatName, 1), cancellation);
        var circuits = await db.Circuits.AsNoTracking().Include(c => c.Versions).Where(c => circuit == null || c.Id == circuit).OrderBy(c => c.Tag).ToListAsync(cancellation);
        foreach (var row in circuits)
        {
            await AddAsync(zip, $"circuits/{row.Id}.json", new CircuitRecord(row.Id, row.Tag, row.CreatedAt, [.. row.Versions.OrderBy(v => v.Number).Select(v => new VersionRecord(v.Id, v.Number, v.CreatedAt, JsonDocument.Parse(v.Json).RootElement))]), cancellation);
            foreach (var job in await db.Jobs.AsNoTracking().Include(j => j.Journal).Where(j => j.CircuitId == row.Id).OrderBy(j => j.OpenedAt).ToListAsync(cancellation))
            {
                await AddAsync(zip, $"jobs/{job.Id}.json", new JobRecord(job.Id, row.Id, job.CircuitVersionId, job.Title, job.OpenedAt, [.. job.Journal.OrderBy(j => j.Sequence).Select(j => JournalJson.Read(j.Json))]), cancellation);
            }

            foreach (var check in await db.BenchChecks.AsNoTracking().Where(b => b.CircuitId == row.Id).OrderBy(b => b.At).ToListAsync(cancellation))
            {
                await AddAsync(zip, $"bench-checks/{check.Id}.json", new BenchCheckRecord(check.Id, row.Id, check.CircuitVersionId, check.At, check.Who, check.Passed, check.Failed, JsonDocument.Parse(check.Json).RootElement), cancellation);
            }
        }
    }

    /// <summary>Takes a bundle in, all of it or nothing.</summary>
    /// <exception cref="CircuitException">The file is not a bundle, or something in it cannot be used.</exception>
    public async Task<BundleResult> ReadAsync(Stream source, CancellationToken cancellation)
    {
        using var zip = Opened(source);
        var manifest = Entry<Manifest>(zip.GetEntry("bundle.json") ?? throw new CircuitException("bundle.json", "is missing: the file is a zip but not a bundle of circuits."));
        if (manifest.Format != FormatName || manifest.Version != 1)
        {
            throw new CircuitException("bundle.json", $"says '{manifest.Format}' version {manifest.Version}; this program reads '{FormatName}' version 1.");
        }

        var result = new BundleResult(0, 0, 0, 0, 0);
        var circuits = new Dictionary<Guid, Guid>();
        var versions = new Dictionary<Guid, Guid>();
        foreach (var entry in In(zip, "circuits/"))
        {
            result = await CircuitAsync(Entry<CircuitRecord>(entry), entry.FullName, circuits, versions, result, cancellation);
        }

        foreach (var entry in In(zip, "jobs/"))
        {
            result = await JobAsync(Entry<JobRecord>(entry), entry.FullName, circuits, versions, result, cancellation);
        }

        foreach (var entry in In(zip, "bench-checks/"))
        {
            var record = Entry<BenchCheckRecord>(entry);
            if (!await db.BenchChecks.AnyAsync(b => b.Id == record.Id, cancellation))
            {
                db.BenchChecks.Add(new BenchCheckRow
                {
                    Id = record.Id,
                    CircuitId = Mapped(circuits, record.CircuitId, entry.FullName),
                    CircuitVersionId = Mapped(versions, record.CircuitVersionId, entry.FullName),
                    At = record.At,
                    Who = record.Who,
                    Passed = record.Passed,
                    Failed = record.Failed,
                    Json = record.Items.GetRawText(),
                });
                result = result with { BenchChecks = result.BenchChecks + 1 };
            }
        }

        await db.SaveChangesAsync(cancellation);
        return result;
    }

    /// <summary>A circuit is known by its tag: two plants may have given it different ids.</summary>
    private async Task<BundleResult> CircuitAsync(CircuitRecord record, string name, Dictionary<Guid, Guid> circuits, Dictionary<Guid, Guid> versions, BundleResult result, CancellationToken cancellation)
    {
        var row = await db.Circuits.Include(c => c.Versions).FirstOrDefaultAsync(c => c.Tag == record.Tag, cancellation);
        foreach (var version in record.Versions.OrderBy(v => v.Number))
        {
            var circuit = InFile(name, () => CircuitFile.Read(version.File.GetRawText()));
            if (row is null)
            {
                row = new CircuitRow { Id = await db.Circuits.AnyAsync(c => c.Id == record.Id, cancellation) ? Guid.CreateVersion7() : record.Id, Tag = circuit.Tag, Title = circuit.Title, Area = circuit.Area, Enclosure = circuit.Enclosure, CreatedAt = record.CreatedAt };
                db.Circuits.Add(row);
                result = result with { Circuits = result.Circuits + 1 };
            }

            var canonical = CircuitFile.Write(circuit);
            var same = row.Versions.FirstOrDefault(v => v.Json == canonical);
            if (same is null)
            {
                same = new CircuitVersionRow { Id = version.Id, CircuitId = row.Id, Number = row.Versions.Select(v => v.Number).DefaultIfEmpty(0).Max() + 1, Json = canonical, CreatedAt = version.CreatedAt };
                row.Versions.Add(same);
                db.CircuitVersions.Add(same);
                (row.Title, row.Area, row.Enclosure) = (circuit.Title, circuit.Area, circuit.Enclosure);
                result = result with { Versions = result.Versions + 1 };
            }

            versions[version.Id] = same.Id;
        }

        circuits[record.Id] = row?.Id ?? throw new CircuitException(name, "has no version of its circuit.");
        return result;
    }

    private async Task<BundleResult> JobAsync(JobRecord record, string name, Dictionary<Guid, Guid> circuits, Dictionary<Guid, Guid> versions, BundleResult result, CancellationToken cancellation)
    {
        var job = await db.Jobs.Include(j => j.Journal).FirstOrDefaultAsync(j => j.Id == record.Id, cancellation);
        if (job is null)
        {
            job = new JobRow { Id = record.Id, CircuitId = Mapped(circuits, record.CircuitId, name), CircuitVersionId = Mapped(versions, record.CircuitVersionId, name), Title = record.Title, OpenedAt = record.OpenedAt };
            db.Jobs.Add(job);
            result = result with { Jobs = result.Jobs + 1 };
        }

        var known = job.Journal.Select(j => j.Id).ToHashSet();
        foreach (var entry in record.Journal.Where(e => !known.Contains(e.Id)))
        {
            var stamped = entry with { Sequence = job.Journal.Count + 1 };
            job.Journal.Add(new JournalRow { Id = stamped.Id, JobId = job.Id, Sequence = stamped.Sequence, At = stamped.At, Who = stamped.Who, Kind = stamped.GetType().Name, Json = JournalJson.Write(stamped) });
            db.Entry(job.Journal[^1]).State = EntityState.Added;
            result = result with { Entries = result.Entries + 1 };
        }

        var circuit = record.CircuitVersionId;
        var json = db.CircuitVersions.Local.FirstOrDefault(v => v.Id == versions[circuit])?.Json ?? (await db.CircuitVersions.FirstAsync(v => v.Id == versions[circuit], cancellation)).Json;
        var state = JobState.Of(CircuitFile.Read(json).Compile(), job.Journal.OrderBy(j => j.Sequence).Select(j => JournalJson.Read(j.Json)));
        (job.ClosedAt, job.Outcome, job.FoundUnit, job.FoundText) = (state.Closing?.At, state.Closing?.Outcome.ToString(), state.LastFinding?.Unit, state.LastFinding?.Text);
        return result;
    }

    private static ZipArchive Opened(Stream source)
    {
        try
        {
            return new ZipArchive(source, ZipArchiveMode.Read);
        }
        catch (InvalidDataException)
        {
            throw new CircuitException("bundle", "The file is not a zip, or it is cut off or damaged. Expected a bundle written by this program.");
        }
    }

    private static IEnumerable<ZipArchiveEntry> In(ZipArchive zip, string folder) =>
        zip.Entries.Where(e => e.FullName.StartsWith(folder, StringComparison.Ordinal) && e.FullName.EndsWith(".json", StringComparison.Ordinal)).OrderBy(e => e.FullName, StringComparer.Ordinal);

    private static T Entry<T>(ZipArchiveEntry entry)
    {
        if (entry.Length > LargestEntry)
        {
            throw new CircuitException(entry.FullName, "is larger than 20 MB; a bundle's files have some tens of kilobytes.");
        }

        try
        {
            using var stream = entry.Open();
            return JsonSerializer.Deserialize<T>(stream, JournalJson.Options) ?? throw new JsonException("is null");
        }
        catch (Exception e) when (e is JsonException or InvalidDataException or NotSupportedException)
        {
            throw new CircuitException(entry.FullName, $"is damaged or not part of a bundle: {e.Message}");
        }
    }

    private static T InFile<T>(string name, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (CircuitException e)
        {
            throw new CircuitException($"{name} {e.Path}", e.Problem);
        }
    }

    private static Guid Mapped(Dictionary<Guid, Guid> ids, Guid id, string name) =>
        ids.TryGetValue(id, out var mapped) ? mapped : throw new CircuitException(name, "belongs to a circuit version that is not in the bundle.");

    private static async Task AddAsync<T>(ZipArchive zip, string name, T record, CancellationToken cancellation)
    {
        await using var stream = zip.CreateEntry(name).Open();
        await JsonSerializer.SerializeAsync(stream, record, JournalJson.Options, cancellation);
    }

    private sealed record Manifest(string Format, int Version);

    private sealed record CircuitRecord(Guid Id, string Tag, DateTimeOffset CreatedAt, List<VersionRecord> Versions);

    private sealed record VersionRecord(Guid Id, int Number, DateTimeOffset CreatedAt, JsonElement File);

    private sealed record JobRecord(Guid Id, Guid CircuitId, Guid CircuitVersionId, string Title, DateTimeOffset OpenedAt, List<JournalEntry> Journal);

    private sealed record BenchCheckRecord(Guid Id, Guid CircuitId, Guid CircuitVersionId, DateTimeOffset At, string Who, int Passed, int Failed, JsonElement Items);
}
