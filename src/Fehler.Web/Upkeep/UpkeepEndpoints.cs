using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Upkeep;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Upkeep;

/// <summary>A reading that a piece of upkeep asks for.</summary>
public sealed record AskedReadingView(Quantity Quantity, string From, string To);

/// <summary>A rule of a circuit with what to do and what to measure.</summary>
/// <param name="TripsTimed">Devices whose trip may be timed with it.</param>
/// <param name="Counted">Devices whose counter of starts may be read with it.</param>
/// <param name="Working">What may run while it is measured, one of which is recorded with the readings; empty for dead work.</param>
public sealed record UpkeepView(
    string Id,
    string Title,
    int Months,
    double Minutes,
    UpkeepState State,
    string Source,
    ImmutableArray<string> Devices,
    ImmutableArray<string> Steps,
    ImmutableArray<AskedReadingView> Readings,
    ImmutableArray<string> TripsTimed,
    ImmutableArray<string> Counted,
    ImmutableArray<string> Working,
    bool IsInFunctionTest
);

/// <summary>Upkeep that was done.</summary>
/// <param name="Rule">Name of the rule.</param>
/// <param name="Text">What was found; may be absent.</param>
/// <param name="Minutes">What it took; 0 where nobody counted.</param>
/// <param name="Working">What ran meanwhile, "M1 runs"; absent for dead work.</param>
/// <param name="At">When; now when absent.</param>
/// <param name="Id">An id of its own, so that what is sent twice is recorded once; may be absent.</param>
public sealed record RecordWork(
    string? Rule,
    string? Who = null,
    string? Text = null,
    double Minutes = 0,
    string? Working = null,
    DateTimeOffset? At = null,
    Guid? Id = null
)
{
    /// <summary>What was measured, as journal entries: readingAsTyped, tripTimed, counterRead.</summary>
    public ImmutableArray<JournalEntry> Readings { get; init; } = [];
}

internal static class UpkeepEndpoints
{
    public static void MapUpkeep(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits/{id:guid}").WithTags("Upkeep");
        circuits
            .MapGet("upkeep", Rules)
            .WithName("listUpkeep")
            .WithSummary("What a circuit needs done from time to time, with what to do and what to measure")
            .ProducesProblem(404);
        circuits
            .MapGet("work", Work)
            .WithName("listWork")
            .WithSummary("Upkeep that was done on a circuit, the newest first")
            .ProducesProblem(404);
        circuits
            .MapPost("work", Record)
            .Accepts<RecordWork>(MediaTypeNames.Application.Json)
            .WithName("recordWork")
            .Needs(Rights.Jobs | Rights.Planning)
            .WithSummary("Records upkeep that was done, with what was measured")
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static async Task<Results<Ok<List<UpkeepView>>, ProblemHttpResult>> Rules(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(found.Compiled.Upkeep.All.Select(u => View(found.Compiled, u)).ToList())
            : NotHere.Circuit();

    private static UpkeepView View(CompiledCircuit compiled, CircuitUpkeep upkeep) =>
        new(
            upkeep.Rule.Id,
            upkeep.Rule.Title.ToString(),
            upkeep.Rule.Months,
            upkeep.Minutes,
            upkeep.Rule.State,
            upkeep.Rule.Source,
            upkeep.Devices,
            [.. upkeep.Rule.Steps.Select(s => s.ToString())],
            [.. upkeep.Rule.Readings.Select(r => new AskedReadingView(r.Quantity, r.From.ToString(), r.To.ToString()))],
            upkeep.Rule.Follows.Contains(Followed.TripTime) ? upkeep.Devices : [],
            upkeep.Rule.Follows.Contains(Followed.Starts) ? upkeep.Devices : [],
            upkeep.Rule.State == UpkeepState.Dead
                ? []
                :
                [
                    .. compiled
                        .FunctionTest.Steps.Where(s => !s.Currents.IsEmpty)
                        .Select(s => SeriesValues.Working(compiled.Circuit, s.Expected))
                        .Distinct(),
                ],
            upkeep.Rule.IsInFunctionTest
        );

    private static async Task<Results<Ok<Page<WorkItem>>, ProblemHttpResult>> Work(
        Guid id,
        [AsParameters] ListParameters list,
        CircuitStore store,
        WorkStore work,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is null
            ? NotHere.Circuit()
            : TypedResults.Ok(await work.ListAsync(id, list.ToQuery(), cancellation));

    private static async Task<Results<Ok<WorkItem>, ProblemHttpResult>> Record(
        Guid id,
        Body<RecordWork> body,
        Caller caller,
        WorkStore work,
        CancellationToken cancellation
    )
    {
        var given = body.Value;
        var done = new DoneWork(
            given.Rule ?? "",
            caller.Named(given.Who),
            given.Text ?? "",
            given.Minutes,
            given.Readings.IsDefault ? [] : given.Readings,
            given.Working ?? "",
            given.At
        )
        {
            Id = given.Id ?? Guid.Empty,
        };
        return await work.RecordAsync(id, done, cancellation) is { } recorded ? TypedResults.Ok(recorded) : NotHere.Circuit();
    }
}
