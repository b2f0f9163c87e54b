using Fehler.Core.Jobs;
using Fehler.Core.Language;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;
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

    public static void MapDiagnosis(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/jobs/{id:guid}/diagnosis", Get)
            .WithTags("Diagnosis")
            .WithName("getDiagnosis")
            .RequireRateLimiting(RateLimits.Diagnosis)
            .WithSummary("Suspects with their reasons, and the best next tests")
            .WithDescription(Description)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        routes
            .MapPost("/api/jobs/{id:guid}/doubt", Doubt)
            .WithTags("Diagnosis")
            .Accepts<ReadingAsTyped>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("doubtReading")
            .RequireRateLimiting(RateLimits.Diagnosis)
            .Needs(Rights.None)
            .WithSummary("What to ask before a reading is recorded that nothing which is suspected would show; nothing is recorded")
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static async Task<Results<Ok<ReadingDoubt>, ProblemHttpResult>> Doubt(
        Guid id,
        Body<ReadingAsTyped> body,
        JobStore store,
        HistoryReader history,
        DiagnosisDesk desk,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } job)
        {
            return NotHere.Job();
        }

        // What a simulated panel shows is what it shows.
        if (job.Exercise is not null)
        {
            return TypedResults.Ok(new ReadingDoubt(null));
        }

        // What is refused is refused when it is recorded, with its reason.
        if (body.Value is not { Typed: not null, Held.IsDefault: false } typed || EntryRules.Refuse(typed, time.GetUtcNow()) is not null)
        {
            return TypedResults.Ok(new ReadingDoubt(null));
        }

        return TypedResults.Ok(
            new ReadingDoubt(
                await desk.DoubtAsync(job, typed.Understood(), () => history.OfAsync(job, CancellationToken.None), cancellation)
            )
        );
    }

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
            return NotHere.Job();
        }

        var result = await desk.DiagnoseAsync(job, wish, () => history.OfAsync(job, CancellationToken.None), Patience, cancellation);
        return result is null
            ? TypedResults.Problem("The diagnosis takes longer than usual; ask again.", statusCode: 503)
            : TypedResults.Ok(new DiagnosisMapping(job.State, wish.Dialect).ToView(result).For(job.Shown()));
    }
}
