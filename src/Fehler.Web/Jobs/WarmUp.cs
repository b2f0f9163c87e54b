using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Diagnosis;

namespace Fehler.Web.Jobs;

/// <summary>
/// Works out the diagnoses of open jobs after a start, so that the first screen does not wait for them, and gives memory back when nothing
/// is
/// asked. One job that cannot be worked out never stops the others, nor the service.
/// </summary>
internal sealed class WarmUp(IServiceScopeFactory scopes, DiagnosisDesk desk, ILogger<WarmUp> log) : BackgroundService
{
    private const int MostJobs = 10;

    /// <summary>
    /// Memory held from the machine above which it is worth collecting when nobody waits, bytes; tuned on the demo plant.
    /// </summary>
    private const long WorthCollecting = 200_000_000;

    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5),
        Idle = TimeSpan.FromMinutes(10);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            foreach (var id in await OpenAsync(stoppingToken))
            {
                await WarmAsync(id, stoppingToken);
            }

            using var clock = new PeriodicTimer(Every);
            var (before, collected) = (0L, 0L);
            while (await clock.WaitForNextTickAsync(stoppingToken))
            {
                var hasForgotten = desk.Tidy(Idle);
                var done = desk.Done;
                var isQuiet = done == before && desk.IsIdle;
                before = done;
                if (isQuiet && (hasForgotten || done != collected) && GC.GetGCMemoryInfo().TotalCommittedBytes > WorthCollecting)
                {
                    // Working out a diagnosis leaves much behind; it goes back to the machine at a moment when nobody waits for an answer.
                    collected = done;
                    GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
                }
            }
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
    }

    private async Task<List<Guid>> OpenAsync(CancellationToken cancellation)
    {
        try
        {
            using var scope = scopes.CreateScope();
            return await scope.ServiceProvider.GetRequiredService<JobStore>().OpenAsync(MostJobs, cancellation);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "The open jobs could not be read");
            return [];
        }
    }

    private async Task WarmAsync(Guid id, CancellationToken cancellation)
    {
        try
        {
            using var scope = scopes.CreateScope();
            var history = scope.ServiceProvider.GetRequiredService<HistoryReader>();
            if (await scope.ServiceProvider.GetRequiredService<JobStore>().FindAsync(id, cancellation) is { } job)
            {
                await desk.DiagnoseAsync(
                    job,
                    DiagnosisWish.Usual,
                    () => history.OfAsync(job, cancellation),
                    TimeSpan.FromMinutes(1),
                    cancellation
                );
            }
        }
        catch (Exception e) when (e is not OperationCanceledException || !cancellation.IsCancellationRequested)
        {
            log.LogError(e, "Job {Job} could not be worked out and is left aside", id);
        }
    }
}
