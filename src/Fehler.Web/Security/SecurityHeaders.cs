using System.Net;
using Fehler.Web.People;

namespace Fehler.Web.Security;

/// <summary>What a browser is told about every answer, and whom the demo answers.</summary>
internal static class SecurityHeaders
{
    /// <summary>
    /// Scripts, pictures and connections come from here alone; nothing may frame a page. Styles are also written by the component library at
    /// run time. The core runs in the browser as WebAssembly, which browsers count as evaluating unless it is allowed by name.
    /// </summary>
    private const string ContentPolicy =
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
        + "font-src 'self' data:; connect-src 'self'; worker-src 'self'; manifest-src 'self'; object-src 'none'; base-uri 'none'; "
        + "form-action 'self'; frame-ancestors 'none'";

    public static void UseSecurityHeaders(this WebApplication app) =>
        app.Use(
            (context, next) =>
            {
                var headers = context.Response.Headers;
                headers.ContentSecurityPolicy = ContentPolicy;
                headers.XContentTypeOptions = "nosniff";
                headers.XFrameOptions = "DENY";
                headers["Referrer-Policy"] = "same-origin";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                headers["Cross-Origin-Resource-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "camera=(self), geolocation=(), microphone=(), payment=(), usb=()";
                if (context.Request.Path.StartsWithSegments("/api"))
                {
                    headers.CacheControl = "no-store";
                }

                return next(context);
            }
        );

    /// <summary>The demo lets everybody in, so it answers this machine only, whatever address it was told to listen to.</summary>
    public static void UseLoopbackOnly(this WebApplication app, AccessSettings settings)
    {
        if (!settings.IsDemo)
        {
            return;
        }

        app.Use(
            async (context, next) =>
            {
                if (context.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from))
                {
                    await TypedResults
                        .Problem("The demo answers the machine that it runs on and no other; use ./fehler run.", statusCode: 403)
                        .ExecuteAsync(context);
                    return;
                }

                await next(context);
            }
        );
    }
}
