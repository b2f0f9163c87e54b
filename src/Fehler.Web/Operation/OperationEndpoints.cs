using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Data;
using Fehler.Web.Circuits;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Operation;

/// <summary>Steps to do from the circuit at rest with its supply on.</summary>
public sealed record OperateCircuit(ImmutableArray<Step> Steps);

internal static class OperationEndpoints
{
    public static void MapOperation(this IEndpointRouteBuilder routes) =>
        routes
            .MapPost("/api/circuits/{id:guid}/operate", Operate)
            .WithTags("Circuits")
            .Accepts<OperateCircuit>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("operateCircuit")
            .WithSummary("What the healthy circuit does, step by step")
            .ProducesProblem(404)
            .ProducesProblem(422);

    private static async Task<Results<Ok<OperationView>, ProblemHttpResult>> Operate(
        Guid id,
        Body<OperateCircuit> body,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(OperationMapping.Operate(found.Compiled, body.Value.Steps.IsDefault ? [] : body.Value.Steps))
            : TypedResults.Problem("There is no such circuit in the register.", statusCode: 404);
}
