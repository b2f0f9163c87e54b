using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A window for which work is packed.</summary>
/// <param name="Title">What people call it.</param>
/// <param name="Begins">When it begins.</param>
/// <param name="Hours">How long it is.</param>
/// <param name="People">Electricians who are there.</param>
/// <param name="Area">Only this area; null for all.</param>
/// <param name="Enclosures">Only these enclosures; null for all.</param>
/// <param name="DaysAhead">What is due so many days after it may be done in it.</param>
public sealed record ShutdownWish(
    string Title,
    DateTimeOffset Begins,
    double Hours,
    int People,
    string? Area = null,
    ImmutableArray<string>? Enclosures = null,
    int DaysAhead = 90
);

/// <summary>A shutdown list with what has been done of it.</summary>
/// <param name="Items">The lines of the plan that it was packed from, by the id of their piece.</param>
/// <param name="Done">Ids of pieces that were done since.</param>
/// <param name="Parts">Parts fitted in what is worked on, with how many: what may have to be brought.</param>
public sealed record PackedShutdown(
    Guid Id,
    string Who,
    DateTimeOffset CreatedAt,
    ShutdownWish Wish,
    ShutdownList List,
    ImmutableArray<PlanItem> Items,
    ImmutableHashSet<string> Done,
    ImmutableArray<PartCount> Parts
);

/// <summary>How many of a part.</summary>
public sealed record PartCount(string Part, int Count);

/// <summary>A shutdown list as a list shows it.</summary>
public sealed record ShutdownListItem(Guid Id, string Title, DateTimeOffset Begins, string Who);

/// <summary>Packs what is due into a window, keeps the list, and knows what of it was done.</summary>
public sealed class ShutdownStore(FehlerDb db, PlanStore plan, Outlines outlines, TimeProvider time)
{
    private const int MostPeople = 50,
        MostDaysAhead = 730;
    private const double MostHours = 24 * 14;

    /// <summary>
    /// Something overdue by its whole interval counts double; what moved itself forward, or protects people, counts half as much again.
    /// </summary>
    private const double MovedFactor = 1.5;

    /// <summary>Dead work has to wait for a shutdown; what is done with the supply on need not.</summary>
    private const double DeadFactor = 3;

    private static readonly ImmutableHashSet<string> Protects = ["emergency-stop", "interlock", "overload"];

    /// <summary>Packs a window and keeps the list.</summary>
    /// <exception cref="RefusedException">The window makes no sense, or nothing is due in it.</exception>
    public async Task<PackedShutdown> PackAsync(ShutdownWish wish, string who, CancellationToken cancellation)
    {
        wish = Checked(wish, who);
        var circuits = (await outlines.AllAsync(wish.Area, wish.Enclosures, cancellation)).ToDictionary(c => c.Id);
        var day = DateOnly.FromDateTime(wish.Begins.LocalDateTime);
        var due = await plan.AllAsync(new PlanFilter(wish.Area, wish.Enclosures, Until: day.AddDays(wish.DaysAhead)), cancellation);
        if (due.Count == 0)
        {
            throw new RefusedException("Nothing is due there by that day; take more days ahead, or another area.");
        }

        // Nothing runs under its load while the plant stands.
        bool NeedsLoad(PlanItem item) => circuits[item.Circuit].Outline.Rules.Any(r => r.Id == item.Rule && r.NeedsLoad);
        var items = due.Where(i => !NeedsLoad(i)).GroupBy(i => i.Id).ToDictionary(g => g.Key, g => g.First());
        var list = await Task.Run(
            () => ShutdownList.Pack([.. items.Values.Select(i => Piece(i, circuits[i.Circuit], day))], 60 * wish.Hours, wish.People),
            cancellation
        );
        var row = new ShutdownRow
        {
            Id = Guid.CreateVersion7(),
            Title = wish.Title,
            Begins = wish.Begins,
            CreatedAt = time.GetUtcNow(),
            Who = who.Trim(),
            Json = JsonSerializer.Serialize(new Kept(wish, list, [.. items.Values], Parts(list, items, circuits)), JournalJson.Options),
        };
        db.Shutdowns.Add(row);
        await db.SaveChangesAsync(cancellation);
        return await ReadAsync(row, cancellation);
    }

