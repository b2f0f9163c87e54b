using Fehler.Core.Diagnosis;
using Fehler.Core.Trade;
using Fehler.Web.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Diagnosis;

internal static class DiagnosisEndpoints
{
    public static void MapDiagnosis(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/jobs/{id:guid}/diagnosis", Get).WithTags("Diagnosis").WithName("getDiagnosis")
            .WithSummary("Suspects with their reasons, and the best next tests")
            .WithDescription("'strategy' is mostTelling (default), fromSupply, deadFirst or halving; 'without' names what cannot be done now: live, isolating, operating, field, clamp, lifting, insulationTester, with commas; 'learn=false' leaves earlier repairs out; 'words' is iec (default) or american.").ProducesProblem(404);

    private static async Task<Results<Ok<DiagnosisView>, ProblemHttpResult>> Get(
        Guid id, string? strategy, string? without, bool? learn, string? words, JobStore store, JobSessions sessions, CancellationToken cancellation)
    {
        var way = Strategy.MostTelling;
        if (strategy is not null && !Enum.TryParse(strategy, ignoreCase: true, out way))
        {
            return TypedResults.Problem($"'{strategy}' is not a way of working; expected mostTelling, fromSupply, deadFirst or halving.", statusCode: 422);
        }

        var left = Without.None;
        if (!string.IsNullOrEmpty(without) && !Enum.TryParse(without, ignoreCase: true, out left))
        {
            return TypedResults.Problem($"'{without}' is not something to do without; expected live, isolating, operating, field, clamp, lifting or insulationTester, with commas.", statusCode: 422);
        }

        if (words is not (null or "iec" or "american"))
        {
            return TypedResults.Problem($"'{words}' is not a dialect; expected iec or american.", statusCode: 422);
        }

        if (await store.FindAsync(id, cancellation) is not { } job)
        {
            return TypedResults.Problem("There is no such job.", statusCode: 404);
        }

        var session = sessions.Of(id, job.Compiled);
        var history = learn == false ? History.None : await session.HistoryAsync(() => store.HistoryAsync(job.Row, cancellation));
        var result = await session.DiagnoseAsync(job.State, way, left, history, cancellation);
        return TypedResults.Ok(new DiagnosisMapping(job.Compiled, words == "american" ? Dialect.ToAmerican : text => text).ToView(result, job.State.Entries.Length));
    }
}
