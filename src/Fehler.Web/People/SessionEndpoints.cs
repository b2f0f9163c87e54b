using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Data;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.People;

/// <summary>Who is signed in here, and how one can sign in.</summary>
/// <param name="State">signedIn, signedOut, or first: nobody can sign in yet.</param>
/// <param name="Name">The name that goes into the journals.</param>
/// <param name="Rights">What this person may do: jobs, planning, administration.</param>
/// <param name="NeedsSecond">Live tests and closing a job need a second person.</param>
/// <param name="IsDemo">The demo: whoever is on the machine is signed in.</param>
/// <param name="Device">Name of this device when an administrator trusts it.</param>
/// <param name="WithPin">On a trusted device: who can sign in with a PIN.</param>
/// <param name="HasCodes">Signing in with the password asks for a one-time code as well.</param>
/// <param name="IdleMinutes">The session ends when nothing is done for so long.</param>
public sealed record SessionView(
    string State,
    string Name,
    IReadOnlyList<string> Rights,
    bool NeedsSecond,
    bool IsDemo,
    string? Device,
    IReadOnlyList<string> WithPin,
    bool HasCodes,
    double IdleMinutes
);

/// <summary>Name and password.</summary>
/// <param name="Code">A one-time code, where the person has set them up: asked for by an answer 401 with needsCode.</param>
public sealed record NameAndPassword(string? Name, string? Password, string? Code = null);

/// <summary>The first administrator.</summary>
/// <param name="Code">The code that the service showed on its console when it started.</param>
/// <param name="Name">The name.</param>
/// <param name="Password">The password.</param>
public sealed record FirstAdministrator(string? Code, string? Name, string? Password);

/// <summary>A person of a trusted device and the PIN.</summary>
public sealed record NameAndPin(string? Name, string? Pin);

/// <summary>A change of one's own password.</summary>
public sealed record ChangedPassword(string? Now, string? Then);

/// <summary>A new PIN of one's own.</summary>
public sealed record NewPin(string? Password, string? Pin);

/// <summary>Rights to try in the demo, by name.</summary>
public sealed record TriedRights(IReadOnlyList<string>? Rights);

/// <summary>A second person stands by for an entry that is about to be made.</summary>
/// <param name="Entry">Id that the entry is going to have.</param>
/// <param name="Name">Who stands by.</param>
/// <param name="Password">Their password or PIN, typed by themselves.</param>
public sealed record StandBy(Guid Entry, string? Name, string? Password);

internal static class SessionEndpoints
{
    public static void MapSession(this IEndpointRouteBuilder routes)
    {
        var session = routes.MapGroup("/api/session").WithTags("People");
        session
            .MapGet("", Get)
            .WithName("getSession")
            .WithSummary("Who is signed in; sets the cookie whose value browsers send back as X-XSRF-TOKEN with what changes something")
            .ForAnybody();
        session
            .MapPost("", In)
            .WithName("signIn")
            .WithSummary("Signs in with name and password")
            .Accepts<NameAndPassword>(MediaTypeNames.Application.Json)
            .ProducesProblem(401)
            .ProducesProblem(429)
            .RequireRateLimiting(RateLimits.SignIn)
            .ForAnybody();
        session
            .MapPost("first", First)
            .WithName("makeFirstAdministrator")
            .WithSummary("Makes the first administrator, with the code that the service showed on its console")
            .Accepts<FirstAdministrator>(MediaTypeNames.Application.Json)
            .ProducesProblem(403)
            .ProducesProblem(422)
            .RequireRateLimiting(RateLimits.SignIn)
            .ForAnybody();
        session
            .MapPost("pin", InWithPin)
            .WithName("signInWithPin")
            .WithSummary("Signs in with a PIN on a device that an administrator trusts")
            .Accepts<NameAndPin>(MediaTypeNames.Application.Json)
            .ProducesProblem(401)
            .ProducesProblem(403)
            .RequireRateLimiting(RateLimits.SignIn)
            .ForAnybody();
        session.MapDelete("", Out).WithName("signOut").WithSummary("Signs out").ForAnybody();
        session
            .MapGet(
                "all",
                (Caller caller, AccessStore store, CancellationToken cancellation) => store.SessionsAsync(caller.Id, cancellation)
            )
            .WithName("listSessions")
            .WithSummary("Where one is signed in");
        session.MapDelete("all", OutEverywhere).WithName("signOutEverywhere").WithSummary("Signs out in every browser").Needs(Rights.None);
        session
            .MapPut("password", Password)
            .WithName("changePassword")
            .WithSummary("Changes one's own password; signs out everywhere")
            .Accepts<ChangedPassword>(MediaTypeNames.Application.Json)
            .ProducesProblem(422)
            .RequireRateLimiting(RateLimits.SignIn)
            .Needs(Rights.None);
        session
            .MapPut("pin", Pin)
            .WithName("setPin")
            .WithSummary("Sets one's own PIN for trusted devices")
            .Accepts<NewPin>(MediaTypeNames.Application.Json)
            .ProducesProblem(422)
            .RequireRateLimiting(RateLimits.SignIn)
            .Needs(Rights.None);
        session
            .MapPut("tried-rights", Try)
            .WithName("tryRights")
            .WithSummary("In the demo: goes on with these rights only")
            .Accepts<TriedRights>(MediaTypeNames.Application.Json)
            .ProducesProblem(403)
            .Needs(Rights.None);
        routes
            .MapPost("/api/jobs/{id:guid}/second-person", Second)
            .WithTags("People")
            .WithName("standBy")
            .WithSummary("A second person stands by for an entry of somebody who may not make it alone")
            .Accepts<StandBy>(MediaTypeNames.Application.Json)
            .ProducesProblem(401)
            .RequireRateLimiting(RateLimits.SignIn)
            .Needs(Rights.Jobs);
        routes
            .MapGet("/api/people/names", Names)
            .WithTags("People")
            .WithName("listSecondPersons")
            .WithSummary("Who can stand by as a second person");
    }

