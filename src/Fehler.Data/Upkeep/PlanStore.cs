using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>What a line of the plan is.</summary>
public enum PlanKind
{
    /// <summary>By a rule.</summary>
    Upkeep,

    /// <summary>Written down by somebody, or left by a job.</summary>
    FollowUp,

    /// <summary>A job found nothing: it may come back.</summary>
    Watch,
}

/// <summary>A line of the plan.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Rule">Name of the rule; empty for a follow-up.</param>
/// <param name="Devices">Tags that it is about.</param>
/// <param name="Why">What moved it from its interval; empty otherwise.</param>
/// <param name="Last">When it was done last; null for never.</param>
/// <param name="Months">The interval that holds; 0 for what is done once.</param>
/// <param name="State">On the dead or on the live circuit; null where nobody said.</param>
/// <param name="Minutes">What it takes.</param>
/// <param name="Source">Where the rule comes from.</param>
/// <param name="Job">The job that it follows from; null for none.</param>
public sealed record PlanItem(
    string Id,
    PlanKind Kind,
    Guid Circuit,
    string CircuitTag,
    string CircuitTitle,
    string Area,
    string Enclosure,
    string Rule,
    string Title,
    ImmutableArray<string> Devices,
    DateOnly Due,
    string Why,
    DateTimeOffset? Last,
    int Months,
    UpkeepState? State,
    double Minutes,
    string Source,
    Guid? Job
);

/// <summary>Which lines of the plan are meant; what is left out does not narrow it.</summary>
public sealed record PlanFilter(
    string? Area = null,
    IReadOnlyCollection<string>? Enclosures = null,
    Guid? Circuit = null,
    DateOnly? Until = null,
    PlanKind? Kind = null,
    UpkeepState? State = null
);

/// <summary>An interval that is not the usual one.</summary>
/// <param name="Circuit">The circuit that it holds for; null for the plant.</param>
public sealed record OwnInterval(string Rule, Guid? Circuit, int Months);

/// <summary>A rule as the plant has it.</summary>
/// <param name="Usual">Months as the rule has it.</param>
/// <param name="Plant">Months as the plant has it; null for the usual.</param>
/// <param name="Circuits">How many circuits it is for.</param>
/// <param name="Minutes">What it took here, the middle of what was written down; null where that is less than three times.</param>
public sealed record PlantRule(string Id, string Title, int Usual, int? Plant, int Circuits, string Source, double? Minutes);

/// <summary>What is due on all circuits: by rule, by what jobs and values ask for, and by what was written down.</summary>
public sealed class PlanStore(FehlerDb db, Outlines outlines, TimeProvider time)
{
    /// <summary>A fault that was not found and has not come back in half a year is forgotten; it is looked after in a month.</summary>
    private const int WatchDays = 180,
        WatchAfterDays = 30;

    private const double FollowUpMinutes = 15;
    private const int MostMonths = 240;

    /// <summary>So many times something has to have been timed before the plant's own time is believed.</summary>
    private const int LeastTimed = 3;

    /// <summary>A page of the plan, what is due first in front.</summary>
    public async Task<Page<PlanItem>> ListAsync(ListQuery query, PlanFilter filter, CancellationToken cancellation)
    {
        var words = query.Words();
        IEnumerable<PlanItem> items = (await AllAsync(filter, cancellation)).Where(i =>
            words.All(w =>
                $"{i.CircuitTag} {i.CircuitTitle} {i.Area} {i.Enclosure} {i.Title} {i.Why} {string.Join(' ', i.Devices)}".Contains(
                    w,
                    StringComparison.OrdinalIgnoreCase
                )
            )
        );
        Func<PlanItem, IComparable> by = query.Sort switch
        {
            "due" or "" => i => i.Due,
            "circuitTag" => i => i.CircuitTag,
            "area" => i => i.Area,
            "title" => i => i.Title,
            "minutes" => i => i.Minutes,
            _ => throw query.UnknownSort("due, circuitTag, area, title or minutes"),
        };
        var sorted = (query.Descending ? items.OrderByDescending(by) : items.OrderBy(by))
            .ThenBy(i => i.Due)
            .ThenBy(i => i.CircuitTag, StringComparer.Ordinal)
            .ToList();
        var sound = query.Sound();
        return new Page<PlanItem>(sorted.Count, [.. sorted.Skip(sound.Skip).Take(sound.Take)]);
    }

