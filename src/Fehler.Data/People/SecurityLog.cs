using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>From where something was done: on which device, and at which address of the network.</summary>
public sealed record Whence(string Device, string Address);

/// <summary>An event of the security log, for the eye.</summary>
public sealed record SecurityEvent(DateTimeOffset At, string Kind, string Who, string By, string Device, string Address, string Detail);

/// <summary>
/// What happened that matters for security: signing in and failing to, rights, tokens, devices. Holds no password, PIN or key.
/// </summary>
public sealed class SecurityLog(FehlerDb db, TimeProvider time)
{
    private static readonly TimeSpan Kept = TimeSpan.FromDays(400);

    /// <summary>Puts an event down.</summary>
    /// <param name="kind">What happened, in words.</param>
    /// <param name="who">Whom it is about.</param>
    /// <param name="by">Who did it; empty: the same.</param>
    /// <param name="from">From where.</param>
    /// <param name="detail">More, where there is more to say.</param>
    /// <param name="cancellation">Cancels it.</param>
    public async Task AddAsync(string kind, string who, string by, Whence from, string detail, CancellationToken cancellation)
    {
        var now = time.GetUtcNow();
        db.SecurityEvents.Add(
            new SecurityEventRow
            {
                Id = Guid.CreateVersion7(),
                At = now,
                Kind = kind,
                Who = Short(who),
                By = Short(by),
                Device = Short(from.Device),
                Address = Short(from.Address),
                Detail = Short(detail),
            }
        );
        await db.SaveChangesAsync(cancellation);
        await db.SecurityEvents.Where(e => e.At < now - Kept).ExecuteDeleteAsync(cancellation);
    }

    /// <summary>The log, newest first.</summary>
    public Task<Page<SecurityEvent>> ListAsync(ListQuery query, CancellationToken cancellation)
    {
        var rows = query.Matching(
            db.SecurityEvents.AsNoTracking(),
            word =>
                e =>
                    EF.Functions.Like(e.Kind.ToLower(), word, "\\")
                    || EF.Functions.Like(e.Who.ToLower(), word, "\\")
                    || EF.Functions.Like(e.By.ToLower(), word, "\\")
                    || EF.Functions.Like(e.Detail.ToLower(), word, "\\")
        );
        rows = query.Sort switch
        {
            "" or "at" => query.Sort.Length > 0 && !query.Descending ? rows.OrderBy(e => e.At) : rows.OrderByDescending(e => e.At),
            "kind" => query.Descending ? rows.OrderByDescending(e => e.Kind) : rows.OrderBy(e => e.Kind),
            "who" => query.Descending ? rows.OrderByDescending(e => e.Who) : rows.OrderBy(e => e.Who),
            _ => throw query.UnknownSort("at, kind or who"),
        };
        return query.PageAsync(rows, e => new SecurityEvent(e.At, e.Kind, e.Who, e.By, e.Device, e.Address, e.Detail), cancellation);
    }

    private static string Short(string text) => text.Length > 200 ? text[..200] : text;
}
