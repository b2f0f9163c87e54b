using System.Net.Mime;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.FollowUps;

/// <summary>Something to be done on a circuit.</summary>
/// <param name="Text">What.</param>
/// <param name="Due">The day by which, e.g. 2026-12-05.</param>
/// <param name="Who">Who writes it down.</param>
/// <param name="Job">The job that it follows from; none when absent.</param>
public sealed record AddFollowUp(string? Text, DateOnly Due, string? Who = null, Guid? Job = null);

/// <summary>It was done.</summary>
public sealed record FollowUpDone(string? Who = null);

internal static class FollowUpEndpoints
{
    public static void MapFollowUps(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/follow-ups", List)
            .WithTags("Follow-ups")
            .WithName("listFollowUps")
            .WithSummary("What is to be done on circuits, soonest first")
            .WithDescription("'done' lists what was done instead, 'circuit' those of one; 'sort' is due, circuitTag or text.")
            .ProducesProblem(422);
        routes
            .MapPost("/api/circuits/{id:guid}/follow-ups", Add)
            .WithTags("Follow-ups")
            .Accepts<AddFollowUp>(MediaTypeNames.Application.Json)
            .WithName("addFollowUp")
            .Needs(Rights.Jobs | Rights.Planning)
            .WithSummary("Writes down what is to be done on a circuit by a day")
            .ProducesProblem(404)
            .ProducesProblem(422);
        routes
            .MapPost("/api/follow-ups/{id:guid}/done", Done)
            .WithTags("Follow-ups")
            .Accepts<FollowUpDone>(MediaTypeNames.Application.Json)
            .WithName("followUpDone")
            .Needs(Rights.Jobs | Rights.Planning)
            .WithSummary("Says that it was done")
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static Task<Page<FollowUpItem>> List(
        [AsParameters] ListParameters list,
        FollowUpStore store,
        CancellationToken cancellation,
        bool done = false,
        Guid? circuit = null
    ) => store.ListAsync(list.ToQuery(), done, circuit, cancellation);

    private static async Task<Results<Ok<FollowUpItem>, ProblemHttpResult>> Add(
        Guid id,
        Body<AddFollowUp> body,
        Caller caller,
        FollowUpStore store,
        CancellationToken cancellation
    ) =>
        await store.AddAsync(id, body.Value.Job, body.Value.Text ?? "", body.Value.Due, caller.Named(body.Value.Who), cancellation)
            is { } added
            ? TypedResults.Ok(added)
            : NotHere.Circuit();

    private static async Task<Results<Ok<FollowUpItem>, ProblemHttpResult>> Done(
        Guid id,
        Body<FollowUpDone> body,
        Caller caller,
        FollowUpStore store,
        CancellationToken cancellation
    ) => await store.DoneAsync(id, caller.Named(body.Value.Who), cancellation) is { } done ? TypedResults.Ok(done) : NotHere.FollowUp();
}
