using System.Text.Json;
using Fehler.Core.Circuits;
using Microsoft.AspNetCore.Diagnostics;

namespace Fehler.Web.Problems;

/// <summary>Turns input that cannot be read into a problem (RFC 9457) that names the place and what was expected.</summary>
internal sealed class BadInputHandler(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var (status, detail) = exception switch
        {
            CircuitException e => (422, e.Message),
            BadHttpRequestException { InnerException: JsonException e } => (400, $"The request is not understood at {e.Path ?? "$"}: {Plain(e)}"),
            BadHttpRequestException e => (e.StatusCode, e.Message),
            JsonException e => (400, $"The request is not understood at {e.Path ?? "$"}: {Plain(e)}"),
            // What the serializer says of an object whose "type" is missing.
            NotSupportedException => (400, "The entry has no 'type', or one that is not known; see JournalEntry in /api/openapi.json."),
            KeyNotFoundException e => (404, e.Message),
            ArgumentException e => (422, e.Message),
            _ => (500, "Something went wrong here. Nothing that was acknowledged is lost; try again, and look in the log of the server."),
        };
        httpContext.Response.StatusCode = status;
        return await problems.TryWriteAsync(new ProblemDetailsContext
        {
            HttpContext = httpContext,
            ProblemDetails = { Status = status, Detail = detail, Title = status >= 500 ? "Server error" : "Not accepted" },
        });
    }

    private static string Plain(JsonException e)
    {
        var end = e.Message.IndexOf(" Path:", StringComparison.Ordinal);
        return (end > 0 ? e.Message[..end] : e.Message).TrimEnd('.') + ".";
    }
}
