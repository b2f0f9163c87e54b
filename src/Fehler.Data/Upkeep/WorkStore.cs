using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Upkeep that was done, as it is written down.</summary>
/// <param name="Rule">Name of the rule that it answers.</param>
/// <param name="Who">Who did it.</param>
/// <param name="Text">What was found; may be empty.</param>
/// <param name="Minutes">What it took; 0 where nobody counted.</param>
/// <param name="Readings">What was measured, values as they were typed; trips and counters too.</param>
/// <param name="Working">What ran while it was measured, "M1 runs"; empty for dead work.</param>
/// <param name="At">When it was done; null for now.</param>
public sealed record DoneWork(
    string Rule,
    string Who,
    string Text,
    double Minutes,
    ImmutableArray<JournalEntry> Readings,
    string Working,
    DateTimeOffset? At
)
{
    /// <summary>An id of its own, so that what is sent twice is recorded once; empty for a new one.</summary>
    public Guid Id { get; init; }
}

/// <summary>Upkeep that was done, as a list shows it.</summary>
public sealed record WorkItem(Guid Id, string Rule, string Title, DateTimeOffset At, string Who, string Text, double Minutes);

/// <summary>Records upkeep. What is measured with it is checked as a job's readings are and goes into the circuit's series.</summary>
public sealed class WorkStore(FehlerDb db, CircuitStore circuits, FollowedValues followed, TimeProvider time)
{
    private const int MostReadings = 60;
    private const double MostMinutes = 10_000;

    /// <summary>Rule under which looking after a job that found nothing is recorded.</summary>
    public const string Watch = "watch";

    /// <summary>Records it.</summary>
    /// <returns>Null when there is no such circuit.</returns>
    /// <exception cref="RefusedException">Something in it cannot be taken.</exception>
    public async Task<WorkItem?> RecordAsync(Guid circuitId, DoneWork done, CancellationToken cancellation)
    {
        if (await circuits.FindAsync(circuitId, cancellation) is not { } found)
        {
            return null;
        }

        if (done.Id != Guid.Empty && await db.Work.AnyAsync(w => w.Id == done.Id, cancellation))
        {
            return await db.Work.Where(w => w.Id == done.Id).Select(Item).FirstAsync(cancellation);
        }

        var rule = found.Compiled.Upkeep.Find(done.Rule)?.Rule;
        if (rule is null && done.Rule != Watch)
        {
            throw new RefusedException(
                $"“{done.Rule}” is not done on this circuit; there are: {string.Join(", ", found.Compiled.Upkeep.All.Select(r => r.Rule.Id))}."
            );
        }

        var now = time.GetUtcNow();
        if ((CircuitLimits.Refuse(done.Text, EntryRules.Text) ?? CircuitLimits.Refuse(done.Who, 60)) is { } wrong)
        {
            throw new RefusedException($"What was found {wrong}");
        }

        if (CircuitLimits.Refuse(done.Working, EntryRules.Text) is { } unclear)
        {
            throw new RefusedException($"What ran {unclear}");
        }

        if (!(done.Minutes is >= 0 and <= MostMinutes) || done.At > now.AddDays(1))
        {
            throw new RefusedException("Minutes are 0 or more, and it was done today or before.");
        }

        var at = done.At ?? now;
        var entries = Understood(found.Compiled, rule?.State ?? UpkeepState.Live, done, at, now);
        var row = new WorkRow
        {
            Id = done.Id == Guid.Empty ? Guid.CreateVersion7() : done.Id,
            CircuitId = circuitId,
            Rule = done.Rule,
            Title = rule?.Title.ToString() ?? "Looked whether it came back",
            At = at,
            Who = done.Who.Trim(),
            Text = done.Text.Trim(),
            Minutes = done.Minutes,
            Working = done.Working,
            Json = JsonSerializer.Serialize(entries, JournalJson.Options),
        };
        db.Work.Add(row);
        await followed.DrawAsync(circuitId, row.Id, found.Compiled, found.Compiled.SeriesValues.Of(entries, done.Working), cancellation);
        await db.SaveChangesAsync(cancellation);
        return new WorkItem(row.Id, row.Rule, row.Title, row.At, row.Who, row.Text, row.Minutes);
    }

    /// <summary>A page of what was done on a circuit, the newest first.</summary>
    public Task<Page<WorkItem>> ListAsync(Guid circuitId, ListQuery query, CancellationToken cancellation) =>
        query.PageAsync(db.Work.AsNoTracking().Where(w => w.CircuitId == circuitId).OrderByDescending(w => w.At), Item, cancellation);

    private static System.Linq.Expressions.Expression<Func<WorkRow, WorkItem>> Item =>
        w => new WorkItem(w.Id, w.Rule, w.Title, w.At, w.Who, w.Text, w.Minutes);

    /// <summary>What was typed as entries; held against the circuit in the state that the rule has it in.</summary>
    private static List<JournalEntry> Understood(
        CompiledCircuit compiled,
        UpkeepState state,
        DoneWork done,
        DateTimeOffset at,
        DateTimeOffset now
    )
    {
        if (done.Readings.Length > MostReadings)
        {
            throw new RefusedException($"At most {MostReadings} values go with one piece of work.");
        }

        var job = JobState.Of(
            compiled,
            state == UpkeepState.Dead
                ? [new Isolated(compiled.Isolation.Points) { Sequence = 1 }, new ProvedDead(true, true) { Sequence = 2 }]
                : [new LiveWorkAcknowledged { Sequence = 1 }]
        );
        var entries = new List<JournalEntry>();
        foreach (var given in done.Readings)
        {
            if (given is not (ReadingAsTyped or Reading or TripTimed or CounterRead))
            {
                throw new RefusedException("With upkeep go readings, trip times and counters.");
            }

            var (entry, reason) = Taken(given, job, now);
            if (reason is not null)
            {
                throw new RefusedException(given is ReadingAsTyped typed ? $"{typed.From}–{typed.To} “{typed.Typed}”: {reason}" : reason);
            }

            entries.Add(entry with { Id = Guid.CreateVersion7(), At = at, Received = now, Who = done.Who });
        }

        return entries;
    }

    /// <summary>An entry as it is understood, or why it cannot be taken.</summary>
    private static (JournalEntry Entry, string? Refused) Taken(JournalEntry given, JobState job, DateTimeOffset now)
    {
        try
        {
            var reason = EntryRules.Refuse(given, now);
            var entry = reason is null && given is ReadingAsTyped typed ? typed.Understood() : given;
            return (entry, reason ?? job.Refuse(entry));
        }
        catch (RefusedException e)
        {
            return (given, e.Message);
        }
    }
}
