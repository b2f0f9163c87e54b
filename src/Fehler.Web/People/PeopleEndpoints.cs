using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.People;

/// <summary>A person, for administrators.</summary>
/// <param name="HasCodes">Signing in with the password asks for a one-time code as well.</param>
public sealed record PersonView(
    Guid Id,
    string Name,
    IReadOnlyList<string> Rights,
    bool NeedsSecond,
    bool HasPin,
    bool HasCodes,
    DateTimeOffset? LockedUntil,
    DateTimeOffset? LastSeen,
    int Sessions
);

/// <summary>A person to be added.</summary>
/// <param name="Password">The first password, told to the person, who changes it.</param>
/// <param name="Rights">jobs, planning, administration; none: looks only.</param>
/// <param name="NeedsSecond">Live tests and closing a job need a second person.</param>
public sealed record NewPerson(string? Name, string? Password, IReadOnlyList<string>? Rights = null, bool NeedsSecond = false);

/// <summary>What a person may do.</summary>
public sealed record ChangedPerson(IReadOnlyList<string>? Rights, bool NeedsSecond = false);

/// <summary>A password for somebody who has lost theirs.</summary>
public sealed record ResetPassword(string? Password);

/// <summary>A device to be trusted: the one that asks.</summary>
public sealed record TrustedDevice(string? Name);

/// <summary>A token to be made.</summary>
/// <param name="Name">The program.</param>
/// <param name="Rights">What it may do; none: it only reads.</param>
/// <param name="Days">It runs out after so many days; null: it does not.</param>
public sealed record NewToken(string? Name, IReadOnlyList<string>? Rights = null, int? Days = null);

/// <summary>A token, for the eye.</summary>
public sealed record TokenView(
    Guid Id,
    string Name,
    string Person,
    IReadOnlyList<string> Rights,
    DateTimeOffset CreatedAt,
    DateTimeOffset? Expires,
    DateTimeOffset? LastUsed
);

/// <summary>A token as it was made, with its key, which is shown this once.</summary>
public sealed record MadeToken(TokenView Token, string Key);

internal static class PeopleEndpoints
{
    private const int MostDays = 3660;

    public static void MapPeople(this IEndpointRouteBuilder routes)
    {
        var people = routes.MapGroup("/api/people").WithTags("People");
        people.MapGet("", List).WithName("listPeople").WithSummary("Everybody who can sign in").Needs(Rights.Administration);
        people
            .MapPost("", Add)
            .WithName("addPerson")
            .WithSummary("Adds a person")
            .Accepts<NewPerson>(MediaTypeNames.Application.Json)
            .ProducesProblem(422)
            .Needs(Rights.Administration);
        people
            .MapPut("{id:guid}", Set)
            .WithName("setPerson")
            .WithSummary("Sets what a person may do; at once, in every session and token")
            .Accepts<ChangedPerson>(MediaTypeNames.Application.Json)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .Needs(Rights.Administration);
        people
            .MapPut("{id:guid}/password", Reset)
            .WithName("resetPassword")
            .WithSummary("A new password for somebody who has lost theirs; signs them out everywhere and unlocks them")
            .Accepts<ResetPassword>(MediaTypeNames.Application.Json)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .Needs(Rights.Administration);
        people
            .MapDelete("{id:guid}/sessions", End)
            .WithName("endSessions")
            .WithSummary("Signs a person out everywhere")
            .ProducesProblem(404)
            .Needs(Rights.Administration);
        people
            .MapDelete("{id:guid}", Remove)
            .WithName("removePerson")
            .WithSummary("Takes a person out; 'replace' puts another name in the place of theirs in every record")
            .ProducesProblem(404)
            .ProducesProblem(422)
            .Needs(Rights.Administration);
        routes
            .MapGet("/api/security-events", Events)
            .WithTags("People")
            .WithName("listSecurityEvents")
            .WithSummary("Signing in, rights, tokens and devices, newest first; 'sort' is at, kind or who")
            .Needs(Rights.Administration);
        MapDevices(routes.MapGroup("/api/devices").WithTags("People"));
        MapTokens(routes.MapGroup("/api/tokens").WithTags("People"));
    }

    private static void MapDevices(RouteGroupBuilder devices)
    {
        devices
            .MapGet("", (AccessStore store, CancellationToken cancellation) => store.DevicesAsync(cancellation))
            .WithName("listDevices")
            .WithSummary("Devices on which people may sign in with a PIN")
            .Needs(Rights.Administration);
        devices
            .MapPost("", Trust)
            .WithName("trustDevice")
            .WithSummary("Trusts the device that asks: people may sign in with a PIN on it")
            .Accepts<TrustedDevice>(MediaTypeNames.Application.Json)
            .ProducesProblem(422)
            .Needs(Rights.Administration);
        devices
            .MapDelete("{id:guid}", Distrust)
            .WithName("distrustDevice")
            .WithSummary("Trusts a device no more")
            .ProducesProblem(404)
            .Needs(Rights.Administration);
    }

    private static void MapTokens(RouteGroupBuilder tokens)
    {
        tokens
            .MapGet("", Tokens)
            .WithName("listTokens")
            .WithSummary("One's own tokens for programs; an administrator's 'everybody' lists all")
            .Needs(Rights.None);
        tokens
            .MapPost("", AddToken)
            .WithName("addToken")
            .WithSummary("Makes a token; its key is in this answer and nowhere else")
            .Accepts<NewToken>(MediaTypeNames.Application.Json)
            .ProducesProblem(422)
            .Needs(Rights.None);
        tokens
            .MapDelete("{id:guid}", Revoke)
            .WithName("revokeToken")
            .WithSummary("Takes a token back; at once")
            .ProducesProblem(404)
            .Needs(Rights.None);
    }

