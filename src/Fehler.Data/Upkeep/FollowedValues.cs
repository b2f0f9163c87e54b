using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>The last value of a series on a circuit where the same part is fitted.</summary>
public sealed record TwinValue(Guid Circuit, string Tag, string Device, DateTimeOffset At, double Value);

/// <summary>A series with what its twins show.</summary>
public sealed record SeriesWithTwins(Series Series, IReadOnlyList<TwinValue> Twins);

/// <summary>
/// Values that are followed over the years: drawn from jobs as they are closed, from bench checks and from rounds, and read as series. What
/// they and the jobs ask for is kept with the circuit, so that a plan over hundreds of circuits need not look at any value.
/// </summary>
public sealed class FollowedValues(FehlerDb db, CircuitStore circuits)
{
    /// <summary>Changed when values are drawn otherwise, so that old jobs are drawn anew.</summary>
    public const int Version = 1;

    private const int MostTwins = 12;

    /// <summary>Draws a closed job's values and what the circuit now asks for; saved by the caller.</summary>
    internal async Task DrawAsync(CircuitRow circuit, JobRow job, JobState state, CancellationToken cancellation)
    {
        await ReplaceAsync(circuit.Id, job.Id, state.Compiled, state.Compiled.SeriesValues.Of(state), cancellation);
        job.DrawnVersion = Version;
        await RefreshAsync(circuit, state.Compiled, cancellation);
    }

    /// <summary>Draws the values of a bench check or a round; saved by the caller.</summary>
    internal async Task DrawAsync(
        Guid circuitId,
        Guid source,
        CompiledCircuit compiled,
        IEnumerable<SeriesValue> values,
        CancellationToken cancellation
    )
    {
        await ReplaceAsync(circuitId, source, compiled, values, cancellation);
        await RefreshAsync(await db.Circuits.FirstAsync(c => c.Id == circuitId, cancellation), compiled, cancellation);
    }

