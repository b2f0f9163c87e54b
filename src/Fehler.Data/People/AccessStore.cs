using Fehler.Core.Circuits;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A session, for its person.</summary>
public sealed record SessionItem(string Device, DateTimeOffset BeganAt, DateTimeOffset LastSeen);

/// <summary>A trusted device, for the eye.</summary>
public sealed record DeviceItem(Guid Id, string Name, string TrustedBy, DateTimeOffset TrustedAt);

/// <summary>A token, for the eye; its key is shown once, when it is made.</summary>
public sealed record TokenItem(
    Guid Id,
    string Name,
    string Person,
    Rights Rights,
    DateTimeOffset CreatedAt,
    DateTimeOffset? Expires,
    DateTimeOffset? LastUsed
);

/// <summary>A session as it stands, with its person.</summary>
public sealed record FoundSession(Person Person, string Device, DateTimeOffset BeganAt, DateTimeOffset Expires);

/// <summary>What lets somebody in without a password: sessions of browsers, trusted devices, tokens of programs. Only hashes are kept.</summary>
public sealed class AccessStore(FehlerDb db, SecurityLog log, TimeProvider time)
{
    private const int LongestName = 60,
        MostTokens = 20;

    private static readonly TimeSpan UseIsNoted = TimeSpan.FromMinutes(1);

