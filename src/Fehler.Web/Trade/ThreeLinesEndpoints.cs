using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Trade;

/// <summary>Where three line values are taken, with the leads of each.</summary>
public sealed record ThreeLinesPlaceView(string Id, string Label, ImmutableArray<LeadsView> Volts, ImmutableArray<LeadsView> Amps);

/// <summary>Where the two leads go; twice the same terminal for a clamp.</summary>
public sealed record LeadsView(string From, string To);

/// <summary>Three values as they were typed.</summary>
public sealed record ThreeLinesTyped(Quantity Quantity, ImmutableArray<string> Typed);

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
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var (quantity, typed) = (body.Value.Quantity, body.Value.Typed.IsDefault ? [] : body.Value.Typed);
        return TypedResults.Ok(found.Compiled.ThreeLines.Verdict(quantity, [.. typed.Take(4).Select(t => Number(t, quantity))]));
    }

    private static double Number(string? typed, Quantity quantity) =>
        ReadingText.Parse(typed ?? "", quantity) is { Kind: ReadingKind.Number } value
            ? value.Number
            : throw new RefusedException($"“{typed}” is no number; a set is of three numbers.");
}
