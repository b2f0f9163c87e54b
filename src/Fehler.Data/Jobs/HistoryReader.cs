using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>What earlier jobs teach a diagnosis, read from what was copied out of their journals when they were closed.</summary>
public sealed class HistoryReader(FehlerDb db, TimeProvider time)
{
    /// <summary>Older jobs than the latest so many say little about what fails now.</summary>
    private const int MostLearned = 500;

    /// <summary>What was found, repaired and proved on jobs that were opened before this one.</summary>
    public Task<History> OfAsync(OpenedJob job, CancellationToken cancellation) =>
        OfAsync(new Learner(job.Row.Id, job.Row.CircuitId, job.Circuit, job.Row.OpenedAt), cancellation);

    /// <summary>What a job that is opened now on a circuit would learn.</summary>
    public Task<History> NowAsync(FoundCircuit circuit, CancellationToken cancellation) =>
        OfAsync(new Learner(Guid.Empty, circuit.Row.Id, circuit.Circuit, time.GetUtcNow()), cancellation);

    /// <summary>The job that learns.</summary>
    private sealed record Learner(Guid Id, Guid CircuitId, Circuit Circuit, DateTimeOffset OpenedAt);

    private async Task<History> OfAsync(Learner job, CancellationToken cancellation)
    {
        var done = nameof(CloseOutcome.RepairedAndProved);
        var found = await db
            .Jobs.AsNoTracking()
            .Where(j => j.Outcome == done && j.OpenedAt < job.OpenedAt && j.FoundKind != null && j.Id != job.Id)
            .OrderByDescending(j => j.OpenedAt)
            .Take(MostLearned)
            .Select(j => new
            {
                j.CircuitId,
                j.FoundFault,
                j.FoundKind,
            })
            .ToListAsync(cancellation);
        return new History(
            Count(found.Where(f => f.CircuitId == job.CircuitId).Select(f => f.FoundFault!)),
            Count(found.Where(f => f.CircuitId != job.CircuitId).Select(f => f.FoundKind!))
        )
        {
            Ohms = await OwnOhmsAsync(job, cancellation),
            Years = await YearsAsync(job, cancellation),
        };
    }

    private static ImmutableSortedDictionary<string, int> Count(IEnumerable<string> keys) =>
        keys.GroupBy(k => k).ToImmutableSortedDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);

    /// <summary>The last resistances of coils and windings read on this circuit in a job that ended repaired and proved.</summary>
    private async Task<ImmutableSortedDictionary<string, double>> OwnOhmsAsync(Learner job, CancellationToken cancellation)
    {
        var read = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == job.CircuitId && j.OwnOhms != null && j.OpenedAt < job.OpenedAt && j.Id != job.Id)
            .OrderByDescending(j => j.OpenedAt)
            .Take(MostLearned)
            .Select(j => j.OwnOhms!)
            .ToListAsync(cancellation);
        var ohms = ImmutableSortedDictionary.CreateBuilder<string, double>(StringComparer.Ordinal);
        foreach (
            var (pair, value) in read.AsEnumerable()
                .Reverse()
                .SelectMany(json => JsonSerializer.Deserialize<Dictionary<string, double>>(json) ?? [])
        )
        {
            ohms[pair] = value;
        }

        return ohms.ToImmutable();
    }

    /// <summary>Years since each device was fitted, by the description or by the last repair that replaced something in it.</summary>
    private async Task<ImmutableSortedDictionary<string, double>> YearsAsync(Learner job, CancellationToken cancellation)
    {
        var opened = job.OpenedAt;
        var years = job
            .Circuit.Devices.Where(d => d[DeviceKind.FittedYear] > 0)
            .ToDictionary(d => d.Tag, d => Math.Max(0, opened.Year - d[DeviceKind.FittedYear]));
        var repairs = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == job.CircuitId && j.Id != job.Id)
            .SelectMany(j => j.Journal.Where(r => r.Kind == nameof(Repair) && r.At < opened))
            .OrderBy(r => r.At)
            .Select(r => r.Json)
            .ToListAsync(cancellation);
        foreach (var repair in repairs.Select(Read).OfType<Repair>().Where(r => r.Parts.Length > 0))
        {
            years[repair.Unit] = (opened - repair.At).TotalDays / 365.25;
        }

        return years.ToImmutableSortedDictionary(StringComparer.Ordinal);
    }

    private static JournalEntry? Read(string json)
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
}
