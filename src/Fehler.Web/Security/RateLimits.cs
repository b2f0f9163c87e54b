using System.Globalization;
using System.Security.Claims;
using System.Threading.RateLimiting;
using Fehler.Web.People;
using Microsoft.AspNetCore.RateLimiting;

namespace Fehler.Web.Security;

/// <summary>How often one may ask for what can be guessed at, or takes long.</summary>
internal static class RateLimits
{
    public const string SignIn = "sign-in",
        TakingIn = "taking-in",
        Diagnosis = "diagnosis";

    /// <summary>Imports a minute, and diagnoses at a time with how many waiting, of one person.</summary>
    private const int ImportsPerMinute = 30,
        DiagnosesAtOnce = 6,
        DiagnosesWaiting = 30;

    public static void AddRateLimits(this IServiceCollection services, AccessSettings settings) =>
        services.AddRateLimiter(o =>
        {
            o.AddPolicy(
                SignIn,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(
                        context.Connection.RemoteIpAddress?.ToString() ?? "",
                        _ => PerMinute(settings.SignInsPerMinute)
                    )
            );
            o.AddPolicy(
                TakingIn,
                context =>
                    RateLimitPartition.GetFixedWindowLimiter(PersonOf(context), _ => PerMinute(settings.IsDemo ? 600 : ImportsPerMinute))
            );
            o.AddPolicy(
                Diagnosis,
                context =>
                    RateLimitPartition.GetConcurrencyLimiter(
                        PersonOf(context),
                        _ => new ConcurrencyLimiterOptions
                        {
                            PermitLimit = DiagnosesAtOnce,
                            QueueLimit = DiagnosesWaiting,
                            QueueProcessingOrder = QueueProcessingOrder.OldestFirst,
                        }
                    )
            );
            o.OnRejected = async (context, cancellation) =>
            {
                var wait = context.Lease.TryGetMetadata(MetadataName.RetryAfter, out var after) ? after : TimeSpan.FromSeconds(5);
                var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
                context.HttpContext.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
                await TypedResults
                    .Problem($"This was asked for too often; wait {seconds} s and try again.", statusCode: 429, title: "Too often")
                    .ExecuteAsync(context.HttpContext);
            };
        });

    private static FixedWindowRateLimiterOptions PerMinute(int most) => new() { PermitLimit = most, Window = TimeSpan.FromMinutes(1) };

    /// <summary>People are told apart by id, those who are not signed in by their address.</summary>
    private static string PersonOf(HttpContext context) =>
        context.User.FindFirstValue(ClaimTypes.NameIdentifier) ?? context.Connection.RemoteIpAddress?.ToString() ?? "";
}
