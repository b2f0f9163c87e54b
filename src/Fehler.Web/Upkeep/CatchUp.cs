using Fehler.Data;
using Fehler.Web.Diagnosis;

namespace Fehler.Web.Upkeep;

/// <summary>
/// Works out what older versions of the program, and closed jobs, have left to be worked out: outlines, followed values, how the diagnosis
/// did. One thing at a time, and what takes long only while nobody waits for an answer.
/// </summary>
internal sealed class CatchUp(IServiceScopeFactory scopes, DiagnosisDesk desk, IConfiguration configuration, ILogger<CatchUp> log)
    : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(20),
        Breath = TimeSpan.FromMilliseconds(200);

    /// <summary>Judging closed jobs takes seconds of a processor each; it can be switched off.</summary>
    private bool JudgesJobs => configuration.GetValue("Fehler:JudgeJobs", true);

    private readonly YieldingThreads _behindAll = YieldingThreads.BehindAll();
    private readonly HashSet<Guid> _setAside = [];
    private Guid _at;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            using var clock = new PeriodicTimer(Every);
            do
            {
                while (await OneAsync(stoppingToken))
                {
                    await Task.Delay(Breath, stoppingToken);
                }
            } while (await clock.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
    }

    public override void Dispose()
    {
        _behindAll.Dispose();
        base.Dispose();
    }

    private Task QuietlyAsync(Action work, CancellationToken cancellation) =>
        _behindAll.RunAsync(
            () =>
            {
                work();
                return true;
            },
            cancellation
        );

    /// <summary>Works one thing out; false when nothing is left, or somebody waits. One that cannot be is set aside, not tried for ever.</summary>
    private async Task<bool> OneAsync(CancellationToken cancellation)
    {
        try
        {
            using var scope = scopes.CreateScope();
            var services = scope.ServiceProvider;
            var jobs = services.GetRequiredService<JobStore>();
            void Begins(Guid id) => _at = id;
            return await services.GetRequiredService<Outlines>().CatchUpAsync(_setAside, Begins, cancellation)
                || await services.GetRequiredService<FollowedValues>().CatchUpAsync(jobs, _setAside, Begins, cancellation)
                || (
                    JudgesJobs
                    && desk.IsIdle
                    && await services.GetRequiredService<JobJudge>().CatchUpAsync(_setAside, Begins, QuietlyAsync, cancellation)
                );
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "{Id} could not be worked out and is set aside", _at);
            return _at != Guid.Empty && _setAside.Add(_at);
        }
    }
}
