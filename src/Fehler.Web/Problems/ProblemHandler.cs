using System.Diagnostics;
using System.Text.Json;
using System.Text.RegularExpressions;
using Fehler.Core.Circuits;
using Fehler.Data;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;

namespace Fehler.Web.Problems;

/// <summary>
/// Turns what is refused into a problem (RFC 9457) that names the place and what was expected. Only the core's own refusals and what the
/// framework says of a request become answers below 500; anything else is a mistake of the program, logged with its trace id.
/// </summary>
internal sealed partial class ProblemHandler(IProblemDetailsService problems, ILogger<ProblemHandler> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
        {
            // Nobody is there to be told.
            httpContext.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return true;
        }

        var (status, title, detail) = Described(exception);
        var trace = Activity.Current?.Id ?? httpContext.TraceIdentifier;
        if (status >= 500)
        {
            log.LogError(exception, "{Method} {Path} failed, trace {Trace}", httpContext.Request.Method, httpContext.Request.Path, trace);
        }

        httpContext.Response.StatusCode = status;
        return await problems.TryWriteAsync(
            new ProblemDetailsContext
            {
                HttpContext = httpContext,
                ProblemDetails =
                {
                    Status = status,
                    Detail = detail,
                    Title = title,
                    Extensions = { ["traceId"] = trace },
                },
            }
        );
    }

    private static (int Status, string Title, string Detail) Described(Exception exception) =>
        exception switch
        {
            DesignationTakenException e => (409, "Not accepted", e.Message),
            RefusedException e => (422, "Not accepted", e.Message),
            SetAsideException e => (409, "Set aside", e.Message),
            OperationCanceledException => (
                503,
                "Took too long",
                "This took longer than it may and was stopped. Nothing that was acknowledged is lost; try again."
            ),
            _ when SqliteErrors.Of(exception) is { } sqlite => Described(sqlite),
            BadHttpRequestException { InnerException: JsonException e } => (400, "Not accepted", NotUnderstood(e)),
            BadHttpRequestException { StatusCode: 413 } => (413, "Not accepted", RequestRules.TooLarge),
            BadHttpRequestException e => (e.StatusCode, "Not accepted", Unbound(e)),
            JsonException e => (400, "Not accepted", NotUnderstood(e)),
            _ => (
                500,
                "Server error",
                "Something went wrong here. Nothing that was acknowledged is lost; try again, and tell who keeps the server the trace id."
            ),
        };

    /// <summary>What stands in the way of writing is said as it is; nothing of it was recorded.</summary>
    private static (int Status, string Title, string Detail) Described(SqliteException e) =>
        e.SqliteErrorCode switch
        {
            13 => (
                507,
                "Disk full",
                "The disk of the service is full: this was not recorded. Tell who keeps the service; what waits is sent again."
            ),
            8 => (507, "Read-only", "The service cannot write to its file: this was not recorded. Tell who keeps the service."),
            5 or 6 => (503, "Busy", "The database is held by another program: this was not recorded. Try again in a moment."),
            10 or 11 or 26 => (
                500,
                "Disk error",
                "The service cannot read its file as it should. Tell who keeps the service before going on."
            ),
            _ => (500, "Server error", "The database did not take this. Tell who keeps the service the trace id."),
        };

    /// <summary>
    /// The framework names its own types when a value of the address does not fit; a person needs the name and the value.
    /// </summary>
    private static string Unbound(BadHttpRequestException e) =>
        UnboundPattern().Match(e.Message) is { Success: true } match
            ? $"{match.Groups[1].Value} cannot be {match.Groups[2].Value} here."
            : e.Message;

    [GeneratedRegex("""^Failed to bind parameter ".* (\w+)" from "(.*)"\.$""")]
    private static partial Regex UnboundPattern();

    private static string NotUnderstood(JsonException e)
    {
        var end = e.Message.IndexOf(" Path:", StringComparison.Ordinal);
        return $"The request is not understood at {e.Path ?? "$"}: {(end > 0 ? e.Message[..end] : e.Message).TrimEnd('.')}.";
    }
}
