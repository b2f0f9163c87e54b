using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Web.Jobs;

/// <summary>
/// Diagnoses in progress. Only a cache: everything in it follows from circuit and journal, so it may be thrown away at any
/// time. One caller at a time works on a job; writing to its journal takes the same turn.
/// </summary>
internal sealed class JobSessions
{
    private const int MostKept = 24;

    private readonly ConcurrentDictionary<Guid, JobSession> _sessions = new();

    public JobSession Of(Guid job, CompiledCircuit compiled)
    {
        if (_sessions.Count > MostKept)
        {
            foreach (var old in _sessions.OrderBy(s => s.Value.LastUsed).Take(_sessions.Count - MostKept).ToList())
            {
                _sessions.TryRemove(old.Key, out _);
            }
        }

        var session = _sessions.GetOrAdd(job, _ => new JobSession(compiled));
        session.LastUsed = Environment.TickCount64;
        return session;
    }
}

/// <summary>One job's diagnosis and its turnstile.</summary>
[SuppressMessage("Reliability", "CA1001", Justification = "A semaphore whose wait handle is never asked for holds nothing to dispose of.")]
internal sealed class JobSession(CompiledCircuit compiled)
{
    private readonly SemaphoreSlim _turn = new(1, 1);
    private DiagnosisSession? _diagnosis;
    private History? _history;

    public long LastUsed { get; set; }

    public async Task<T> InTurnAsync<T>(Func<Task<T>> work, CancellationToken cancellation)
    {
        await _turn.WaitAsync(cancellation);
        try
        {
            return await work();
        }
        finally
        {
            _turn.Release();
        }
    }

    /// <summary>What this job learns from: read once, since only what was closed before the job was opened counts.</summary>
    public async Task<History> HistoryAsync(Func<Task<History>> read) => _history ??= await read();

    public Task<DiagnosisResult> DiagnoseAsync(JobState state, Strategy strategy, Without without, History history, CancellationToken cancellation) =>
        InTurnAsync(() => Task.Run(() =>
        {
            _diagnosis ??= new DiagnosisSession(compiled);
            _diagnosis.Learn(history);
            return _diagnosis.Diagnose(state, strategy, without);
        }, cancellation), cancellation);
}
