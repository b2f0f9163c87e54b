using System.Collections.Immutable;
using System.Net.Mime;
using System.Text.Json;
using Fehler.Core.Editing;
using Fehler.Core.Trade;
using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Trade;

/// <summary>A sum that was worked out.</summary>
/// <param name="Result">What it comes to.</param>
/// <param name="Put">Where its result belongs in the circuit that it was asked for; null where it sets nothing.</param>
public sealed record WorkedSum(SumResult Result, ProposedEdit? Put);

internal static class SumEndpoints
{
    public static void MapSums(this IEndpointRouteBuilder routes)
    {
        var sums = routes.MapGroup("/api/sums").WithTags("Sums");
        sums.MapGet("", () => SumCatalogue.All)
            .WithName("listSums")
            .WithSummary("The trade's sums with what each asks for and where its rule comes from");
        sums.MapPost("{sum}", Work)
            .Accepts<JsonElement>(MediaTypeNames.Application.Json)
            .WithName("workSum")
            .Needs(Rights.None)
            .WithSummary("Works a sum out; what is left out has its default")
            .WithDescription("With 'circuit' and 'device' it says where the result belongs in that circuit's description.")
            .ProducesProblem(404)
            .ProducesProblem(422);
        routes
            .MapGet("/api/circuits/{id:guid}/sums", OnCircuit)
            .WithTags("Sums")
            .WithName("listSumsOnCircuit")
            .WithSummary("The sums that a circuit knows something of, with what its plates and settings give")
            .ProducesProblem(404);
    }

    private static async Task<Results<Ok<WorkedSum>, ProblemHttpResult>> Work(
        string sum,
        Body<JsonDocument> given,
        CircuitStore store,
        CancellationToken cancellation,
        Guid? circuit = null,
        string? device = null
    )
    {
        var asked = SumCatalogue.Read(sum, given.Value.RootElement);
        var result = asked.Work();
        if (circuit is not { } id || device is null)
        {
            return TypedResults.Ok(new WorkedSum(result, null));
        }

        return await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(new WorkedSum(result, SumsOnCircuit.Put(found.Compiled.Circuit, device, asked, result)))
            : NotHere.Circuit();
    }

    private static async Task<Results<Ok<ImmutableArray<AskedSum>>, ProblemHttpResult>> OnCircuit(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(await Task.Run(() => SumsOnCircuit.Of(found.Compiled), cancellation))
            : NotHere.Circuit();
}
