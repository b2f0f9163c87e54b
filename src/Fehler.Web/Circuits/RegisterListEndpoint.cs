using System.Text;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;

namespace Fehler.Web.Circuits;

/// <summary>What became of a line of a register list.</summary>
/// <param name="Line">Where it stands in the list; 0 for what is said of the list as a whole.</param>
/// <param name="Tag">Its designation.</param>
/// <param name="Of">How many lines there are.</param>
/// <param name="Problem">Why it was set aside; empty when it was taken in.</param>
public sealed record RegisterLineDone(long Line, string Tag, int Of, string Problem);

/// <summary>A plant's list of starters, taken in row by row.</summary>
internal static class RegisterListEndpoint
{
    public static void MapRegisterList(this IEndpointRouteBuilder circuits) =>
        circuits
            .MapPost("register-list", TakeIn)
            .WithName("importRegisterList")
            .RequireRateLimiting(RateLimits.TakingIn)
            .Needs(Rights.Planning)
            .WithSummary("Takes in a register list (docs/formats/register-list.md): a row each starter, built as its family")
            .WithDescription(
                "Answers line by line while it works (JSON, a line each). A designation that is in the register already and a row "
                    + "that cannot be used are set aside; the rest is taken."
            )
            .Accepts<object>("text/csv")
            .Produces<RegisterLineDone>(200, "application/x-ndjson")
            .ProducesProblem(422);

    private static async Task<IResult> TakeIn(
        HttpRequest request,
        CircuitStore store,
        ILoggerFactory loggers,
        CancellationToken cancellation
    )
    {
        using var reader = new StreamReader(request.Body, new UTF8Encoding(false, throwOnInvalidBytes: false));
        var text = await reader.ReadToEndAsync(cancellation);
        var list = await Task.Run(() => RegisterList.Read(text), cancellation);
        var log = loggers.CreateLogger(typeof(RegisterListEndpoint));
        return TypedResults.Stream(
            async stream =>
            {
                if (!list.Unused.IsEmpty)
                {
                    var unused = $"Columns that no option is called as were passed over: {string.Join(", ", list.Unused)}.";
                    await WriteAsync(stream, new RegisterLineDone(0, "", list.Lines.Length, unused), cancellation);
                }

                foreach (var line in list.Lines)
                {
                    var problem = line.Circuit is { } circuit ? await TakenInAsync(store, circuit, log, cancellation) : line.Problem;
                    await WriteAsync(stream, new RegisterLineDone(line.Line, line.Tag, list.Lines.Length, problem), cancellation);
                }
            },
            "application/x-ndjson"
        );
    }

    private static async Task<string> TakenInAsync(CircuitStore store, Circuit circuit, ILogger log, CancellationToken cancellation)
    {
        try
        {
            await store.ImportAsync(CircuitFile.Write(circuit), cancellation, isNew: true);
            return "";
        }
        catch (Exception e) when (e is RefusedException or DesignationTakenException)
        {
            return e.Message;
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // The answer has begun: one row that breaks is told and logged, and does not take the others with it.
            RowBroke(log, circuit.Tag, e);
            return "Fehler could not take it in; what happened is in its log.";
        }
    }

    private static readonly Action<ILogger, string, Exception?> RowBroke = LoggerMessage.Define<string>(
        LogLevel.Error,
        new EventId(1, nameof(RowBroke)),
        "A row of a register list broke: {Tag}"
    );

    private static async Task WriteAsync(Stream stream, RegisterLineDone done, CancellationToken cancellation)
    {
        await stream.WriteAsync(JsonSerializer.SerializeToUtf8Bytes(done, JsonSerializerOptions.Web), cancellation);
        await stream.WriteAsync("\n"u8.ToArray(), cancellation);
        await stream.FlushAsync(cancellation);
    }
}
