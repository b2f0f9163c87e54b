using System.Security.Claims;
using System.Text.Encodings.Web;
using Fehler.Data;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.Extensions.Options;

namespace Fehler.Web.People;

/// <summary>The ways in: a browser's session, a program's token, and in the demo everybody on this machine.</summary>
internal static class SignIn
{
    public const string Session = "session",
        Token = "token",
        Demo = "demo",
        DeviceCookie = "fehler-device",
        DemoCookie = "fehler-demo-rights";

    private const string Chosen = "chosen";

    public static void AddSignIn(this WebApplicationBuilder builder, string database, AccessSettings settings)
    {
        var services = builder.Services;
        services.AddSingleton(settings);
        services.AddHttpContextAccessor();
        services.AddScoped<Caller>();
        services.AddSingleton<SecondPersons>();
        services.AddSingleton<FirstStart>();
        services.AddSingleton<ITicketStore, TicketStore>();
        var protection = services.AddDataProtection().SetApplicationName("fehler");
        if (OpenApiShapes.IsDocumentBuild)
        {
            // A build leaves no keys behind.
            protection.UseEphemeralDataProtectionProvider();
        }
        else
        {
            protection.PersistKeysToFileSystem(KeyFolder(database));
        }

        services
            .AddAuthentication(Chosen)
            .AddPolicyScheme(
                Chosen,
                null,
                o =>
                    o.ForwardDefaultSelector = context =>
                        context.Request.Headers.Authorization.Count > 0 ? Token
                        : settings.IsDemo ? Demo
                        : Session
            )
            .AddScheme<AuthenticationSchemeOptions, TokenSignIn>(Token, null)
            .AddScheme<AuthenticationSchemeOptions, DemoSignIn>(Demo, null)
            .AddCookie(Session, Cookie);
        services
            .AddOptions<CookieAuthenticationOptions>(Session)
            .Configure<ITicketStore>(
                (o, store) =>
                {
                    o.SessionStore = store;
                    o.ExpireTimeSpan = settings.Idle;
                }
            );
        services.AddAccess();
    }

    /// <summary>Entries are stamped with the device or program that they are made on; after whoever asks is known.</summary>
    public static void UseMaker(this WebApplication app) =>
        app.Use(
            (context, next) =>
            {
                context.RequestServices.GetRequiredService<Maker>().Device = context.User.FindFirstValue(Caller.DeviceClaim) ?? "";
                return next(context);
            }
        );

    private static void Cookie(CookieAuthenticationOptions o)
    {
        o.Cookie.Name = "fehler-session";
        o.Cookie.HttpOnly = true;
        o.Cookie.SameSite = SameSiteMode.Strict;
        o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        o.SlidingExpiration = true;
        // A program and the client both want an answer, not another page.
        o.Events.OnRedirectToLogin = context => SignInProblem(context.HttpContext);
        o.Events.OnRedirectToAccessDenied = context => RightsProblem(context.HttpContext);
    }

