using Fehler.Core.Diagnosis;
using Fehler.Data;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Jobs;

/// <summary>Works out the diagnoses of open jobs after a start, so that the first screen does not wait for them.</summary>
internal sealed class WarmUp(IServiceScopeFactory scopes, JobSessions sessions) : BackgroundService
{
    private const int MostJobs = 10;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var scope = scopes.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<FehlerDb>();
        var store = scope.ServiceProvider.GetRequiredService<JobStore>();
        var open = await db.Jobs.Where(j => j.ClosedAt == null).OrderByDescending(j => j.OpenedAt).Select(j => j.Id).Take(MostJobs).ToListAsync(stoppingToken);
        foreach (var id in open)
        {
            if (await store.FindAsync(id, stoppingToken) is { } job)
            {
                var session = sessions.Of(id, job.Compiled);
                await session.DiagnoseAsync(job.State, Strategy.MostTelling, Without.None, await session.HistoryAsync(() => store.HistoryAsync(job.Row, stoppingToken)), stoppingToken);
            }
        }
    }
}