    /// <summary>Draws the values of a bench check that is kept already.</summary>
    public async Task OfBenchCheckAsync(
        BenchCheckRow check,
        CompiledCircuit compiled,
        IEnumerable<BenchCheckResult> results,
        CancellationToken cancellation
    )
    {
        var stamped = BenchCheckResult.GoodReadings(compiled, results).Select(r => r with { At = check.At });
        await DrawAsync(check.CircuitId, check.Id, compiled, compiled.SeriesValues.Of(stamped, ""), cancellation);
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>Draws one closed job that an older version of the program left; false when there is none left.</summary>
    public async Task<bool> CatchUpAsync(JobStore jobs, IReadOnlySet<Guid> setAside, Action<Guid> begins, CancellationToken cancellation)
    {
        var row = await db
            .Jobs.Where(j => j.ClosedAt != null && j.DrawnVersion != Version && !setAside.Contains(j.Id))
            .OrderByDescending(j => j.OpenedAt)
            .FirstOrDefaultAsync(cancellation);
        if (row is null)
        {
            return false;
        }

        begins(row.Id);
        var job = (await jobs.FindAsync(row.Id, cancellation))!;
        var circuit = await db.Circuits.FirstAsync(c => c.Id == row.CircuitId, cancellation);
        JournalDoor.Project(row, job.State, row.EntryCount);
        await db.SaveChangesAsync(cancellation);
        await DrawAsync(circuit, row, job.State, cancellation);
        await db.SaveChangesAsync(cancellation);
        return true;
    }

    /// <summary>The series of a circuit with those of its twins; null when there is no such circuit.</summary>
    public async Task<List<SeriesWithTwins>?> OfAsync(Guid circuitId, CancellationToken cancellation)
    {
        if (await circuits.FindAsync(circuitId, cancellation) is not { } found)
        {
            return null;
        }

        var rows = await db.Measured.AsNoTracking().Where(m => m.CircuitId == circuitId).ToListAsync(cancellation);
        var series = Series.Of(found.Compiled.Circuit, rows.Select(ToValue), await ReplacedAsync(circuitId, cancellation));
        var parts = rows.Where(r => r.Part.Length > 0).Select(r => r.Part).Distinct().ToList();
        var others = await db
            .Measured.AsNoTracking()
            .Where(m => parts.Contains(m.Part) && m.CircuitId != circuitId)
            .Join(db.Circuits, m => m.CircuitId, c => c.Id, (m, c) => new { Measured = m, c.Tag })
            .ToListAsync(cancellation);
        var twins = others.ToLookup(o => (o.Measured.Part, o.Measured.What, o.Measured.Points, o.Measured.State));
        var partOf = rows.GroupBy(r => ToValue(r).Key).ToDictionary(g => g.Key, g => g.First().Part);
        return
        [
            .. series.Select(s => new SeriesWithTwins(
                s,
                [
                    .. twins[(partOf[s.Key], s.Key.What, s.Key.Points, s.Key.State)]
                        .GroupBy(o => (o.Measured.CircuitId, o.Measured.Device))
                        .Select(g => g.MaxBy(o => o.Measured.At)!)
                        .OrderBy(o => o.Tag, StringComparer.Ordinal)
                        .Take(MostTwins)
                        .Select(o => new TwinValue(o.Measured.CircuitId, o.Tag, o.Measured.Device, o.Measured.At, o.Measured.Value)),
                ]
            )),
        ];
    }

    private async Task ReplaceAsync(
        Guid circuitId,
        Guid source,
        CompiledCircuit compiled,
        IEnumerable<SeriesValue> values,
        CancellationToken cancellation
    )
    {
        db.Measured.RemoveRange(await db.Measured.Where(m => m.Source == source).ToListAsync(cancellation));
        db.Measured.AddRange(
            values.Select(v => new MeasuredRow
            {
                CircuitId = circuitId,
                Source = source,
                At = v.At,
                What = v.Key.What,
                Device = v.Key.Device,
                Points = v.Key.Points,
                State = v.Key.State,
                Value = v.Value,
                Part = PartOf(compiled, v.Key),
            })
        );
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>The part whose twins measure alike: a coil's, a winding's; of a current the motor that draws it.</summary>
    private static string PartOf(CompiledCircuit compiled, SeriesKey key)
    {
        if (key.What is Followed.LineVolts or Followed.VoltsUnbalance || key.What.IsCounter())
        {
            return "";
        }

        var motors = compiled.Circuit.Devices.Where(d => d.Kind.PlateOf(d) is not null).ToList();
        var device =
            key.What is not (Followed.RunningAmps or Followed.StartingAmps or Followed.AmpsUnbalance) ? key.Device
            : motors.Count == 1 ? motors[0].Tag
            : "";
        var parts = compiled.InstalledParts.All.Where(p => p.Device == device);
        return (
                key.What == Followed.CoilOhms
                    ? parts.OrderByDescending(p => p.IsCoil).FirstOrDefault()
                    : parts.FirstOrDefault(p => !p.IsCoil)
            )?.Name
            ?? "";
    }

    /// <summary>What jobs and values of a circuit ask for before its intervals are over; saved by the caller.</summary>
    private async Task RefreshAsync(CircuitRow circuit, CompiledCircuit compiled, CancellationToken cancellation)
    {
        var values = await db.Measured.AsNoTracking().Where(m => m.CircuitId == circuit.Id).ToListAsync(cancellation);
        var series = Series.Of(compiled.Circuit, values.Select(ToValue), await ReplacedAsync(circuit.Id, cancellation));
        var jobs = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == circuit.Id && j.ClosedAt != null)
            .Select(j => new
            {
                j.OpenedAt,
                j.FoundFault,
                j.FoundText,
                j.Tripped,
                j.Told,
            })
            .ToListAsync(cancellation);
        circuit.Conditions = JsonSerializer.Serialize(
            Condition.Of(
                compiled.Upkeep,
                jobs.Select(j => new PastJob(j.OpenedAt, j.FoundFault, j.FoundText, j.Tripped, Told(j.Told))),
                series
            ),
            JournalJson.Options
        );
    }

    private static ImmutableArray<Circumstance> Told(string names) =>
        [.. names.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(Enum.Parse<Circumstance>)];

    /// <summary>When a repair fitted a part into each device last, by tag.</summary>
    private async Task<Dictionary<string, DateTimeOffset>> ReplacedAsync(Guid circuitId, CancellationToken cancellation)
    {
        var repairs = await db
            .Jobs.AsNoTracking()
            .Where(j => j.CircuitId == circuitId)
            .SelectMany(j => j.Journal.Where(r => r.Kind == nameof(Repair)))
            .Select(r => r.Json)
            .ToListAsync(cancellation);
        return repairs
            .Select(JobStore.ReadOrNull)
            .OfType<Repair>()
            .Where(r => r.Parts.Length > 0)
            .GroupBy(r => r.Unit)
            .ToDictionary(g => g.Key, g => g.Max(r => r.At));
    }

    private static SeriesValue ToValue(MeasuredRow row) =>
        new(new SeriesKey(row.What, row.Device, row.Points, row.State), row.At, row.Value);
}