    /// <summary>Keys of cookies live beside the database, for its owner only; they are in no backup.</summary>
    private static DirectoryInfo KeyFolder(string database)
    {
        var folder = Path.GetFullPath(database) + "-keys";
        if (!OperatingSystem.IsWindows())
        {
            try
            {
                Directory.CreateDirectory(folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
            }
            catch (Exception e) when (e is IOException or UnauthorizedAccessException)
            {
                // That the folder cannot be written is said in one sentence when the database is opened.
            }
        }

        return new DirectoryInfo(folder);
    }

    internal static Task SignInProblem(HttpContext context) =>
        TypedResults.Problem("Sign in first.", statusCode: 401, title: "Not signed in").ExecuteAsync(context);

    internal static Task RightsProblem(HttpContext context) =>
        TypedResults
            .Problem(
                Access.Words(context.GetEndpoint()?.Metadata.GetMetadata<NeededRights>()?.AnyOf ?? Rights.None),
                statusCode: 403,
                title: "Not yours to do"
            )
            .ExecuteAsync(context);
}

/// <summary>How people are let in, from the configuration.</summary>
/// <param name="IsDemo">Everybody on this machine is let in as the demo's person; nobody else is answered.</param>
/// <param name="Idle">A session ends when nothing was done for so long.</param>
/// <param name="Longest">A session ends after so long whatever was done.</param>
/// <param name="SignInsPerMinute">Tries to sign in that one address of the network has a minute.</param>
internal sealed record AccessSettings(bool IsDemo, TimeSpan Idle, TimeSpan Longest, int SignInsPerMinute)
{
    public static AccessSettings From(IConfiguration configuration) =>
        new(
            configuration.GetValue("Fehler:Demo", false),
            TimeSpan.FromMinutes(Math.Clamp(configuration.GetValue("Fehler:IdleMinutes", 60.0), 1, 1440)),
            TimeSpan.FromHours(Math.Clamp(configuration.GetValue("Fehler:LongestSessionHours", 24.0), 0.5, 24 * 7)),
            Math.Clamp(configuration.GetValue("Fehler:SignInsPerMinute", 10), 1, 1000)
        );
}

/// <summary>Sessions as cookies name them: the cookie holds a key, everything else is looked up, so that ending one ends it.</summary>
internal sealed class TicketStore(IServiceScopeFactory scopes, AccessSettings settings, TimeProvider time) : ITicketStore
{
    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        using var scope = scopes.CreateScope();
        var key = Secrets.New();
        var (user, store) = (ticket.Principal, scope.ServiceProvider.GetRequiredService<AccessStore>());
        await store.BeginSessionAsync(
            key,
            Guid.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!),
            user.FindFirstValue(Caller.DeviceClaim) ?? "",
            time.GetUtcNow() + settings.Idle,
            CancellationToken.None
        );
        return key;
    }

    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        using var scope = scopes.CreateScope();
        await scope
            .ServiceProvider.GetRequiredService<AccessStore>()
            .RenewSessionAsync(key, time.GetUtcNow() + settings.Idle, CancellationToken.None);
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        using var scope = scopes.CreateScope();
        var found = await scope.ServiceProvider.GetRequiredService<AccessStore>().SessionAsync(key, CancellationToken.None);
        if (found is null || time.GetUtcNow() - found.BeganAt > settings.Longest)
        {
            return null;
        }

        var person = found.Person;
        return new AuthenticationTicket(
            Caller.Principal(SignIn.Session, person.Id, person.Name, person.Rights, person.NeedsSecond, found.Device),
            new AuthenticationProperties { IssuedUtc = found.Expires - settings.Idle, ExpiresUtc = found.Expires },
            SignIn.Session
        );
    }

    public async Task RemoveAsync(string key)
    {
        using var scope = scopes.CreateScope();
        await scope.ServiceProvider.GetRequiredService<AccessStore>().EndSessionAsync(key, CancellationToken.None);
    }
}

/// <summary>A program's token, as a bearer token (RFC 6750).</summary>
internal sealed class TokenSignIn(
    IOptionsMonitor<AuthenticationSchemeOptions> options,
    ILoggerFactory logger,
    UrlEncoder encoder,
    AccessStore store,
    FirstStart first,
    AccessSettings settings
) : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        const string Bearer = "Bearer ";
        var given = Request.Headers.Authorization.ToString();
        if (!given.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase))
        {
            return AuthenticateResult.NoResult();
        }

        var key = given[Bearer.Length..].Trim();
        if (settings.IsDemo && first.IsDemoToken(key))
        {
            return AuthenticateResult.Success(new AuthenticationTicket(DemoSignIn.Person(Rights.All, "a program"), Scheme.Name));
        }

        if (key.Length > 100 || await store.TokenAsync(key, Context.RequestAborted) is not { Person: { } person } token)
        {
            return AuthenticateResult.Fail("There is no such token.");
        }

        return AuthenticateResult.Success(
            new AuthenticationTicket(
                Caller.Principal(
                    SignIn.Token,
                    person.Id,
                    person.Name,
                    token.Rights & person.Rights,
                    person.NeedsSecond,
                    $"program: {token.Name}"
                ),
                Scheme.Name
            )
        );
    }

    protected override Task HandleChallengeAsync(AuthenticationProperties properties)
    {
        Response.Headers["WWW-Authenticate"] = "Bearer";
        return SignIn.SignInProblem(Context);
    }

    protected override Task HandleForbiddenAsync(AuthenticationProperties properties) => SignIn.RightsProblem(Context);
}

/// <summary>The demo's person, with the rights that were chosen to be tried.</summary>
internal sealed class DemoSignIn(IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    /// <summary>The demo's person.</summary>
    public static ClaimsPrincipal Person(Rights rights, string device)
    {
        var person = Caller.Principal(SignIn.Demo, Guid.Empty, "Demo", rights, false, device);
        person.Identities.First().AddClaim(new Claim(Caller.DemoClaim, "1"));
        return person;
    }

    protected override Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var rights =
            Request.Cookies.TryGetValue(SignIn.DemoCookie, out var chosen) && Enum.TryParse<Rights>(chosen, out var tried)
                ? tried & Rights.All
                : Rights.All;
        return Task.FromResult(AuthenticateResult.Success(new AuthenticationTicket(Person(rights, ""), Scheme.Name)));
    }

    protected override Task HandleForbiddenAsync(AuthenticationProperties properties) => SignIn.RightsProblem(Context);
}