    /// <summary>Every line that is meant.</summary>
    public async Task<List<PlanItem>> AllAsync(PlanFilter filter, CancellationToken cancellation)
    {
        var circuits = (await outlines.AllAsync(filter.Area, filter.Enclosures, cancellation))
            .Where(c => filter.Circuit is null || c.Id == filter.Circuit)
            .ToList();
        var items = (await RulesAsync(circuits, cancellation))
            .Concat(await FollowUpsAsync(circuits, cancellation))
            .Concat(await WatchedAsync(circuits, cancellation));
        return
        [
            .. items.Where(i =>
                (filter.Until is null || i.Due <= filter.Until)
                && (filter.Kind is null || i.Kind == filter.Kind)
                && (filter.State is null || i.State == filter.State)
            ),
        ];
    }

    /// <summary>The rules of all circuits, with the plant's own intervals and times.</summary>
    public async Task<List<PlantRule>> PlantRulesAsync(CancellationToken cancellation)
    {
        var circuits = await outlines.AllAsync(null, null, cancellation);
        var own = await IntervalsAsync(cancellation);
        var minutes = await OwnMinutesAsync(cancellation);
        return
        [
            .. circuits
                .SelectMany(c => c.Outline.Rules)
                .GroupBy(r => r.Id)
                .Select(g => new PlantRule(
                    g.Key,
                    g.First().Title,
                    g.First().Months,
                    own.TryGetValue((g.Key, Guid.Empty), out var plant) ? plant : null,
                    g.Count(),
                    g.First().Source,
                    minutes.TryGetValue(g.Key, out var took) ? took : null
                ))
                .OrderBy(r => r.Title, StringComparer.Ordinal),
        ];
    }

    /// <summary>Sets the time between two for the plant or for one circuit; null months go back to what held before.</summary>
    /// <exception cref="RefusedException">No such rule, or no number of months.</exception>
    public async Task SetIntervalAsync(string rule, Guid? circuit, int? months, CancellationToken cancellation)
    {
        if (months is < 0 or > MostMonths)
        {
            throw new RefusedException($"Give 0 to {MostMonths} months; 0 is never.");
        }

        var known = (await outlines.AllAsync(null, null, cancellation)).Where(c => circuit is null || c.Id == circuit);
        if (!known.Any(c => c.Outline.Rules.Any(r => r.Id == rule)))
        {
            throw new RefusedException($"“{rule}” is done on no such circuit.");
        }

        var id = circuit ?? Guid.Empty;
        var row = await db.Intervals.FirstOrDefaultAsync(i => i.Rule == rule && i.CircuitId == id, cancellation);
        if (months is not { } given)
        {
            db.Intervals.RemoveRange(row is null ? [] : [row]);
        }
        else if (row is null)
        {
            db.Intervals.Add(
                new IntervalRow
                {
                    Rule = rule,
                    CircuitId = id,
                    Months = given,
                }
            );
        }
        else
        {
            row.Months = given;
        }

        await db.SaveChangesAsync(cancellation);
    }

    private async Task<List<PlanItem>> RulesAsync(List<OutlinedCircuit> circuits, CancellationToken cancellation)
    {
        var own = await IntervalsAsync(cancellation);
        var minutes = await OwnMinutesAsync(cancellation);
        var done = await db
            .Work.GroupBy(w => new { w.CircuitId, w.Rule })
            .Select(g => new { g.Key, At = g.Max(w => w.At) })
            .ToDictionaryAsync(g => (g.Key.CircuitId, g.Key.Rule), g => g.At, cancellation);
        var proved = nameof(CloseOutcome.RepairedAndProved);
        var tested = await db
            .Jobs.Where(j => j.Outcome == proved && j.ClosedAt != null)
            .GroupBy(j => j.CircuitId)
            .Select(g => new { g.Key, At = g.Max(j => j.ClosedAt) })
            .ToDictionaryAsync(g => g.Key, g => g.At, cancellation);
        var items = new List<PlanItem>();
        foreach (var circuit in circuits)
        {
            foreach (var rule in circuit.Outline.Rules)
            {
                var months =
                    own.TryGetValue((rule.Id, circuit.Id), out var mine) ? mine
                    : own.TryGetValue((rule.Id, Guid.Empty), out var plant) ? plant
                    : rule.Months;
                if (months == 0)
                {
                    continue;
                }

                DateTimeOffset? last = done.TryGetValue((circuit.Id, rule.Id), out var at) ? at : null;
                if (rule.IsInFunctionTest && tested.TryGetValue(circuit.Id, out var proof) && (last is null || proof > last))
                {
                    last = proof;
                }

                var due = DueDay.Of(rule.Id, months, last, circuit.CreatedAt, circuit.Conditions);
                items.Add(
                    new PlanItem(
                        $"{rule.Id}@{circuit.Tag}",
                        PlanKind.Upkeep,
                        circuit.Id,
                        circuit.Tag,
                        circuit.Title,
                        circuit.Area,
                        circuit.Enclosure,
                        rule.Id,
                        rule.Title,
                        rule.Devices,
                        due.Due,
                        due.Why,
                        last,
                        months,
                        rule.State,
                        minutes.TryGetValue(rule.Id, out var took) ? took : rule.Minutes,
                        own.ContainsKey((rule.Id, circuit.Id)) || own.ContainsKey((rule.Id, Guid.Empty)) ? "the plant's own" : rule.Source,
                        null
                    )
                );
            }
        }

        return items;
    }

