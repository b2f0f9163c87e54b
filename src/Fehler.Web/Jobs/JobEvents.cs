using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Fehler.Data;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Jobs;

/// <summary>
/// What other screens record, as server-sent events (WHATWG HTML, server-sent events): the number of journal entries, at once when it grows
/// and every few seconds as a sign of life.
/// </summary>
internal static class JobEvents
{
    /// <summary>A screen that has heard nothing for some of these has lost its connection.</summary>
    private static readonly TimeSpan SignOfLife = TimeSpan.FromSeconds(4);

    public static void MapJobEvents(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/jobs/{id:guid}/events", Events)
            .WithTags("Jobs")
            .WithName("listenToJob")
            .WithSummary("The number of journal entries as server-sent events: at once when it grows, and every four seconds")
            .ProducesProblem(404);

    private static async Task<Results<ServerSentEventsResult<int>, ProblemHttpResult>> Events(
        Guid id,
        JobStore store,
        JobNews news,
        IHostApplicationLifetime lifetime,
        CancellationToken cancellation
    ) =>
        await store.SequenceAsync(id, cancellation) is not null
            ? TypedResults.ServerSentEvents(Listen(id, store, news, lifetime.ApplicationStopping, cancellation))
            : NotHere.Job();

    private static async IAsyncEnumerable<SseItem<int>> Listen(
        Guid id,
        JobStore store,
        JobNews news,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken gone
    )
    {
        using var over = CancellationTokenSource.CreateLinkedTokenSource(stopping, gone);
        await using var heard = news.Of(id, over.Token).GetAsyncEnumerator(over.Token);
        var next = heard.MoveNextAsync().AsTask();
        // Counted once it is listened: what is recorded in between is heard.
        var sequence = await store.SequenceAsync(id, over.Token) ?? 0;
        while (true)
        {
            yield return new SseItem<int>(sequence);
            try
            {
                if (await Task.WhenAny(next, Task.Delay(SignOfLife, over.Token)) == next)
                {
                    sequence = await next ? heard.Current : sequence;
                    next = heard.MoveNextAsync().AsTask();
                }

                over.Token.ThrowIfCancellationRequested();
            }
            catch (OperationCanceledException)
            {
                // The reader is awaited before it is let go of.
                await next.ContinueWith(_ => { }, CancellationToken.None, TaskContinuationOptions.None, TaskScheduler.Default);
                yield break;
            }
        }
    }
}
