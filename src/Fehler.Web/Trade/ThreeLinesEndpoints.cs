using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Upkeep;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Trade;

/// <summary>Where three line values are taken, with the leads of each.</summary>
public sealed record ThreeLinesPlaceView(string Id, string Label, ImmutableArray<LeadsView> Volts, ImmutableArray<LeadsView> Amps);

/// <summary>Where the two leads go; twice the same terminal for a clamp.</summary>
public sealed record LeadsView(string From, string To);

internal static class ThreeLinesEndpoints
{
    public static void MapThreeLines(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits/{id:guid}/three-lines").WithTags("Sums");
        circuits
            .MapGet("", Places)
            .WithName("listThreeLines")
            .WithSummary("Where three line values are taken as one set")
            .ProducesProblem(404);
        circuits
            .MapPost("judged", Judge)
            .Accepts<ThreeLinesTyped>(MediaTypeNames.Application.Json)
            .WithName("judgeThreeLines")
            .Needs(Rights.None)
            .WithSummary("What three voltages between lines, or three currents, say together")
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static async Task<Results<Ok<List<ThreeLinesPlaceView>>, ProblemHttpResult>> Places(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(
                found
                    .Compiled.ThreeLines.Places.Select(p => new ThreeLinesPlaceView(
                        p.Id,
                        p.Label,
                        Leads(p, Quantity.Volts),
                        Leads(p, Quantity.Amps)
                    ))
                    .ToList()
            )
            : NotHere.Circuit();

    private static ImmutableArray<LeadsView> Leads(ThreeLinesPlace place, Quantity quantity) =>
        [.. place.Leads(quantity).Select(l => new LeadsView(l.From.ToString(), l.To.ToString()))];

    private static async Task<Results<Ok<ImmutableArray<string>>, ProblemHttpResult>> Judge(
        Guid id,
        Body<ThreeLinesTyped> body,
        CircuitStore store,
        JobStore jobs,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var job = body.Value.Job is { } jobId ? await jobs.FindAsync(jobId, cancellation) : null;
        return TypedResults.Ok(ThreeLinesVerdict.Of(found.Compiled, body.Value, job?.State));
    }
}
