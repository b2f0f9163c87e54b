using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Circuits;

/// <summary>The drawing with every branch folded that is not in question.</summary>
internal static class InQuestionEndpoint
{
    /// <summary>Nobody suspects or asks about more at once.</summary>
    private const int Most = 500;

    public static void MapInQuestion(this IEndpointRouteBuilder circuits) =>
        circuits
            .MapGet("{id:guid}/in-question", Get)
            .WithName("getInQuestion")
            .WithSummary("The drawing of the path in question: branches that neither 'unit' nor 'at' touches are stubs")
            .WithDescription(
                "'unit' is a device or a conductor that is suspected, 'at' a terminal that is asked about; each may stand several times."
            )
            .ProducesProblem(404)
            .ProducesProblem(422);

    private static async Task<Results<Ok<List<SheetView>>, ProblemHttpResult>> Get(
        Guid id,
        string[]? unit,
        string[]? at,
        int? version,
        CircuitStore store,
        CancellationToken cancellation
    )
    {
        if (unit?.Length > Most || at?.Length > Most)
        {
            return TypedResults.Problem($"Name at most {Most} of each.", statusCode: 422);
        }

        var found = version is { } number ? await store.FindAsync(id, number, cancellation) : await store.FindAsync(id, cancellation);
        if (found is null)
        {
            return NotHere.Circuit();
        }

        var terminals = (at ?? []).Select(t => TerminalId.TryParse(t, out var terminal) ? terminal : default).ToHashSet();
        return TypedResults.Ok(
            DrawingLayout.InQuestion(found.Compiled, (unit ?? []).ToHashSet(), terminals).Select(CircuitMapping.ToView).ToList()
        );
    }
}
