using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Web.Circuits;
using Fehler.Web.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Demo;

/// <summary>
/// Brings the demo plant in: circuit files, then jobs, through the same doors as everything else. Does nothing when the
/// register is not empty.
/// </summary>
internal static class DemoImport
{
    public static async Task RunAsync(IServiceProvider services, string folder)
    {
        var db = services.GetRequiredService<FehlerDb>();
        if (await db.Circuits.AnyAsync())
        {
            return;
        }

        var circuits = services.GetRequiredService<CircuitStore>();
        foreach (var file in Directory.GetFiles(Path.Combine(folder, "circuits"), "*.json").Order(StringComparer.Ordinal))
        {
            await circuits.ImportAsync(await File.ReadAllTextAsync(file), CancellationToken.None);
        }

        foreach (var file in Directory.GetFiles(Path.Combine(folder, "jobs"), "*.json").Order(StringComparer.Ordinal))
        {
            await ImportJobAsync(services, await File.ReadAllTextAsync(file));
        }
    }

    private static async Task ImportJobAsync(IServiceProvider services, string json)
    {
        var recorded = JsonSerializer.Deserialize<RecordedJob>(json, JournalJson.Options)!;
        var db = services.GetRequiredService<FehlerDb>();
        var jobs = services.GetRequiredService<JobStore>();
        var time = services.GetRequiredService<TimeProvider>();
        var circuit = await db.Circuits.Include(c => c.Versions).FirstAsync(c => c.Tag == recorded.Circuit);

        // Demo history keeps its distance to today.
        var opened = time.GetUtcNow().AddDays(-recorded.DaysAgo);
        var id = await jobs.OpenAsync(circuit.Id, circuit.Versions.MaxBy(v => v.Number)!.Id, recorded.Complaint, recorded.Who, opened, CancellationToken.None);
        for (var i = 0; i < recorded.Entries.Count; i++)
        {
            var job = (await jobs.FindAsync(id, CancellationToken.None))!;
            var entry = recorded.Entries[i] with { At = opened.AddMinutes(3 * (i + 1)), Who = recorded.Who };
            if (job.State.Refuse(entry) is { } reason)
            {
                throw new InvalidOperationException($"Demo job on {recorded.Circuit}, entry {i + 1}: {reason}");
            }

            await jobs.AppendAsync(job, entry, CancellationToken.None);
        }
    }

    /// <summary>A job as a file: circuit, complaint, and its journal in order.</summary>
    private sealed record RecordedJob(string Circuit, string Complaint, string Who, double DaysAgo, List<JournalEntry> Entries);
}
