using System.IO.Compression;
using System.Text.Json;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <content>Taking a bundle in: what can be used is taken, what cannot is set aside and said.</content>
public sealed partial class Bundle
{
    /// <summary>Largest file in a bundle, most of them, and how much they may be together when unpacked.</summary>
    private const long LargestFile = 20_000_000,
        MostUnpacked = 1_000_000_000;
    private const int MostFiles = 100_000,
        MostTimes = 200,
        MostVersions = 2_000,
        MostSetAside = 100;

    /// <summary>
    /// Takes a bundle in. What cannot be used is set aside and said; the rest is taken. Each circuit and each job is whole or not there.
    /// </summary>
    /// <param name="source">The zip.</param>
    /// <param name="origin">Where it comes from, as the journals will say.</param>
    /// <param name="cancellation">Cancels it; what was taken in so far stays, and the bundle can be taken in again.</param>
    /// <exception cref="CircuitException">The file is not a bundle.</exception>
    public async Task<BundleResult> ReadAsync(Stream source, string origin, CancellationToken cancellation)
    {
        using var zip = Opened(source);
        var manifest = Entry<BundleManifest>(
            zip.GetEntry("bundle.json")
                ?? throw new CircuitException("bundle.json", "is missing: the file is a zip but not a bundle of circuits.")
        );
        if (manifest.Format != FormatName || manifest.Version != 1)
        {
            throw new CircuitException(
                "bundle.json",
                $"says '{manifest.Format}' version {manifest.Version}; this program reads '{FormatName}' version 1."
            );
        }

        if (zip.Entries.Sum(e => e.Length) > MostTimes * Math.Max(1_000_000, zip.Entries.Sum(e => e.CompressedLength)))
        {
            throw new CircuitException(
                "bundle",
                $"unpacks to more than {MostTimes} times its size, which no bundle does; it was not opened."
            );
        }

        if (zip.Entries.Count > MostFiles || zip.Entries.Sum(e => e.Length) > MostUnpacked)
        {
            throw new CircuitException("bundle", $"holds more than {MostFiles} files or 1 GB; take the plant along in several bundles.");
        }

        var taking = new Taking(origin);
        foreach (var entry in In(zip, "circuits/"))
        {
            await TryAsync(taking, entry.FullName, () => CircuitAsync(Entry<BundledCircuit>(entry), taking, cancellation));
        }

        foreach (var entry in In(zip, "jobs/"))
        {
            await TryAsync(taking, entry.FullName, () => JobAsync(Entry<BundledJob>(entry), taking, cancellation));
        }

        foreach (var entry in In(zip, "photos/"))
        {
            await TryAsync(taking, entry.FullName, () => PhotoAsync(Entry<BundledPhoto>(entry), cancellation));
        }

        foreach (var entry in In(zip, "bench-checks/"))
        {
            await TryAsync(taking, entry.FullName, () => BenchCheckAsync(Entry<BundledBenchCheck>(entry), taking, cancellation));
        }

        foreach (var entry in In(zip, "rounds/"))
        {
            await TryAsync(taking, entry.FullName, () => RoundAsync(Entry<BundledRound>(entry), cancellation));
        }

        foreach (var entry in In(zip, "follow-ups/"))
        {
            await TryAsync(taking, entry.FullName, () => FollowUpAsync(Entry<BundledFollowUp>(entry), cancellation));
        }

        return taking.Result;
    }

    /// <summary>One bad file never stops the rest.</summary>
    private async Task TryAsync(Taking taking, string name, Func<Task> take)
    {
        var before = taking.Result;
        string reason;
        try
        {
            await take();
            return;
        }
        catch (RefusedException e)
        {
            reason = e.Message;
        }
        catch (DbUpdateException)
        {
            reason = "has an id that belongs to something else here.";
        }

        db.ChangeTracker.Clear();
        taking.Result = before;
        taking.SetAside([reason.StartsWith(name, StringComparison.Ordinal) ? reason : $"{name} {reason}"]);
    }

