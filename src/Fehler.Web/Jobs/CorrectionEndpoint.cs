using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Jobs;

/// <summary>How a panel differs from its description, found in a job.</summary>
/// <param name="Edit">What has to be changed in the description.</param>
/// <param name="Who">Who found it.</param>
public sealed record PanelDiffers(CircuitEdit Edit, string? Who = null);

internal static class CorrectionEndpoint
{
    private const int LongestName = 60;

    public static void MapCorrections(this IEndpointRouteBuilder routes) =>
        routes
            .MapPost("/api/jobs/{id:guid}/corrections", Correct)
            .WithTags("Jobs")
            .WithName("correctCircuit")
            .Needs(Rights.Jobs)
            .WithSummary("The panel differs: the circuit gets a new version, and the job goes on with it")
            .WithDescription("Refused when something that the job has recorded would no longer fit; nothing is changed then.")
            .Accepts<PanelDiffers>(MediaTypeNames.Application.Json)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> Correct(
        Guid id,
        Body<PanelDiffers> body,
        Caller caller,
        JournalDoor door,
        CancellationToken cancellation
    )
    {
        if (body.Value is not { Edit: { } edit } || body.Value.Who is { Length: > LongestName })
        {
            throw new RefusedException("Say how the panel differs: an edit of the circuit, and a name of at most 60 characters.");
        }

        return await door.CorrectAsync(
            id,
            circuit => CircuitEditor.Apply(circuit, edit),
            EditWords.Of(edit),
            caller.Named(body.Value.Who),
            cancellation
        ) switch
        {
            DoorAnswer.Recorded recorded => TypedResults.Ok(recorded.Job.ToView()),
            DoorAnswer.Refused refused => TypedResults.Problem(
                refused.Reason,
                statusCode: refused.IsConflict ? 409 : 422,
                title: "Not corrected"
            ),
            _ => NotHere.Job(),
        };
    }
}