    private static async Task<Page<PersonView>> List([AsParameters] ListParameters list, PeopleStore store, CancellationToken cancellation)
    {
        var page = await store.ListAsync(list.ToQuery(), cancellation);
        return new Page<PersonView>(
            page.Total,
            [
                .. page.Items.Select(p => new PersonView(
                    p.Id,
                    p.Name,
                    RightsByName.Names(p.Rights),
                    p.NeedsSecond,
                    p.HasPin,
                    p.HasCodes,
                    p.LockedUntil > DateTimeOffset.UtcNow ? p.LockedUntil : null,
                    p.LastSeen,
                    p.Sessions
                )),
            ]
        );
    }

    private static async Task<NoContent> Add(Body<NewPerson> body, Caller caller, PeopleStore store, CancellationToken cancellation)
    {
        var given = body.Value;
        await store.AddAsync(
            given.Name ?? "",
            given.Password ?? "",
            new PersonSettings(RightsByName.Of(given.Rights), given.NeedsSecond),
            caller.Name,
            caller.From,
            cancellation
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Set(
        Guid id,
        Body<ChangedPerson> body,
        Caller caller,
        PeopleStore store,
        CancellationToken cancellation
    ) =>
        Done(
            await store.SetAsync(
                id,
                new PersonSettings(RightsByName.Of(body.Value.Rights), body.Value.NeedsSecond),
                caller.Name,
                caller.From,
                cancellation
            ),
            "There is nobody like this."
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> Reset(
        Guid id,
        Body<ResetPassword> body,
        Caller caller,
        PeopleStore store,
        CancellationToken cancellation
    ) => Done(await store.ResetAsync(id, body.Value.Password ?? "", caller.Name, caller.From, cancellation), "There is nobody like this.");

    private static async Task<Results<NoContent, ProblemHttpResult>> End(
        Guid id,
        Caller caller,
        PeopleStore store,
        CancellationToken cancellation
    )
    {
        var person = await store.FindAsync(id, cancellation);
        if (person is not null)
        {
            await store.EndSessionsAsync(person, caller.Name, caller.From, cancellation);
        }

        return Done(person is not null, "There is nobody like this.");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        string? replace,
        Caller caller,
        PeopleStore store,
        CancellationToken cancellation
    ) => Done(await store.RemoveAsync(id, replace, caller.Name, caller.From, cancellation), "There is nobody like this.");

    private static Task<Page<SecurityEvent>> Events([AsParameters] ListParameters list, SecurityLog log, CancellationToken cancellation) =>
        log.ListAsync(list.ToQuery(), cancellation);

    private static async Task<NoContent> Trust(
        HttpContext context,
        Body<TrustedDevice> body,
        Caller caller,
        AccessStore store,
        CancellationToken cancellation
    )
    {
        var key = await store.TrustAsync(body.Value.Name ?? "", caller.Name, caller.From, cancellation);
        context.Response.Cookies.Append(
            SignIn.DeviceCookie,
            key,
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = context.Request.IsHttps,
                MaxAge = TimeSpan.FromDays(400),
            }
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Distrust(
        Guid id,
        Caller caller,
        AccessStore store,
        CancellationToken cancellation
    ) => Done(await store.DistrustAsync(id, caller.Name, caller.From, cancellation), "There is no such device.");

    private static async Task<IReadOnlyList<TokenView>> Tokens(
        bool? everybody,
        Caller caller,
        AccessStore store,
        CancellationToken cancellation
    )
    {
        var isAll = everybody == true && caller.Rights.HasFlag(Rights.Administration);
        return [.. (await store.TokensAsync(isAll ? null : caller.Id, cancellation)).Select(View)];
    }

    private static async Task<MadeToken> AddToken(
        Body<NewToken> body,
        Caller caller,
        PeopleStore people,
        AccessStore store,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        if (await people.FindAsync(caller.Id, cancellation) is not { } person)
        {
            throw new RefusedException("The demo's person has no tokens; the service showed one on its console when it started.");
        }

        if (body.Value.Days is < 1 or > MostDays)
        {
            throw new RefusedException($"A token runs out after 1 to {MostDays} days, or not at all.");
        }

        var expires = body.Value.Days is { } days ? time.GetUtcNow().AddDays(days) : (DateTimeOffset?)null;
        var (token, key) = await store.AddTokenAsync(
            person,
            body.Value.Name ?? "",
            RightsByName.Of(body.Value.Rights),
            expires,
            caller.From,
            cancellation
        );
        return new MadeToken(View(token), key);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Revoke(
        Guid id,
        Caller caller,
        AccessStore store,
        CancellationToken cancellation
    ) =>
        Done(
            await store.RevokeAsync(
                id,
                caller.Rights.HasFlag(Rights.Administration) ? null : caller.Id,
                caller.Name,
                caller.From,
                cancellation
            ),
            "There is no such token."
        );

    private static TokenView View(TokenItem t) =>
        new(t.Id, t.Name, t.Person, RightsByName.Names(t.Rights), t.CreatedAt, t.Expires, t.LastUsed);

    private static Results<NoContent, ProblemHttpResult> Done(bool isThere, string otherwise) =>
        isThere ? TypedResults.NoContent() : TypedResults.Problem(otherwise, statusCode: 404);
}