    /// <summary>A circuit is known by its tag: two plants may have given it different ids.</summary>
    private async Task CircuitAsync(BundledCircuit record, Taking taking, CancellationToken cancellation)
    {
        if (record.Tag is null || record.Versions is null or { Count: 0 or > MostVersions } || record.Versions.Any(v => v is null))
        {
            throw new RefusedException($"has no version of its circuit, or more than {MostVersions}.");
        }

        await turns.InTurnAsync(
            $"circuit {record.Tag}",
            async () =>
            {
                var row = await db.Circuits.Include(c => c.Versions).FirstOrDefaultAsync(c => c.Tag == record.Tag, cancellation);
                var here = new List<(Guid There, Guid Here)>();
                foreach (var version in record.Versions.OrderBy(v => v.Number))
                {
                    var circuit = await Task.Run(() => CircuitAcceptance.Read(version.File.GetRawText()), cancellation);
                    if (circuit.Circuit.Tag != record.Tag)
                    {
                        throw new RefusedException($"says it is {record.Tag} and describes {circuit.Circuit.Tag}.");
                    }

                    if (row is null)
                    {
                        var id = await db.Circuits.AnyAsync(c => c.Id == record.Id, cancellation) ? Guid.CreateVersion7() : record.Id;
                        row = new CircuitRow
                        {
                            Id = id,
                            Tag = circuit.Circuit.Tag,
                            Title = "",
                            Area = "",
                            Enclosure = "",
                            CreatedAt = record.CreatedAt,
                        };
                        db.Circuits.Add(row);
                        taking.Result = taking.Result with { Circuits = taking.Result.Circuits + 1 };
                    }

                    here.Add((version.Id, await VersionAsync(row, version, circuit, taking, cancellation)));
                }

                await db.SaveChangesAsync(cancellation);
                db.ChangeTracker.Clear();
                foreach (var (there, version) in here)
                {
                    taking.Versions[there] = (row!.Id, version);
                }

                return row!.Id;
            },
            cancellation
        );
    }

    /// <summary>The version with this description, added when there is none.</summary>
    private async Task<Guid> VersionAsync(
        CircuitRow row,
        BundledVersion version,
        CompiledCircuit circuit,
        Taking taking,
        CancellationToken cancellation
    )
    {
        var canonical = CircuitFile.Write(circuit.Circuit);
        if (row.Versions.FirstOrDefault(v => v.Json == canonical) is { } same)
        {
            return same.Id;
        }

        var id =
            version.Id == Guid.Empty || await db.CircuitVersions.AnyAsync(v => v.Id == version.Id, cancellation)
                ? Guid.CreateVersion7()
                : version.Id;
        var added = new CircuitVersionRow
        {
            Id = id,
            CircuitId = row.Id,
            Number = row.LatestNumber + 1,
            Json = canonical,
            CreatedAt = version.CreatedAt,
        };
        row.Versions.Add(added);
        db.CircuitVersions.Add(added);
        (row.LatestVersionId, row.LatestNumber) = (added.Id, added.Number);
        CircuitStore.Describe(row, circuit);
        compiled.Keep(added.Id, circuit);
        taking.Result = taking.Result with { Versions = taking.Result.Versions + 1 };
        return added.Id;
    }