    private async Task<List<PlanItem>> FollowUpsAsync(List<OutlinedCircuit> circuits, CancellationToken cancellation)
    {
        var byId = circuits.ToDictionary(c => c.Id);
        var open = await db.FollowUps.AsNoTracking().Where(f => f.DoneAt == null).ToListAsync(cancellation);
        return
        [
            .. open.Where(f => byId.ContainsKey(f.CircuitId))
                .Select(f => Once(byId[f.CircuitId], PlanKind.FollowUp, f.Id, f.Text, f.Due, f.Who, f.JobId)),
        ];
    }

    /// <summary>Jobs that found nothing, unless something was found or looked after on their circuit since.</summary>
    private async Task<List<PlanItem>> WatchedAsync(List<OutlinedCircuit> circuits, CancellationToken cancellation)
    {
        var byId = circuits.ToDictionary(c => c.Id);
        var since = time.GetUtcNow().AddDays(-WatchDays);
        var (nothing, watch) = (nameof(CloseOutcome.NothingFound), WorkStore.Watch);
        var jobs = await db
            .Jobs.AsNoTracking()
            .Where(j => j.Outcome == nothing && j.ClosedAt >= since)
            .Where(j => !db.Jobs.Any(k => k.CircuitId == j.CircuitId && k.OpenedAt > j.OpenedAt))
            .Where(j => !db.Work.Any(w => w.CircuitId == j.CircuitId && w.Rule == watch && w.At > j.ClosedAt))
            .Select(j => new
            {
                j.Id,
                j.CircuitId,
                j.Title,
                j.ClosedAt,
            })
            .ToListAsync(cancellation);
        return
        [
            .. jobs.Where(j => byId.ContainsKey(j.CircuitId))
                .Select(j =>
                    Once(
                        byId[j.CircuitId],
                        PlanKind.Watch,
                        j.Id,
                        $"Nothing was found: “{j.Title}”. Look whether it came back",
                        DateOnly.FromDateTime(j.ClosedAt!.Value.UtcDateTime).AddDays(WatchAfterDays),
                        "",
                        j.Id
                    )
                ),
        ];
    }

    private static PlanItem Once(OutlinedCircuit circuit, PlanKind kind, Guid id, string text, DateOnly due, string who, Guid? job) =>
        new(
            $"{kind}:{id}",
            kind,
            circuit.Id,
            circuit.Tag,
            circuit.Title,
            circuit.Area,
            circuit.Enclosure,
            kind == PlanKind.Watch ? WorkStore.Watch : "",
            text,
            [],
            due,
            "",
            null,
            0,
            null,
            FollowUpMinutes,
            who,
            job
        );

    private Task<Dictionary<(string, Guid), int>> IntervalsAsync(CancellationToken cancellation) =>
        db.Intervals.AsNoTracking().ToDictionaryAsync(i => (i.Rule, i.CircuitId), i => i.Months, cancellation);

    /// <summary>The middle of what each rule took here, where it was timed often enough.</summary>
    private async Task<Dictionary<string, double>> OwnMinutesAsync(CancellationToken cancellation)
    {
        var timed = await db.Work.Where(w => w.Minutes > 0).Select(w => new { w.Rule, w.Minutes }).ToListAsync(cancellation);
        return timed
            .GroupBy(w => w.Rule)
            .Where(g => g.Count() >= LeastTimed)
            .ToDictionary(g => g.Key, g => g.Select(w => w.Minutes).Order().ElementAt(g.Count() / 2));
    }
}
