using Fehler.Core.Circuits;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A person, for the eye.</summary>
/// <param name="HasPin">A PIN is set.</param>
/// <param name="HasCodes">Signing in with the password asks for a one-time code as well.</param>
/// <param name="LockedUntil">Too many wrong tries: signing in is refused until then.</param>
/// <param name="Sessions">Browsers that are signed in.</param>
public sealed record PersonItem(
    Guid Id,
    string Name,
    Rights Rights,
    bool NeedsSecond,
    bool HasPin,
    bool HasCodes,
    DateTimeOffset? LockedUntil,
    DateTimeOffset? LastSeen,
    int Sessions
);

/// <summary>What a person may do, as an administrator sets it.</summary>
public sealed record PersonSettings(Rights Rights, bool NeedsSecond);

/// <summary>How something that is asked beside a password was answered.</summary>
public enum Answer
{
    Right,
    Wrong,

    /// <summary>It was not given: it is asked for.</summary>
    Missing,
}

/// <summary>
/// People who sign in: who they are, what they may do, and whether what they give is right. Wrong tries are counted and lock the person for
/// a while; every change is in the security log.
/// </summary>
public sealed class PeopleStore(
    FehlerDb db,
    UserManager<Person> people,
    IPasswordHasher<Person> hasher,
    SecurityLog log,
    Turns turns,
    TimeProvider time
)
{
    private const string Turn = "people";

    /// <summary>What is compared with when there is nobody of a name, so that an answer takes as long as for one who is there.</summary>
    private static readonly Person Nobody = new() { UserName = "nobody" };

    private static string? _hashOfNobody;

    /// <summary>Whether anybody can sign in at all.</summary>
    public Task<bool> AnyAsync(CancellationToken cancellation) => People.AnyAsync(cancellation);

    private IQueryable<Person> People => db.Users.Where(p => p.RemovedAt == null);

    /// <summary>Everybody, by name.</summary>
    public Task<Page<PersonItem>> ListAsync(ListQuery query, CancellationToken cancellation)
    {
        var rows = query.Matching(People.AsNoTracking(), word => p => EF.Functions.Like(p.UserName!.ToLower(), word, "\\"));
        rows = query.Sort switch
        {
            "" or "name" => query.Descending ? rows.OrderByDescending(p => p.UserName) : rows.OrderBy(p => p.UserName),
            _ => throw query.UnknownSort("name"),
        };
        return query.PageAsync(
            rows,
            p => new PersonItem(
                p.Id,
                p.UserName!,
                p.Rights,
                p.NeedsSecond,
                p.PinHash != null,
                p.TwoFactorEnabled,
                p.LockoutEnd,
                db.Sessions.Where(s => s.PersonId == p.Id).Max(s => (DateTimeOffset?)s.LastSeen),
                db.Sessions.Count(s => s.PersonId == p.Id)
            ),
            cancellation
        );
    }

    /// <summary>Names of those who can sign in with a PIN, and of those who can stand by as a second person.</summary>
    public async Task<(IReadOnlyList<string> WithPin, IReadOnlyList<string> Seconds)> NamesAsync(CancellationToken cancellation)
    {
        var all = await People
            .AsNoTracking()
            .OrderBy(p => p.UserName)
            .Select(p => new
            {
                p.UserName,
                HasPin = p.PinHash != null,
                p.NeedsSecond,
                p.Rights,
            })
            .ToListAsync(cancellation);
        return (
            [.. all.Where(p => p.HasPin).Select(p => p.UserName!)],
            [.. all.Where(p => !p.NeedsSecond && p.Rights.HasFlag(Rights.Jobs)).Select(p => p.UserName!)]
        );
    }

    /// <summary>The first administrator; refused once there is anybody.</summary>
    /// <exception cref="RefusedException">There is somebody already, or name or password will not do.</exception>
    public Task<Person> FirstAsync(string name, string password, Whence from, CancellationToken cancellation) =>
        turns.InTurnAsync(
            Turn,
            async () =>
            {
                if (await AnyAsync(cancellation))
                {
                    throw new RefusedException("There is an administrator already; sign in.");
                }

                return await CreateAsync(name, password, new PersonSettings(Rights.All, false), name, from, cancellation);
            },
            cancellation
        );

    /// <summary>Adds a person.</summary>
    /// <exception cref="RefusedException">The name is taken, or name or password will not do.</exception>
    public Task<Person> AddAsync(
        string name,
        string password,
        PersonSettings settings,
        string by,
        Whence from,
        CancellationToken cancellation
    ) => turns.InTurnAsync(Turn, () => CreateAsync(name, password, settings, by, from, cancellation), cancellation);

    private async Task<Person> CreateAsync(
        string name,
        string password,
        PersonSettings settings,
        string by,
        Whence from,
        CancellationToken cancellation
    )
    {
        name = name.Trim();
        if ((PasswordRules.RefuseName(name) ?? PasswordRules.Refuse(password, name)) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        if (await people.FindByNameAsync(name) is not null)
        {
            throw new RefusedException($"There is, or was, somebody called {name}; add something that tells them apart.");
        }

        var person = new Person
        {
            Id = Guid.CreateVersion7(),
            UserName = name,
            Rights = settings.Rights & Rights.All,
            NeedsSecond = settings.NeedsSecond,
            CreatedAt = time.GetUtcNow(),
        };
        Sound(await people.CreateAsync(person, password));
        await log.AddAsync("person added", name, by, from, RightsWords(settings), cancellation);
        return person;
    }

    /// <summary>Sets what a person may do; the last administrator stays one.</summary>
    public async Task<bool> SetAsync(Guid id, PersonSettings settings, string by, Whence from, CancellationToken cancellation) =>
        await turns.InTurnAsync(
            Turn,
            async () =>
            {
                if (await FindAsync(id, cancellation) is not { } person)
                {
                    return false;
                }

                if (!settings.Rights.HasFlag(Rights.Administration))
                {
                    await KeepAnAdministratorAsync(person, cancellation);
                }

                (person.Rights, person.NeedsSecond) = (settings.Rights & Rights.All, settings.NeedsSecond);
                await db.SaveChangesAsync(cancellation);
                await log.AddAsync("rights set", person.Name, by, from, RightsWords(settings), cancellation);
                return true;
            },
            cancellation
        );

    /// <summary>A new password for somebody who has lost theirs; signs them out everywhere and unlocks them.</summary>
    public async Task<bool> ResetAsync(Guid id, string password, string by, Whence from, CancellationToken cancellation)
    {
        if (await FindAsync(id, cancellation) is not { } person)
        {
            return false;
        }

        await ResetAsync(person, password, by, from, cancellation);
        return true;
    }

    /// <summary>The same for somebody of this name, by whoever has the data in hand.</summary>
    /// <exception cref="RefusedException">There is nobody of this name.</exception>
    public async Task ResetAsync(string name, string password, Whence from, CancellationToken cancellation)
    {
        if (await people.FindByNameAsync(name.Trim()) is not { RemovedAt: null } person)
        {
            var names = await People.OrderBy(p => p.UserName).Select(p => p.UserName!).Take(20).ToListAsync(cancellation);
            throw new RefusedException(
                names.Count == 0
                    ? "Nobody can sign in yet; the first administrator is made in the browser."
                    : $"There is nobody called {name}. There are: {string.Join(", ", names)}."
            );
        }

        await ResetAsync(person, password, from.Device, from, cancellation);
    }

    private async Task ResetAsync(Person person, string password, string by, Whence from, CancellationToken cancellation)
    {
        if (PasswordRules.Refuse(password, person.Name) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        person.PasswordHash = hasher.HashPassword(person, password);
        (person.LockoutEnd, person.AccessFailedCount, person.PinHash) = (null, 0, null);
        await ForgetCodesAsync(person, cancellation);
        await EndSessionsAsync(person, by, from, cancellation);
        await log.AddAsync("password reset", person.Name, by, from, "PIN and one-time codes were taken away too", cancellation);
    }

    /// <summary>Takes a person out; nobody is called so again. With <paramref name="replace"/> the name is replaced in every record.</summary>
    public Task<bool> RemoveAsync(Guid id, string? replace, string by, Whence from, CancellationToken cancellation) =>
        turns.InTurnAsync(
            Turn,
            async () =>
            {
                if (await FindAsync(id, cancellation) is not { } person)
                {
                    return false;
                }

                await KeepAnAdministratorAsync(person, cancellation);
                var name = person.Name;
                await EndSessionsAsync(person, by, from, cancellation);
                await db.Tokens.Where(t => t.PersonId == id).ExecuteDeleteAsync(cancellation);
                (person.RemovedAt, person.PasswordHash, person.PinHash, person.Rights) = (time.GetUtcNow(), null, null, Rights.None);
                await ForgetCodesAsync(person, cancellation);
                if (replace is { Length: > 0 })
                {
                    if (PasswordRules.RefuseName(replace) is { } wrong)
                    {
                        throw new RefusedException(wrong);
                    }

                    await NameInRecords.ReplaceAsync(db, name, replace.Trim(), cancellation);
                    Sound(await people.SetUserNameAsync(person, $"{replace.Trim()} {person.Id}"));
                    name = replace.Trim();
                }

                await log.AddAsync(
                    "person removed",
                    name,
                    by,
                    from,
                    replace is null ? "" : "the name was replaced in all records",
                    cancellation
                );
                return true;
            },
            cancellation
        );

    /// <summary>The person of a name and password; null when they do not go together or the person is locked.</summary>
    public Task<Person?> ByPasswordAsync(string name, string password, Whence from, CancellationToken cancellation) =>
        ByPasswordAsync(name, password, from, _ => Task.FromResult(Answer.Right), cancellation);

    /// <summary>The same, and what has to be right besides once the password is.</summary>
    public Task<Person?> ByPasswordAsync(
        string name,
        string password,
        Whence from,
        Func<Person, Task<Answer>> besides,
        CancellationToken cancellation
    ) => TriedAsync(name, from, "password", p => Verifies(p.PasswordHash, p, password), besides, cancellation);

    /// <summary>The person of a name and PIN; null when they do not go together, none is set or the person is locked.</summary>
    public Task<Person?> ByPinAsync(string name, string pin, Whence from, CancellationToken cancellation) =>
        TriedAsync(name, from, "PIN", p => Verifies(p.PinHash, p, pin), _ => Task.FromResult(Answer.Right), cancellation);

    private async Task<Person?> TriedAsync(
        string name,
        Whence from,
        string what,
        Func<Person, bool> isRight,
        Func<Person, Task<Answer>> besides,
        CancellationToken cancellation
    )
    {
        var person = await people.FindByNameAsync(name.Trim());
        if (person is null or { RemovedAt: not null })
        {
            _ = Verifies(_hashOfNobody ??= hasher.HashPassword(Nobody, Secrets.New()), Nobody, name);
            await log.AddAsync("sign-in refused", name, "", from, "nobody of this name", cancellation);
            return null;
        }

        if (await people.IsLockedOutAsync(person))
        {
            await log.AddAsync("sign-in refused", person.Name, "", from, "locked after too many wrong tries", cancellation);
            return null;
        }

        var (first, second) = (isRight(person), Answer.Missing);
        if (first)
        {
            second = await besides(person);
            if (second == Answer.Missing)
            {
                // Neither a wrong try nor a right one: the count of wrong ones stays, or the codes could be tried without end.
                return null;
            }
        }

        if (second != Answer.Right)
        {
            Sound(await people.AccessFailedAsync(person));
            var locked = await people.IsLockedOutAsync(person);
            var wrong = $"wrong {(first ? "one-time code" : what)}";
            await log.AddAsync(locked ? "person locked" : "sign-in refused", person.Name, "", from, wrong, cancellation);
            return null;
        }

        if (person.AccessFailedCount > 0)
        {
            Sound(await people.ResetAccessFailedCountAsync(person));
        }

        return person;
    }

    /// <summary>Changes one's own password; signs out everywhere else.</summary>
    public async Task ChangePasswordAsync(Person person, string now, string then, Whence from, CancellationToken cancellation)
    {
        if (await ByPasswordAsync(person.Name, now, from, cancellation) is null)
        {
            throw new RefusedException("The present password is not right.");
        }

        if (PasswordRules.Refuse(then, person.Name) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        person.PasswordHash = hasher.HashPassword(person, then);
        await db.SaveChangesAsync(cancellation);
        await EndSessionsAsync(person, person.Name, from, cancellation);
        await log.AddAsync("password changed", person.Name, "", from, "", cancellation);
    }

    /// <summary>Asks for one's own password once more before something that matters.</summary>
    /// <exception cref="RefusedException">It is not right.</exception>
    internal async Task CheckPasswordAsync(Person person, string password, Whence from, CancellationToken cancellation)
    {
        if (await ByPasswordAsync(person.Name, password, from, cancellation) is null)
        {
            throw new RefusedException("The password is not right.");
        }
    }

    /// <summary>Sets one's own PIN.</summary>
    public async Task SetPinAsync(Person person, string password, string pin, Whence from, CancellationToken cancellation)
    {
        await CheckPasswordAsync(person, password, from, cancellation);
        if (PasswordRules.RefusePin(pin) is { } wrong)
        {
            throw new RefusedException(wrong);
        }

        person.PinHash = hasher.HashPassword(person, pin);
        await db.SaveChangesAsync(cancellation);
        await log.AddAsync("PIN set", person.Name, "", from, "", cancellation);
    }

    /// <summary>No second factor any more: neither a key nor spare codes. Saves whatever else was changed of the person.</summary>
    internal async Task ForgetCodesAsync(Person person, CancellationToken cancellation)
    {
        (person.TwoFactorEnabled, person.SpareCodes, person.LastCodeHash, person.LastCodeAt) = (false, null, null, null);
        await db.UserTokens.Where(t => t.UserId == person.Id).ExecuteDeleteAsync(cancellation);
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>Signs a person out of every browser.</summary>
    public async Task<int> EndSessionsAsync(Person person, string by, Whence from, CancellationToken cancellation)
    {
        var ended = await db.Sessions.Where(s => s.PersonId == person.Id).ExecuteDeleteAsync(cancellation);
        await log.AddAsync("signed out everywhere", person.Name, by, from, $"sessions ended: {ended}", cancellation);
        return ended;
    }

    /// <summary>A person by id; null when there is none.</summary>
    public Task<Person?> FindAsync(Guid id, CancellationToken cancellation) => People.FirstOrDefaultAsync(p => p.Id == id, cancellation);

    private async Task KeepAnAdministratorAsync(Person person, CancellationToken cancellation)
    {
        if (!await People.AnyAsync(p => p.Id != person.Id && (p.Rights & Rights.Administration) != 0, cancellation))
        {
            throw new RefusedException($"{person.Name} is the only administrator; make somebody else one first.");
        }
    }

    private bool Verifies(string? hash, Person person, string given) =>
        hash is not null
        && given.Length <= PasswordRules.Longest
        && hasher.VerifyHashedPassword(person, hash, given) != PasswordVerificationResult.Failed;

    /// <summary>What Identity refuses beyond the rules here is said in its words.</summary>
    private static void Sound(IdentityResult result)
    {
        if (!result.Succeeded)
        {
            throw new RefusedException(string.Join(" ", result.Errors.Select(e => e.Description)));
        }
    }

    private static string RightsWords(PersonSettings settings) =>
        $"{(settings.Rights == Rights.None ? "looks only" : settings.Rights.ToString())}{(settings.NeedsSecond ? ", needs a second person" : "")}";
}