    private async Task JobAsync(BundledJob record, Taking taking, CancellationToken cancellation)
    {
        if (
            record.Journal is null
            || record.Title is null
            || record.Journal.Any(e => e is null)
            || record.Journal.Count > EntryRules.Entries
            || record.Journal.DistinctBy(e => e.Id).Count() != record.Journal.Count
        )
        {
            throw new RefusedException("is no journal: it has no title or entries, an entry twice, or too many of them.");
        }

        if (CircuitLimits.Refuse(record.Title, EntryRules.Text) is { } wrong)
        {
            throw new RefusedException($"has a title that {wrong}");
        }

        var (circuit, version) = taking.Version(record.CircuitVersionId);
        var isNew = !await db.Jobs.AnyAsync(j => j.Id == record.Id, cancellation);
        var row = new JobRow
        {
            Id = record.Id,
            CircuitId = circuit,
            CircuitVersionId = version,
            Title = record.Title,
            OpenedAt = record.OpenedAt,
            Origin = taking.Origin,
        };
        var carried = await door.CarryInAsync(row, record.Journal, cancellation);
        taking.SetAside(carried.SetAside);
        taking.Result = taking.Result with
        {
            Jobs = taking.Result.Jobs + (isNew && carried.Entries > 0 ? 1 : 0),
            Entries = taking.Result.Entries + carried.Entries,
        };
    }

    /// <summary>A picture of a job that is here; what it is said to be is tried.</summary>
    private async Task PhotoAsync(BundledPhoto record, CancellationToken cancellation)
    {
        if (await db.Photos.AnyAsync(p => p.Id == record.Id, cancellation))
        {
            return;
        }

        if (record.Bytes is null || !await db.Jobs.AnyAsync(j => j.Id == record.JobId, cancellation))
        {
            throw new RefusedException("is a picture of no job that is here.");
        }

        db.Photos.Add(
            new PhotoRow
            {
                Id = record.Id,
                JobId = record.JobId,
                Type = PictureFormat.Of(record.Bytes).Type,
                Bytes = record.Bytes,
            }
        );
        await db.SaveChangesAsync(cancellation);
        db.ChangeTracker.Clear();
    }

    /// <summary>What is to be done; one that was ticked off on either side since is done.</summary>
    private async Task FollowUpAsync(BundledFollowUp record, CancellationToken cancellation)
    {
        FollowUpStore.Check(record.Text, record.Who);
        if (await db.FollowUps.FirstOrDefaultAsync(f => f.Id == record.Id, cancellation) is { } there)
        {
            if (there.DoneAt is null && record.DoneAt is not null)
            {
                (there.DoneAt, there.DoneBy) = (record.DoneAt, record.DoneBy ?? "");
            }
        }
        else
        {
            var circuit =
                await db.Circuits.Where(c => c.Tag == record.CircuitTag).Select(c => (Guid?)c.Id).FirstOrDefaultAsync(cancellation)
                ?? throw new RefusedException("is of no circuit that is here.");
            db.FollowUps.Add(
                new FollowUpRow
                {
                    Id = record.Id,
                    CircuitId = circuit,
                    JobId = await db.Jobs.AnyAsync(j => j.Id == record.JobId, cancellation) ? record.JobId : null,
                    Text = record.Text!,
                    Due = record.Due,
                    Who = record.Who!,
                    CreatedAt = record.CreatedAt,
                    DoneAt = record.DoneAt,
                    DoneBy = record.DoneBy ?? "",
                }
            );
        }

        await db.SaveChangesAsync(cancellation);
        db.ChangeTracker.Clear();
    }

    /// <summary>Upkeep that was done there: it passes the rules of here, and its values stand in the trends of here.</summary>
    private async Task RoundAsync(BundledRound record, CancellationToken cancellation)
    {
        var circuit =
            await db.Circuits.Where(c => c.Tag == record.CircuitTag).Select(c => (Guid?)c.Id).FirstOrDefaultAsync(cancellation)
            ?? throw new RefusedException("is of no circuit that is here.");
        var done = new DoneWork(
            record.Rule ?? "",
            record.Who ?? "",
            record.Text ?? "",
            record.Minutes,
            [.. record.Entries ?? []],
            record.Working ?? "",
            record.At
        )
        {
            Id = record.Id,
        };
        await work.RecordAsync(circuit, done, cancellation);
        db.ChangeTracker.Clear();
    }

