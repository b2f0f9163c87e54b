using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Upkeep;
using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Trade;

/// <summary>Where three line values are taken, with the leads of each.</summary>
public sealed record ThreeLinesPlaceView(string Id, string Label, ImmutableArray<LeadsView> Volts, ImmutableArray<LeadsView> Amps);

/// <summary>Where the two leads go; twice the same terminal for a clamp.</summary>
public sealed record LeadsView(string From, string To);

/// <summary>Three values as they were typed.</summary>
/// <param name="Job">Job that they are taken in, for currents beside those of another way of running; none when absent.</param>
/// <param name="Place">Where they are taken, with <paramref name="Job"/>.</param>
public sealed record ThreeLinesTyped(Quantity Quantity, ImmutableArray<string> Typed, Guid? Job = null, string? Place = null);

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

        var (quantity, typed) = (body.Value.Quantity, body.Value.Typed.IsDefault ? [] : body.Value.Typed);
        double[] values = [.. typed.Take(4).Select(t => Number(t, quantity))];
        var verdict = found.Compiled.ThreeLines.Verdict(quantity, values);
        return
            body.Value is { Quantity: Quantity.Amps, Job: { } jobId, Place: { } place }
            && await jobs.FindAsync(jobId, cancellation) is { } job
            && OtherWay.Says(job.State, place, values) is { } beside
            ? TypedResults.Ok(verdict.Add(beside))
            : TypedResults.Ok(verdict);
    }

    private static double Number(string? typed, Quantity quantity) =>
        ReadingText.Parse(typed ?? "", quantity) is { Kind: ReadingKind.Number } value
            ? value.Number
            : throw new RefusedException($"“{typed}” is no number; a set is of three numbers.");
}
