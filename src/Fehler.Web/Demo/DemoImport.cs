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
internal sealed class DemoImport(FehlerDb db, CircuitStore circuits, JournalDoor door, TimeProvider time)
{
    private const string Finished = "demo brought in";

    public async Task RunAsync(string folder, CancellationToken cancellation = default)
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

        db.Facts.Add(
            new FactRow { Name = Finished, Value = time.GetUtcNow().ToString("O", System.Globalization.CultureInfo.InvariantCulture) }
        );
        await db.SaveChangesAsync(cancellation);
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

    /// <summary>A job as a file: circuit, complaint, and its journal in order.</summary>
    private sealed record RecordedJob(string Circuit, string Complaint, string Who, double DaysAgo, List<JournalEntry> Entries);
}
