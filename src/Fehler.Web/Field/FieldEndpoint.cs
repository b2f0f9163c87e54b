using System.Collections.Immutable;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Field;

internal static class FieldEndpoint
{
    /// <summary>Open jobs of a circuit that are taken along; more than this nobody works on at once.</summary>
    private const int MostJobs = 20;

    public static void MapField(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/field/circuits/{id:guid}", Get)
            .WithTags("Field")
            .WithName("takeAlong")
            .WithSummary("A circuit with its open jobs, as a device takes it along to where there is no connection")
            .ProducesProblem(404);

    private static async Task<Results<Ok<FieldPackage>, ProblemHttpResult>> Get(
        Guid id,
        CircuitStore circuits,
        JobStore jobs,
        HistoryReader history,
        CancellationToken cancellation
    )
    {
        if (await circuits.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var page = await jobs.ListAsync(new ListQuery(Take: MostJobs), new JobFilter { Circuit = id, Show = JobsShown.Open }, cancellation);
        var (open, versions) = (new List<FieldJob>(), new SortedDictionary<int, string>());
        versions[found.Number] = await circuits.JsonAsync(found.VersionId, cancellation);
        foreach (var item in page.Items)
        {
            if (await jobs.FindAsync(item.Id, cancellation) is not { } job)
            {
                continue;
            }

            if (!versions.ContainsKey(job.CircuitVersion))
            {
                versions[job.CircuitVersion] = await circuits.JsonAsync(job.Row.CircuitVersionId, cancellation);
            }

            open.Add(
                new FieldJob(
                    job.Row.Id,
                    id,
                    job.CircuitVersion,
                    job.Row.Title,
                    job.Row.OpenedAt,
                    job.State.Entries,
                    FieldHistory.Of(await history.OfAsync(job, cancellation))
                )
            );
        }

        var left = await jobs.HandedOverAsync(id, cancellation);
        return TypedResults.Ok(
            new FieldPackage(
                id,
                found.Number,
                [.. versions.Select(v => new FieldVersion(v.Key, v.Value))],
                [.. open],
                FieldHistory.Of(await history.NowAsync(found, cancellation)),
                left?.Leftovers
            )
        );
    }
}
