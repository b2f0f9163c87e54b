using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Something to be done on a circuit, as a list shows it.</summary>
/// <param name="Job">The job that it follows from; null for none.</param>
/// <param name="Due">The day by which it is to be done.</param>
/// <param name="DoneAt">Null while it is open.</param>
public sealed record FollowUpItem(
    Guid Id,
    Guid Circuit,
    string CircuitTag,
    string CircuitTitle,
    string Area,
    Guid? Job,
    string Text,
    DateOnly Due,
    string Who,
    DateTimeOffset? DoneAt,
    string DoneBy
);

/// <summary>What jobs left for later, with the day by which it is to be done.</summary>
public sealed class FollowUpStore(FehlerDb db, TimeProvider time)
{
    private const int MostOpen = 200,
        YearsAhead = 10;

    /// <exception cref="RefusedException">It says nothing, or no day that anybody plans for.</exception>
    /// <returns>Null when there is no such circuit, or the job is not one of its.</returns>
    public async Task<FollowUpItem?> AddAsync(
        Guid circuit,
        Guid? job,
        string text,
        DateOnly due,
        string who,
        CancellationToken cancellation
    )
    {
        text = text.Trim();
        Check(text, who);

        var today = DateOnly.FromDateTime(time.GetUtcNow().UtcDateTime);
        if (due < today.AddDays(-1) || due > today.AddYears(YearsAhead))
        {
            throw new RefusedException($"Give a day from today to {YearsAhead} years ahead.");
        }

        if (
            !await db.Circuits.AnyAsync(c => c.Id == circuit, cancellation)
            || (job is not null && !await db.Jobs.AnyAsync(j => j.Id == job && j.CircuitId == circuit, cancellation))
        )
        {
            return null;
        }

        if (await db.FollowUps.CountAsync(f => f.CircuitId == circuit && f.DoneAt == null, cancellation) >= MostOpen)
        {
            throw new RefusedException($"{MostOpen} things are open on this circuit already; do or drop some of them first.");
        }

        var row = new FollowUpRow
        {
            Id = Guid.CreateVersion7(),
            CircuitId = circuit,
            JobId = job,
            Text = text,
            Due = due,
            Who = who.Trim(),
            CreatedAt = time.GetUtcNow(),
        };
        db.FollowUps.Add(row);
        await db.SaveChangesAsync(cancellation);
        return await FindAsync(row.Id, cancellation);
    }

    /// <exception cref="RefusedException">It says nothing, or too much.</exception>
    internal static void Check(string? text, string? who)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            throw new RefusedException("Say what is to be done.");
        }

        if ((CircuitLimits.Refuse(text, EntryRules.Text) ?? CircuitLimits.Refuse(who ?? "", 60)) is { } wrong)
        {
            throw new RefusedException($"What is to be done {wrong}");
        }
    }

    /// <summary>Says that it was done; said again it stays as it was.</summary>
    /// <returns>Null when there is none of this id.</returns>
    public async Task<FollowUpItem?> DoneAsync(Guid id, string who, CancellationToken cancellation)
    {
        if (CircuitLimits.Refuse(who, 60) is { } wrong)
        {
            throw new RefusedException($"The name {wrong}");
        }

        var now = time.GetUtcNow();
        await db
            .FollowUps.Where(f => f.Id == id && f.DoneAt == null)
            .ExecuteUpdateAsync(f => f.SetProperty(x => x.DoneAt, now).SetProperty(x => x.DoneBy, who.Trim()), cancellation);
        return await FindAsync(id, cancellation);
    }

    /// <summary>A page of what is to be done, soonest first, or of what was done.</summary>
    /// <param name="query">Search words and page; sorted by due, circuitTag or text.</param>
    /// <param name="isDone">Those that were done.</param>
    /// <param name="circuit">Of this circuit only; null for all.</param>
    /// <param name="cancellation">Cancels it.</param>
    public Task<Page<FollowUpItem>> ListAsync(ListQuery query, bool isDone, Guid? circuit, CancellationToken cancellation)
    {
        var rows = query.Matching(
            db.FollowUps.AsNoTracking().Where(f => (f.DoneAt != null) == isDone && (circuit == null || f.CircuitId == circuit)),
            word =>
                f =>
                    EF.Functions.Like(f.Text.ToLower(), word, "\\")
                    || EF.Functions.Like(f.Circuit!.SearchText, word, "\\")
                    || EF.Functions.Like(f.Who.ToLower(), word, "\\")
        );
        rows = (query.Sort, query.Descending) switch
        {
            ("due" or "", false) => rows.OrderBy(f => f.Due).ThenBy(f => f.Id),
            ("due" or "", true) => rows.OrderByDescending(f => f.Due).ThenBy(f => f.Id),
            ("circuitTag", false) => rows.OrderBy(f => f.Circuit!.Tag).ThenBy(f => f.Due),
            ("circuitTag", true) => rows.OrderByDescending(f => f.Circuit!.Tag).ThenBy(f => f.Due),
            ("text", false) => rows.OrderBy(f => f.Text),
            ("text", true) => rows.OrderByDescending(f => f.Text),
            _ => throw query.UnknownSort("due, circuitTag or text"),
        };
        return query.PageAsync(rows, Item, cancellation);
    }

    private Task<FollowUpItem?> FindAsync(Guid id, CancellationToken cancellation) =>
        db.FollowUps.AsNoTracking().Where(f => f.Id == id).Select(Item).FirstOrDefaultAsync(cancellation);

    private static System.Linq.Expressions.Expression<Func<FollowUpRow, FollowUpItem>> Item =>
        f => new FollowUpItem(
            f.Id,
            f.CircuitId,
            f.Circuit!.Tag,
            f.Circuit.Title,
            f.Circuit.Area,
            f.JobId,
            f.Text,
            f.Due,
            f.Who,
            f.DoneAt,
            f.DoneBy
        );
}
