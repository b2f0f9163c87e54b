using Fehler.Core.Language;
using Fehler.Data;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Diagnosis;

internal static class DiagnosisEndpoints
{
    /// <summary>How long somebody waits who asks for nothing but the diagnosis.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);

    public const string Description =
        "'strategy' is mostTelling (default), fromSupply, deadFirst or halving; 'without' names what cannot be done now: live, "
        + "isolating, operating, field, "
        + "clamp, lifting, insulationTester, with commas; 'learn=false' leaves earlier repairs out; 'words' is iec (default) or american.";

    public static void MapDiagnosis(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/jobs/{id:guid}/diagnosis", Get)
            .WithTags("Diagnosis")
            .WithName("getDiagnosis")
            .WithSummary("Suspects with their reasons, and the best next tests")
            .WithDescription(Description)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);

    private static async Task<Results<Ok<DiagnosisView>, ProblemHttpResult>> Get(
        Guid id,
        string? strategy,
        string? without,
        bool? learn,
        string? words,
        JobStore store,
        HistoryReader history,
        DiagnosisDesk desk,
        CancellationToken cancellation
    )
    {
        var wish = DiagnosisWish.Parse(strategy, without, learn, words);
        if (await store.FindAsync(id, cancellation) is not { } job)
        {
            return TypedResults.Problem("There is no such job.", statusCode: 404);
        }

        var result = await desk.DiagnoseAsync(job, wish, () => history.OfAsync(job, CancellationToken.None), Patience, cancellation);
        return result is null
            ? TypedResults.Problem("The diagnosis takes longer than usual; ask again.", statusCode: 503)
            : TypedResults.Ok(new DiagnosisMapping(job.State, wish.Dialect).ToView(result));
    }
}
