using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Data;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Demo;

/// <summary>
/// Brings the demo plant in: circuit files, then jobs, through the same doors as everything else. A start that was cut off is finished by
/// the
/// next one; when it is finished that is noted, and what people do with the demo afterwards is left alone.
/// </summary>
internal sealed class DemoImport(FehlerDb db, CircuitStore circuits, JournalDoor door, WorkStore work, TimeProvider time)
{
    private const string Finished = "demo brought in";

    /// <param name="folder">Folder of the demo plant.</param>
    /// <param name="withHistory">Two years of jobs and rounds too, which take some seconds to bring in.</param>
    /// <param name="cancellation">Cancels it.</param>
    public async Task RunAsync(string folder, bool withHistory, CancellationToken cancellation = default)
    {
        if (await db.Facts.AnyAsync(f => f.Name == Finished, cancellation))
        {
            return;
        }

        foreach (var file in Directory.GetFiles(Path.Combine(folder, "circuits"), "*.json").Order(StringComparer.Ordinal))
        {
            await circuits.ImportAsync(await File.ReadAllTextAsync(file, cancellation), cancellation);
        }

        foreach (var file in Directory.GetFiles(Path.Combine(folder, "jobs"), "*.json").Order(StringComparer.Ordinal))
        {
            await JobAsync(Path.GetFileName(file), await File.ReadAllTextAsync(file, cancellation), cancellation);
        }

        if (withHistory && Directory.Exists(Path.Combine(folder, "history")))
        {
            await HistoryAsync(Path.Combine(folder, "history"), cancellation);
        }

        db.Facts.Add(
            new FactRow { Name = Finished, Value = time.GetUtcNow().ToString("O", System.Globalization.CultureInfo.InvariantCulture) }
        );
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>Two years of jobs, each brought in whole, and of rounds; a line a piece, as the generator wrote them.</summary>
    private async Task HistoryAsync(string folder, CancellationToken cancellation)
    {
        var now = time.GetUtcNow();
        var known = await db.Circuits.AsNoTracking().ToDictionaryAsync(c => c.Tag, cancellation);
        await foreach (var (name, line) in LinesAsync(Path.Combine(folder, "jobs.jsonl"), cancellation))
        {
            var past = JsonSerializer.Deserialize<RecordedJob>(line, JournalJson.Options)!;
            var (circuit, opened) = (known[past.Circuit], now.AddDays(-past.DaysAgo));
            var entries = past
                .Entries.Prepend(new Complaint(past.Complaint))
                .Select((e, i) => e with { Id = IdOf($"{name} {i}"), At = opened.AddMinutes(3 * i), Who = past.Who, Sequence = i + 1 });
            await door.CarryInAsync(
                new JobRow
                {
                    Id = IdOf(name),
                    CircuitId = circuit.Id,
                    CircuitVersionId = circuit.LatestVersionId,
                    Title = past.Complaint,
                    OpenedAt = opened,
                },
                [.. entries],
                cancellation
            );
        }

        await foreach (var (name, line) in LinesAsync(Path.Combine(folder, "rounds.jsonl"), cancellation))
        {
            var past = JsonSerializer.Deserialize<RecordedRound>(line, JournalJson.Options)!;
            var done = new DoneWork(past.Rule, past.Who, past.Text, past.Minutes, past.Readings, past.Working, now.AddDays(-past.DaysAgo))
            {
                Id = IdOf(name),
            };
            await work.RecordAsync(known[past.Circuit].Id, done, cancellation);
            db.ChangeTracker.Clear();
        }
    }

    private static async IAsyncEnumerable<(string Name, string Line)> LinesAsync(
        string file,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var number = 0;
        await foreach (var line in File.ReadLinesAsync(file, cancellation))
        {
            yield return ($"{Path.GetFileName(file)} {++number}", line);
        }
    }

    private async Task JobAsync(string name, string json, CancellationToken cancellation)
    {
        var recorded = JsonSerializer.Deserialize<RecordedJob>(json, JournalJson.Options)!;
        var circuit = await db.Circuits.AsNoTracking().FirstAsync(c => c.Tag == recorded.Circuit, cancellation);
        var id = IdOf(name);
        var known = await db.Jobs.AsNoTracking().FirstOrDefaultAsync(j => j.Id == id, cancellation);
        // Demo history keeps its distance to today.
        var opened = known?.OpenedAt ?? time.GetUtcNow().AddDays(-recorded.DaysAgo);
        if (known is null)
        {
            await door.OpenAsync(circuit.Id, recorded.Complaint, [], recorded.Who, id, opened, cancellation);
        }

        for (var i = 0; i < recorded.Entries.Count; i++)
        {
            var entry = recorded.Entries[i] with { Id = IdOf($"{name} {i}"), At = opened.AddMinutes(3 * (i + 1)), Who = recorded.Who };
            if (await door.AppendAsync(id, entry, cancellation) is DoorAnswer.Refused refused)
            {
                throw new InvalidOperationException($"Demo job {name}, entry {i + 1}: {refused.Reason}");
            }
        }
    }

    /// <summary>The same id at every start: what was brought in already is recognised.</summary>
    private static Guid IdOf(string name) => new(SHA256.HashData(Encoding.UTF8.GetBytes($"fehler demo {name}")).AsSpan(0, 16));

    /// <summary>Upkeep as a line: circuit, rule, and what was measured.</summary>
    private sealed record RecordedRound(
        string Circuit,
        string Rule,
        string Who,
        double DaysAgo,
        string Text,
        double Minutes,
        string Working,
        ImmutableArray<JournalEntry> Readings
    );

    /// <summary>A job as a file: circuit, complaint, and its journal in order.</summary>
    private sealed record RecordedJob(string Circuit, string Complaint, string Who, double DaysAgo, List<JournalEntry> Entries);
}