    /// <summary>A kept list; null when there is none of this id.</summary>
    public async Task<PackedShutdown?> FindAsync(Guid id, CancellationToken cancellation) =>
        await db.Shutdowns.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id, cancellation) is { } row
            ? await ReadAsync(row, cancellation)
            : null;

    /// <summary>A page of the kept lists, the latest first.</summary>
    public Task<Page<ShutdownListItem>> ListAsync(ListQuery query, CancellationToken cancellation) =>
        query.PageAsync(
            db.Shutdowns.AsNoTracking().OrderByDescending(s => s.Begins).ThenByDescending(s => s.Id),
            s => new ShutdownListItem(s.Id, s.Title, s.Begins, s.Who),
            cancellation
        );

    private static ShutdownWish Checked(ShutdownWish wish, string who) =>
        !(wish.Hours is > 0 and <= MostHours) ? throw new RefusedException($"A window has more than 0 and at most {MostHours:0} hours.")
        : wish.People is < 1 or > MostPeople ? throw new RefusedException($"1 to {MostPeople} people can be planned for.")
        : wish.DaysAhead is < 0 or > MostDaysAhead ? throw new RefusedException($"0 to {MostDaysAhead} days ahead can be taken.")
        : (CircuitLimits.Refuse(wish.Title, 120) ?? CircuitLimits.Refuse(who, 60)) is { } wrong
            ? throw new RefusedException($"The name of the shutdown {wrong}")
        : wish with { Title = wish.Title.Trim() is { Length: > 0 } title ? title : $"Shutdown of {wish.Begins.LocalDateTime:yyyy-MM-dd}" };

    private static ShutdownPiece Piece(PlanItem item, OutlinedCircuit circuit, DateOnly day)
    {
        var late =
            item.Months > 0 ? (day.DayNumber - item.Due.DayNumber) / (30.44 * item.Months) : (day.DayNumber - item.Due.DayNumber) / 90.0;
        var worth =
            Math.Clamp(1 + late, 0.3, 3)
            * (item.Why.Length > 0 || item.Kind != PlanKind.Upkeep ? MovedFactor : 1)
            * (item.State is null or UpkeepState.Dead ? DeadFactor : 1)
            * (Protects.Contains(item.Rule) ? MovedFactor : 1);
        return new ShutdownPiece(
            item.Id,
            circuit.Tag,
            circuit.Enclosure,
            string.Join(", ", circuit.Outline.Isolation),
            item.Title,
            // What nobody has said of is done on the dead circuit.
            item.State
                ?? UpkeepState.Dead,
            Math.Max(1, item.Minutes),
            worth,
            Math.Ceiling(CircuitOutline.MinutesAStep * circuit.Outline.TestSteps)
        );
    }

    private static ImmutableArray<PartCount> Parts(
        ShutdownList list,
        Dictionary<string, PlanItem> items,
        Dictionary<Guid, OutlinedCircuit> circuits
    ) =>
        [
            .. list
                .People.SelectMany(p => p.Visits)
                .SelectMany(v => v.Dead.Concat(v.Live))
                .Select(p => items[p.Id])
                .SelectMany(i => circuits[i.Circuit].Outline.Parts.Where(p => i.Devices.Contains(p.Device)))
                .GroupBy(p => p.Name)
                .Select(g => new PartCount(g.Key, g.Count()))
                .OrderByDescending(p => p.Count)
                .ThenBy(p => p.Part, StringComparer.Ordinal),
        ];

    private async Task<PackedShutdown> ReadAsync(ShutdownRow row, CancellationToken cancellation)
    {
        var kept = JsonSerializer.Deserialize<Kept>(row.Json, JournalJson.Options)!;
        var ids = kept.Items.Select(i => i.Circuit).Distinct().ToList();
        var since = row.CreatedAt;
        var done = await db
            .Work.AsNoTracking()
            .Where(w => ids.Contains(w.CircuitId) && w.At >= since)
            .Select(w => new { w.CircuitId, w.Rule })
            .ToListAsync(cancellation);
        var ticked = await db
            .FollowUps.AsNoTracking()
            .Where(f => ids.Contains(f.CircuitId) && f.DoneAt != null)
            .Select(f => f.Id)
            .ToListAsync(cancellation);
        return new PackedShutdown(
            row.Id,
            row.Who,
            row.CreatedAt,
            kept.Wish,
            kept.List,
            kept.Items,
            [
                .. kept
                    .Items.Where(i =>
                        i.Kind == PlanKind.FollowUp
                            ? ticked.Exists(t => i.Id.EndsWith(t.ToString(), StringComparison.Ordinal))
                            : done.Exists(d => d.CircuitId == i.Circuit && d.Rule == i.Rule)
                    )
                    .Select(i => i.Id),
            ],
            kept.Parts
        );
    }

    private sealed record Kept(ShutdownWish Wish, ShutdownList List, ImmutableArray<PlanItem> Items, ImmutableArray<PartCount> Parts);
}
