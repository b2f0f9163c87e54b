using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Circuits;
using Fehler.Web.Diagnosis;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Operation;

internal static class OperationEndpoints
{
    /// <summary>How long somebody waits who tries something while the diagnosis is still being worked out.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    public static void MapOperation(this IEndpointRouteBuilder routes)
    {
        routes
            .MapPost("/api/circuits/{id:guid}/operate", Operate)
            .WithTags("Circuits")
            .Accepts<OperateCircuit>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("operateCircuit")
            .Needs(Rights.None)
            .WithSummary("What the healthy circuit does, step by step")
            .ProducesProblem(404)
            .ProducesProblem(422);
        routes
            .MapPost("/api/jobs/{id:guid}/operate", OperateAsItStands)
            .WithTags("Jobs")
            .Accepts<OperateCircuit>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("operateJob")
            .RequireRateLimiting(RateLimits.Diagnosis)
            .Needs(Rights.None)
            .WithSummary("What a healthy circuit would do now, standing as it was seen to stand")
            .WithDescription("Nothing is recorded: it is what is compared with what then happens.")
            .ProducesProblem(404)
            .ProducesProblem(422)
            .ProducesProblem(503);
    }

    private static async Task<Results<Ok<OperationView>, ProblemHttpResult>> Operate(
        Guid id,
        Body<OperateCircuit> body,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(OperationMapping.Operate(found.Compiled, body.Value.Steps.IsDefault ? [] : body.Value.Steps))
            : NotHere.Circuit();

    private static async Task<Results<Ok<OperationView>, ProblemHttpResult>> OperateAsItStands(
        Guid id,
        Body<OperateCircuit> body,
        JobStore store,
        HistoryReader history,
        DiagnosisDesk desk,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } job)
        {
            return NotHere.Job();
        }

        var steps = body.Value.Steps.IsDefault ? [] : body.Value.Steps;
        if (steps.Length > 0 && job.State.Refuse(new OperationSeen(steps, ImmutableSortedDictionary<string, string>.Empty)) is { } refused)
        {
            return TypedResults.Problem(refused, statusCode: 422);
        }

        if (!steps.IsEmpty && DiagnosisSession.AtRest(job.State) is { } rest)
        {
            return TypedResults.Ok(OperationMapping.Operate(job.Compiled, steps, rest));
        }

        var result = await desk.DiagnoseAsync(
            job,
            DiagnosisWish.Usual,
            () => history.OfAsync(job, CancellationToken.None),
            Patience,
            cancellation
        );
        return result is null
            ? TypedResults.Problem("The diagnosis takes longer than usual; ask again.", statusCode: 503)
            : TypedResults.Ok(
                steps.IsEmpty
                    ? OperationMapping.Standing(job.Circuit, result)
                    : OperationMapping.Operate(job.Compiled, steps, result.Standing)
            );
    }
}