    private static async Task<SessionView> Get(
        HttpContext context,
        Caller caller,
        AccessStore access,
        PeopleStore people,
        AccessSettings settings,
        IAntiforgery antiforgery,
        CancellationToken cancellation
    )
    {
        Antiforgery.Give(context, antiforgery);
        var device = await access.DeviceAsync(context.Request.Cookies[SignIn.DeviceCookie], cancellation);
        var state =
            caller.IsSomebody ? "signedIn"
            : await people.AnyAsync(cancellation) ? "signedOut"
            : "first";
        return new SessionView(
            state,
            caller.Name,
            RightsByName.Names(caller.Rights),
            caller.NeedsSecond,
            caller.IsDemo,
            device,
            device is null || caller.IsSomebody ? [] : (await people.NamesAsync(cancellation)).WithPin,
            caller.IsSomebody && await people.FindAsync(caller.Id, cancellation) is { TwoFactorEnabled: true },
            settings.Idle.TotalMinutes
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> In(
        HttpContext context,
        Body<NameAndPassword> body,
        Caller caller,
        SecondFactor second,
        AccessStore access,
        SecurityLog log,
        CancellationToken cancellation
    )
    {
        var given = body.Value;
        var (person, needsCode) = await second.SignInAsync(
            given.Name ?? "",
            given.Password ?? "",
            given.Code ?? "",
            caller.From,
            cancellation
        );
        if (needsCode)
        {
            return TypedResults.Problem(
                "A one-time code is needed as well: from your authenticator, or one of the spare codes.",
                statusCode: 401,
                title: "Not signed in",
                extensions: new Dictionary<string, object?> { ["needsCode"] = true }
            );
        }

        if (person is null)
        {
            return TypedResults.Problem(
                $"Name{(given.Code is { Length: > 0 } ? ", password and code" : " and password")} do not go together, "
                    + "or too many wrong ones were tried: then wait fifteen minutes.",
                statusCode: 401,
                title: "Not signed in"
            );
        }

        var device = await access.DeviceAsync(context.Request.Cookies[SignIn.DeviceCookie], cancellation);
        return await BeginAsync(context, person, device, caller.From, log, cancellation);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> InWithPin(
        HttpContext context,
        Body<NameAndPin> body,
        Caller caller,
        PeopleStore people,
        AccessStore access,
        SecurityLog log,
        CancellationToken cancellation
    )
    {
        if (await access.DeviceAsync(context.Request.Cookies[SignIn.DeviceCookie], cancellation) is not { } device)
        {
            return TypedResults.Problem(
                "No administrator trusts this device: sign in with name and password.",
                statusCode: 403,
                title: "Not signed in"
            );
        }

        var person = await people.ByPinAsync(
            body.Value.Name ?? "",
            body.Value.Pin ?? "",
            caller.From with
            {
                Device = device,
            },
            cancellation
        );
        return person is null
            ? TypedResults.Problem(
                "The PIN is not right, or too many wrong ones were tried: then wait fifteen minutes.",
                statusCode: 401,
                title: "Not signed in"
            )
            : await BeginAsync(context, person, device, caller.From, log, cancellation);
    }

    private static async Task<NoContent> BeginAsync(
        HttpContext context,
        Person person,
        string? device,
        Whence whence,
        SecurityLog log,
        CancellationToken cancellation
    )
    {
        var on = device ?? BrowserNames.Of(context.Request.Headers.UserAgent.ToString());
        // A session of before, should there be one, ends: its key is worth nothing any more.
        await context.SignOutAsync(SignIn.Session);
        await context.SignInAsync(
            SignIn.Session,
            Caller.Principal(SignIn.Session, person.Id, person.Name, person.Rights, person.NeedsSecond, on)
        );
        await log.AddAsync("signed in", person.Name, "", whence with { Device = on }, "", cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> First(
        HttpContext context,
        Body<FirstAdministrator> body,
        Caller caller,
        FirstStart first,
        PeopleStore people,
        SecurityLog log,
        CancellationToken cancellation
    )
    {
        if (!first.IsCode(body.Value.Code ?? ""))
        {
            return TypedResults.Problem(
                "This is not the code that the service showed on its console when it started.",
                statusCode: 403,
                title: "Not made"
            );
        }

        var person = await people.FirstAsync(body.Value.Name ?? "", body.Value.Password ?? "", caller.From, cancellation);
        return await BeginAsync(context, person, null, caller.From, log, cancellation);
    }

    private static async Task<NoContent> Out(HttpContext context, Caller caller, SecurityLog log, CancellationToken cancellation)
    {
        if (caller is { IsSomebody: true, IsDemo: false })
        {
            await log.AddAsync("signed out", caller.Name, "", caller.From, "", cancellation);
            await context.SignOutAsync(SignIn.Session);
        }

        return TypedResults.NoContent();
    }

    private static async Task<NoContent> OutEverywhere(
        HttpContext context,
        Caller caller,
        PeopleStore people,
        CancellationToken cancellation
    )
    {
        if (await people.FindAsync(caller.Id, cancellation) is { } person)
        {
            await people.EndSessionsAsync(person, person.Name, caller.From, cancellation);
            await context.SignOutAsync(SignIn.Session);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Password(
        HttpContext context,
        Body<ChangedPassword> body,
        Caller caller,
        PeopleStore people,
        CancellationToken cancellation
    )
    {
        var person = await Own(caller, people, cancellation);
        await people.ChangePasswordAsync(person, body.Value.Now ?? "", body.Value.Then ?? "", caller.From, cancellation);
        await context.SignOutAsync(SignIn.Session);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Pin(Body<NewPin> body, Caller caller, PeopleStore people, CancellationToken cancellation)
    {
        var person = await Own(caller, people, cancellation);
        await people.SetPinAsync(person, body.Value.Password ?? "", body.Value.Pin ?? "", caller.From, cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>Whoever is signed in, as a person with a password of their own.</summary>
    internal static async Task<Person> Own(Caller caller, PeopleStore people, CancellationToken cancellation) =>
        await people.FindAsync(caller.Id, cancellation) ?? throw new RefusedException("The demo's person signs in with nothing.");

    private static Results<NoContent, ProblemHttpResult> Try(HttpContext context, Body<TriedRights> body, AccessSettings settings)
    {
        if (!settings.IsDemo)
        {
            return TypedResults.Problem("Rights are tried in the demo only.", statusCode: 403);
        }

        var rights = RightsByName.Of(body.Value.Rights);
        context.Response.Cookies.Append(
            SignIn.DemoCookie,
            ((int)rights).ToString(System.Globalization.CultureInfo.InvariantCulture),
            new CookieOptions { HttpOnly = true, SameSite = SameSiteMode.Strict }
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Second(
        Guid id,
        Body<StandBy> body,
        Caller caller,
        PeopleStore people,
        SecondPersons seconds,
        CancellationToken cancellation
    )
    {
        var (name, word) = (body.Value.Name ?? "", body.Value.Password ?? "");
        var isPin = word.Length < PasswordRules.Shortest;
        var person = isPin
            ? await people.ByPinAsync(name, word, caller.From, cancellation)
            : await people.ByPasswordAsync(name, word, caller.From, cancellation);
        if (person is null || person.NeedsSecond || person.Id == caller.Id || !person.Rights.HasFlag(Rights.Jobs))
        {
            return TypedResults.Problem(
                "A second person is another electrician who may work alone, with their own password or PIN.",
                statusCode: 422,
                title: "Nobody stands by"
            );
        }

        seconds.StandsBy(id, body.Value.Entry, person.Name);
        return TypedResults.NoContent();
    }

    private static async Task<IReadOnlyList<string>> Names(Caller caller, PeopleStore people, CancellationToken cancellation) =>
        [.. (await people.NamesAsync(cancellation)).Seconds.Where(n => n != caller.Name)];
}