    /// <summary>Puts a session down under its key.</summary>
    public async Task BeginSessionAsync(string key, Guid person, string device, DateTimeOffset expires, CancellationToken cancellation)
    {
        var now = time.GetUtcNow();
        await db.Sessions.Where(s => s.Expires < now).ExecuteDeleteAsync(cancellation);
        db.Sessions.Add(
            new SessionRow
            {
                KeyHash = Secrets.Hash(key),
                PersonId = person,
                Device = device.Length > LongestName ? device[..LongestName] : device,
                BeganAt = now,
                LastSeen = now,
                Expires = expires,
            }
        );
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>The session of a key; null when it has ended.</summary>
    public async Task<FoundSession?> SessionAsync(string key, CancellationToken cancellation)
    {
        var (hash, now) = (Secrets.Hash(key), time.GetUtcNow());
        var row = await db
            .Sessions.AsNoTracking()
            .Include(s => s.Person)
            .FirstOrDefaultAsync(s => s.KeyHash == hash && s.Expires > now && s.Person!.RemovedAt == null, cancellation);
        return row is null ? null : new FoundSession(row.Person!, row.Device, row.BeganAt, row.Expires);
    }

    /// <summary>A session that was used goes on until later.</summary>
    public async Task RenewSessionAsync(string key, DateTimeOffset expires, CancellationToken cancellation)
    {
        var (hash, now) = (Secrets.Hash(key), time.GetUtcNow());
        await db
            .Sessions.Where(s => s.KeyHash == hash)
            .ExecuteUpdateAsync(s => s.SetProperty(x => x.Expires, expires).SetProperty(x => x.LastSeen, now), cancellation);
    }

    /// <summary>Ends a session.</summary>
    public async Task EndSessionAsync(string key, CancellationToken cancellation)
    {
        var hash = Secrets.Hash(key);
        await db.Sessions.Where(s => s.KeyHash == hash).ExecuteDeleteAsync(cancellation);
    }

    /// <summary>Where a person is signed in.</summary>
    public async Task<IReadOnlyList<SessionItem>> SessionsAsync(Guid person, CancellationToken cancellation)
    {
        var now = time.GetUtcNow();
        return await db
            .Sessions.AsNoTracking()
            .Where(s => s.PersonId == person && s.Expires > now)
            .OrderByDescending(s => s.LastSeen)
            .Select(s => new SessionItem(s.Device, s.BeganAt, s.LastSeen))
            .ToListAsync(cancellation);
    }

    /// <summary>Trusts the device that asks.</summary>
    /// <returns>The key that the device keeps.</returns>
    public async Task<string> TrustAsync(string name, string by, Whence from, CancellationToken cancellation)
    {
        if ((CircuitLimits.Refuse(name, LongestName) ?? (string.IsNullOrWhiteSpace(name) ? "Give the device a name." : null)) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        var key = Secrets.New();
        db.Devices.Add(
            new DeviceRow
            {
                Id = Guid.CreateVersion7(),
                Name = name.Trim(),
                KeyHash = Secrets.Hash(key),
                TrustedBy = by,
                TrustedAt = time.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(cancellation);
        await log.AddAsync("device trusted", name.Trim(), by, from, "", cancellation);
        return key;
    }

    /// <summary>Name of the trusted device of a key; null when it is not trusted.</summary>
    public async Task<string?> DeviceAsync(string? key, CancellationToken cancellation)
    {
        if (string.IsNullOrEmpty(key))
        {
            return null;
        }

        var hash = Secrets.Hash(key);
        return await db.Devices.AsNoTracking().Where(d => d.KeyHash == hash).Select(d => d.Name).FirstOrDefaultAsync(cancellation);
    }

    /// <summary>Trusted devices, by name.</summary>
    public async Task<IReadOnlyList<DeviceItem>> DevicesAsync(CancellationToken cancellation) =>
        await db
            .Devices.AsNoTracking()
            .OrderBy(d => d.Name)
            .Select(d => new DeviceItem(d.Id, d.Name, d.TrustedBy, d.TrustedAt))
            .ToListAsync(cancellation);

    /// <summary>Trusts a device no more; who is signed in on it is signed out.</summary>
    public async Task<bool> DistrustAsync(Guid id, string by, Whence from, CancellationToken cancellation)
    {
        if (await db.Devices.FirstOrDefaultAsync(d => d.Id == id, cancellation) is not { } device)
        {
            return false;
        }

        db.Devices.Remove(device);
        await db.SaveChangesAsync(cancellation);
        await db.Sessions.Where(s => s.Device == device.Name).ExecuteDeleteAsync(cancellation);
        await log.AddAsync("device no longer trusted", device.Name, by, from, "", cancellation);
        return true;
    }

    /// <summary>Makes a token for a program of a person.</summary>
    /// <returns>The key, shown this once.</returns>
    public async Task<(TokenItem Token, string Key)> AddTokenAsync(
        Person person,
        string name,
        Rights rights,
        DateTimeOffset? expires,
        Whence from,
        CancellationToken cancellation
    )
    {
        if ((CircuitLimits.Refuse(name, LongestName) ?? (string.IsNullOrWhiteSpace(name) ? "Name the program." : null)) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        if ((rights & ~person.Rights) != 0)
        {
            throw new RefusedException("A token may do no more than its person.");
        }

        if (await db.Tokens.CountAsync(t => t.PersonId == person.Id, cancellation) >= MostTokens)
        {
            throw new RefusedException($"There are {MostTokens} tokens already; take back those that are not used.");
        }

        var key = $"fehler_{Secrets.New()}";
        var row = new TokenRow
        {
            Id = Guid.CreateVersion7(),
            PersonId = person.Id,
            Name = name.Trim(),
            KeyHash = Secrets.Hash(key),
            Rights = rights,
            CreatedAt = time.GetUtcNow(),
            Expires = expires,
        };
        db.Tokens.Add(row);
        await db.SaveChangesAsync(cancellation);
        await log.AddAsync("token made", person.Name, "", from, $"{row.Name}: {rights}", cancellation);
        return (new TokenItem(row.Id, row.Name, person.Name, rights, row.CreatedAt, expires, null), key);
    }

    /// <summary>The token of a key; null when there is none, or it has run out. That it was used is noted.</summary>
    public async Task<TokenRow?> TokenAsync(string key, CancellationToken cancellation)
    {
        var (hash, now) = (Secrets.Hash(key), time.GetUtcNow());
        var row = await db
            .Tokens.AsNoTracking()
            .Include(t => t.Person)
            .FirstOrDefaultAsync(
                t => t.KeyHash == hash && (t.Expires == null || t.Expires > now) && t.Person!.RemovedAt == null,
                cancellation
            );
        if (row is not null && (row.LastUsed is not { } last || now - last > UseIsNoted))
        {
            await db.Tokens.Where(t => t.Id == row.Id).ExecuteUpdateAsync(s => s.SetProperty(t => t.LastUsed, now), cancellation);
        }

        return row;
    }

    /// <summary>Tokens of a person, or of everybody.</summary>
    public async Task<IReadOnlyList<TokenItem>> TokensAsync(Guid? person, CancellationToken cancellation) =>
        await db
            .Tokens.AsNoTracking()
            .Where(t => person == null || t.PersonId == person)
            .OrderBy(t => t.Name)
            .Select(t => new TokenItem(t.Id, t.Name, t.Person!.UserName!, t.Rights, t.CreatedAt, t.Expires, t.LastUsed))
            .ToListAsync(cancellation);

    /// <summary>Takes a token back.</summary>
    /// <param name="id">The token.</param>
    /// <param name="person">Whose it has to be; null: anybody's.</param>
    /// <param name="by">Who takes it back.</param>
    /// <param name="from">From where.</param>
    /// <param name="cancellation">Cancels it.</param>
    public async Task<bool> RevokeAsync(Guid id, Guid? person, string by, Whence from, CancellationToken cancellation)
    {
        var row = await db.Tokens.Include(t => t.Person).FirstOrDefaultAsync(t => t.Id == id, cancellation);
        if (row is null || (person is not null && row.PersonId != person))
        {
            return false;
        }

        db.Tokens.Remove(row);
        await db.SaveChangesAsync(cancellation);
        await log.AddAsync("token taken back", row.Person!.Name, by, from, row.Name, cancellation);
        return true;
    }
}
