using System.Security.Cryptography;
using Fehler.Core.Circuits;
using Microsoft.AspNetCore.Identity;

namespace Fehler.Data;

/// <summary>What an authenticator is told, once, while a second factor is being set up.</summary>
/// <param name="Key">The shared key, base 32, in groups of four to be typed.</param>
/// <param name="Address">The same for a scanner: an otpauth address.</param>
public sealed record AuthenticatorKey(string Key, string Address);

/// <summary>
/// One-time codes beside the password: six digits by time from an authenticator (RFC 6238, checked by ASP.NET Core Identity), or one of a few
/// spare codes that are kept as hashes and count once. A code that let somebody in does not do so again.
/// </summary>
public sealed class SecondFactor(FehlerDb db, UserManager<Person> people, PeopleStore store, SecurityLog log, TimeProvider time)
{
    private const int SpareCodes = 8,
        SpareLength = 24,
        GroupLength = 4;

    /// <summary>Longer than Identity lets a code count: two steps of thirty seconds early and late.</summary>
    private static readonly TimeSpan CodeCounts = TimeSpan.FromMinutes(3);

    /// <summary>Letters and digits that nobody takes for one another.</summary>
    private const string SpareLetters = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";

    /// <summary>A new key, in force once a code of it was given.</summary>
    /// <exception cref="RefusedException">The password is not right, or a second factor is in force.</exception>
    public async Task<AuthenticatorKey> BeginAsync(Person person, string password, Whence from, CancellationToken cancellation)
    {
        await store.CheckPasswordAsync(person, password, from, cancellation);
        if (person.TwoFactorEnabled)
        {
            throw new RefusedException("One-time codes are in force already; turn them off before another key is made.");
        }

        await people.ResetAuthenticatorKeyAsync(person);
        var key = await people.GetAuthenticatorKeyAsync(person) ?? throw new InvalidOperationException("The key just made is not there.");
        return new AuthenticatorKey(
            Grouped(key),
            $"otpauth://totp/Fehler:{Uri.EscapeDataString(person.Name)}?secret={key}&issuer=Fehler&algorithm=SHA1&digits=6&period=30"
        );
    }

    /// <summary>Puts the second factor in force with a first code of its key.</summary>
    /// <returns>The spare codes, which are shown this once.</returns>
    /// <exception cref="RefusedException">No key was made, one is in force, or the code is not of it.</exception>
    public async Task<IReadOnlyList<string>> ConfirmAsync(Person person, string code, Whence from, CancellationToken cancellation)
    {
        if (person.TwoFactorEnabled || await people.GetAuthenticatorKeyAsync(person) is null)
        {
            throw new RefusedException("Make a key first.");
        }

        if (!await TakeByTimeAsync(person, Bare(code)))
        {
            throw new RefusedException("This is not the code that belongs to the key just now; the clock of the phone has to be right.");
        }

        var spare = Enumerable.Range(0, SpareCodes).Select(_ => RandomNumberGenerator.GetString(SpareLetters, SpareLength)).ToList();
        person.SpareCodes = string.Join(' ', spare.Select(Secrets.Hash));
        person.TwoFactorEnabled = true;
        await db.SaveChangesAsync(cancellation);
        await log.AddAsync("one-time codes in force", person.Name, "", from, "", cancellation);
        return [.. spare.Select(Grouped)];
    }

    /// <summary>Goes back to the password alone.</summary>
    /// <exception cref="RefusedException">The password is not right.</exception>
    public async Task EndAsync(Person person, string password, Whence from, CancellationToken cancellation)
    {
        await store.CheckPasswordAsync(person, password, from, cancellation);
        await store.ForgetCodesAsync(person, cancellation);
        await log.AddAsync("one-time codes turned off", person.Name, "", from, "", cancellation);
    }

    /// <summary>The person of a name, a password and, where one is in force, a code.</summary>
    /// <returns>The person, or null; and whether all that lacks is a code.</returns>
    public async Task<(Person? Person, bool NeedsCode)> SignInAsync(
        string name,
        string password,
        string code,
        Whence from,
        CancellationToken cancellation
    )
    {
        var needsCode = false;
        var person = await store.ByPasswordAsync(
            name,
            password,
            from,
            async p =>
            {
                needsCode = p.TwoFactorEnabled && code.Length == 0;
                return !p.TwoFactorEnabled ? Answer.Right
                    : needsCode ? Answer.Missing
                    : await TakeAsync(p, Bare(code)) ? Answer.Right
                    : Answer.Wrong;
            },
            cancellation
        );
        return (person, needsCode);
    }

    /// <summary>Takes a code: by time, or a spare one, neither of which counts twice.</summary>
    private async Task<bool> TakeAsync(Person person, string code)
    {
        if (code.Length != SpareLength)
        {
            return await TakeByTimeAsync(person, code);
        }

        var left = (person.SpareCodes ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).ToList();
        if (!left.Remove(Secrets.Hash(code)))
        {
            return false;
        }

        person.SpareCodes = string.Join(' ', left);
        await db.SaveChangesAsync();
        return true;
    }

    private async Task<bool> TakeByTimeAsync(Person person, string code)
    {
        var (hash, now) = (Secrets.Hash(code), time.GetUtcNow());
        if (
            (person.LastCodeHash == hash && now - person.LastCodeAt < CodeCounts)
            || !await people.VerifyTwoFactorTokenAsync(person, TokenOptions.DefaultAuthenticatorProvider, code)
        )
        {
            return false;
        }

        (person.LastCodeHash, person.LastCodeAt) = (hash, now);
        await db.SaveChangesAsync();
        return true;
    }

    private static string Bare(string code) => new([.. code.ToUpperInvariant().Where(char.IsLetterOrDigit).Take(SpareLength + 1)]);

    private static string Grouped(string key) => string.Join(' ', key.Chunk(GroupLength).Select(g => new string(g)));
}