    private async Task BenchCheckAsync(BundledBenchCheck record, Taking taking, CancellationToken cancellation)
    {
        if (await db.BenchChecks.AnyAsync(b => b.Id == record.Id, cancellation))
        {
            return;
        }

        var (circuit, version) = taking.Version(record.CircuitVersionId);
        var json =
            record.Items.ValueKind == JsonValueKind.Array && !BenchCheckResult.Read(record.Items.GetRawText()).IsEmpty
                ? record.Items.GetRawText()
                : throw new RefusedException("has no items that can be read.");
        var row = new BenchCheckRow
        {
            Id = record.Id,
            CircuitId = circuit,
            CircuitVersionId = version,
            At = record.At,
            Who = record.Who ?? "",
            Passed = record.Passed,
            Failed = record.Failed,
            Json = json,
        };
        db.BenchChecks.Add(row);
        await db.SaveChangesAsync(cancellation);
        await followed.OfBenchCheckAsync(
            row,
            await circuits.CompiledAsync(version, cancellation),
            BenchCheckResult.Read(json),
            cancellation
        );
        db.ChangeTracker.Clear();
        taking.Result = taking.Result with { BenchChecks = taking.Result.BenchChecks + 1 };
    }

    private static ZipArchive Opened(Stream source)
    {
        try
        {
            return new ZipArchive(source, ZipArchiveMode.Read);
        }
        catch (InvalidDataException)
        {
            throw new CircuitException(
                "bundle",
                "The file is not a zip, or it is cut off or damaged. Expected a bundle written by this program."
            );
        }
    }

    private static IEnumerable<ZipArchiveEntry> In(ZipArchive zip, string folder) =>
        zip
            .Entries.Where(e =>
                e.FullName.StartsWith(folder, StringComparison.Ordinal) && e.FullName.EndsWith(".json", StringComparison.Ordinal)
            )
            .OrderBy(e => e.FullName, StringComparer.Ordinal);

    private static T Entry<T>(ZipArchiveEntry entry)
    {
        if (entry.Length > LargestFile)
        {
            throw new CircuitException(entry.FullName, "is larger than 20 MB; a bundle's files have some tens of kilobytes.");
        }

        try
        {
            // The size that the archive states may be a lie: no more than that is read.
            using var stream = entry.Open();
            using var bounded = new MemoryStream();
            var buffer = new byte[81_920];
            for (int read; (read = stream.Read(buffer, 0, buffer.Length)) > 0; )
            {
                bounded.Write(buffer, 0, read);
                if (bounded.Length > LargestFile)
                {
                    throw new CircuitException(entry.FullName, "is larger than 20 MB; a bundle's files have some tens of kilobytes.");
                }
            }

            return JsonSerializer.Deserialize<T>(bounded.GetBuffer().AsSpan(0, (int)bounded.Length), JournalJson.Options)
                ?? throw new JsonException("is null");
        }
        catch (Exception e) when (e is JsonException or InvalidDataException or NotSupportedException or InvalidOperationException)
        {
            throw new CircuitException(entry.FullName, $"is damaged or not part of a bundle: {e.Message}");
        }
    }

    /// <summary>A bundle on its way in.</summary>
    private sealed class Taking(string origin)
    {
        private readonly List<string> _setAside = [];

        public string Origin { get; } = origin;

        public BundleResult Result { get; set; } = new(0, 0, 0, 0, 0, []);

        /// <summary>Circuit and version here, by the version's id in the bundle.</summary>
        public Dictionary<Guid, (Guid Circuit, Guid Version)> Versions { get; } = [];

        public (Guid Circuit, Guid Version) Version(Guid id) =>
            Versions.TryGetValue(id, out var version)
                ? version
                : throw new RefusedException("belongs to a circuit version that is not in the bundle.");

        public void SetAside(IEnumerable<string> reasons)
        {
            _setAside.AddRange(reasons.Take(Math.Max(0, MostSetAside - _setAside.Count)));
            Result = Result with { SetAside = [.. _setAside] };
        }
    }
}
