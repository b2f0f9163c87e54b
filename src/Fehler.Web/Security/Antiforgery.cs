using Fehler.Web.People;
using Microsoft.AspNetCore.Antiforgery;

namespace Fehler.Web.Security;

/// <summary>
/// What changes something through a browser's cookies carries a token that another site's page cannot read. A program's token is no cookie
/// and needs none of this.
/// </summary>
internal static class Antiforgery
{
    /// <summary>Header and cookie by which the client gives the token back.</summary>
    private const string Header = "X-XSRF-TOKEN",
        Cookie = "XSRF-TOKEN";

    public static void AddForgeryGuard(this IServiceCollection services) =>
        services.AddAntiforgery(o =>
        {
            o.HeaderName = Header;
            o.Cookie.Name = "fehler-antiforgery";
            o.Cookie.SameSite = SameSiteMode.Strict;
            o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
            o.SuppressXFrameOptionsHeader = true;
        });

    /// <summary>Gives a browser its token, for the one who is signed in.</summary>
    public static void Give(HttpContext context, IAntiforgery antiforgery) =>
        context.Response.Cookies.Append(
            Cookie,
            antiforgery.GetAndStoreTokens(context).RequestToken!,
            new CookieOptions { SameSite = SameSiteMode.Strict, Secure = context.Request.IsHttps }
        );

    /// <summary>Turns away what comes through a browser without its token; after whoever asks is known.</summary>
    public static void UseForgeryGuard(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                if (
                    IsUnsafe(context.Request)
                    && IsFromBrowser(context.Request)
                    && !await app.Services.GetRequiredService<IAntiforgery>().IsRequestValidAsync(context)
                )
                {
                    await TypedResults
                        .Problem(
                            "This page is older than the session that it would act in; load it again.",
                            statusCode: 400,
                            title: "Page out of date"
                        )
                        .ExecuteAsync(context);
                    return;
                }

                await next(context);
            }
        );

    private static bool IsUnsafe(HttpRequest request) =>
        request.Path.StartsWithSegments("/api")
        && !HttpMethods.IsGet(request.Method)
        && !HttpMethods.IsHead(request.Method)
        && !HttpMethods.IsOptions(request.Method)
        && request.Headers.Authorization.Count == 0;

    /// <summary>A page of another site cannot leave these out: browsers add them by themselves (WHATWG Fetch; Fetch Metadata).</summary>
    private static bool IsFromBrowser(HttpRequest request) =>
        request.Headers.Origin.Count > 0
        || request.Headers.ContainsKey("Sec-Fetch-Site")
        || request.Cookies.ContainsKey("fehler-session")
        || request.Cookies.ContainsKey(SignIn.DeviceCookie);
}
