using System.Collections.Concurrent;
using System.Diagnostics;
using System.Diagnostics.CodeAnalysis;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Service;

namespace Fehler.Web.Diagnosis;

/// <summary>
/// Diagnoses in progress, one session a job. Only a memory: everything in it follows from circuit and journal and may be thrown away at any
/// time. No more diagnoses are computed at once than there are processors, each within a budget of time, and none for which nobody waits.
/// </summary>
[SuppressMessage("Reliability", "CA1001", Justification = "A semaphore whose wait handle is never asked for holds nothing to dispose of.")]
internal sealed class DiagnosisDesk(
    CompiledCircuits circuits,
    MemoryShares memory,
    Figures figures,
    YieldingThreads threads,
    ILogger<DiagnosisDesk> log
)
{
    /// <summary>Sessions that are kept: a crew of this many works at once.</summary>
    private const int MostKept = 64;

    /// <summary>Longest that a diagnosis may take; the first of the largest circuit takes some three seconds.</summary>
    private static readonly TimeSpan Budget = TimeSpan.FromSeconds(60);

    private readonly ConcurrentDictionary<(Guid Job, Guid Version), DeskSession> _sessions = new();
    private long _done;
    private readonly SemaphoreSlim _processors = new(Math.Max(1, Environment.ProcessorCount));

    /// <summary>
    /// A first diagnosis takes many times what the next ones do: those who are in the middle of a job do not wait behind those who begin one.
    /// </summary>
    private readonly SemaphoreSlim _firsts = new(Math.Max(1, Environment.ProcessorCount / 2));

    /// <summary>The diagnosis of a job as its journal now stands.</summary>
    /// <param name="job">The job.</param>
    /// <param name="wish">How it is wanted.</param>
    /// <param name="history">Reads what the job may learn from; asked once.</param>
    /// <param name="patience">How long the caller waits; the work goes on meanwhile for the next who asks.</param>
    /// <param name="cancellation">The caller waits no more.</param>
    /// <returns>Null when it took longer than the caller's patience.</returns>
    public async Task<DiagnosisResult?> DiagnoseAsync(
        OpenedJob job,
        DiagnosisWish wish,
        Func<Task<History>> history,
        TimeSpan patience,
        CancellationToken cancellation
    )
    {
        var session = _sessions.GetOrAdd((job.Row.Id, job.Row.CircuitVersionId), _ => new DeskSession(job.Compiled));
        session.LastUsed = Environment.TickCount64;
        var known = wish.Learn ? await session.HistoryAsync(history) : History.None;
        var work = session.Join(
            (job.State.Entries.Length, wish.Strategy, wish.Without, wish.Learn),
            stop => ComputeAsync(session, job, wish, known, stop),
            Budget
        );
        try
        {
            return await work.Result.WaitAsync(patience, cancellation);
        }
        catch (TimeoutException)
        {
            return null;
        }
        finally
        {
            session.Leave(work, cancellation.IsCancellationRequested);
        }
    }

    /// <summary>What to ask before a reading counts that nothing explains; null for one that can be taken, or when there is no time for it.</summary>
    public async Task<string?> DoubtAsync(OpenedJob job, Reading reading, Func<Task<History>> history, CancellationToken cancellation)
    {
        var session = _sessions.GetOrAdd((job.Row.Id, job.Row.CircuitVersionId), _ => new DeskSession(job.Compiled));
        session.LastUsed = Environment.TickCount64;
        var known = await session.HistoryAsync(history);
        if (!await session.Turn.WaitAsync(DoubtPatience, cancellation))
        {
            return null;
        }

        try
        {
            return await threads.RunAsync(() => session.Doubt(job.State, reading, known), CancellationToken.None);
        }
        catch (Exception)
        {
            session.Forget();
            throw;
        }
        finally
        {
            session.Turn.Release();
        }
    }

    /// <summary>Whoever records a reading does not wait longer than this to be asked whether it is meant.</summary>
    private static readonly TimeSpan DoubtPatience = TimeSpan.FromMilliseconds(300);

    /// <summary>Forgets sessions that were not used for a while and what is too much; called now and then.</summary>
    /// <returns>Whether anything was forgotten.</returns>
    public bool Tidy(TimeSpan idle)
    {
        var oldest = Environment.TickCount64 - (long)idle.TotalMilliseconds;
        var before = (_sessions.Count, circuits.Count);
        var byUse = _sessions.Where(s => !s.Value.IsBusy).OrderByDescending(s => s.Value.LastUsed).ToList();
        foreach (var (id, session) in byUse.Where((s, i) => i >= MostKept || s.Value.LastUsed < oldest))
        {
            _sessions.TryRemove(KeyValuePair.Create(id, session));
        }

        // Those that keep what makes the next proposal quick, the latest first, share what memory there is for them.
        var bytes = 0L;
        foreach (var (_, session) in byUse)
        {
            bytes += session.Bytes;
            if (bytes > memory.SessionBytes)
            {
                session.Rest();
            }
        }

        // A session holds on to its circuit: one whose circuit is no longer kept would keep it after all.
        circuits.Trim();
        foreach (var (id, session) in byUse.Where(s => !circuits.Holds(s.Value.Compiled)))
        {
            _sessions.TryRemove(KeyValuePair.Create(id, session));
        }

        return before != (_sessions.Count, circuits.Count);
    }

    /// <summary>Diagnoses worked out since the start.</summary>
    public long Done => Interlocked.Read(ref _done);

    /// <summary>Whether nothing is being worked out.</summary>
    public bool IsIdle => _sessions.Values.All(s => !s.IsBusy);

    private async Task<DiagnosisResult> ComputeAsync(
        DeskSession session,
        OpenedJob job,
        DiagnosisWish wish,
        History history,
        CancellationToken stop
    )
    {
        await session.Turn.WaitAsync(stop);
        try
        {
            return session.IsFirst
                ? await InTurnAsync(_firsts, () => InTurnAsync(_processors, Diagnosed, stop), stop)
                : await InTurnAsync(_processors, Diagnosed, stop);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "Diagnosis of job {Job} on {Circuit} failed", job.Row.Id, job.Circuit.Tag);
            session.Forget();
            throw;
        }
        finally
        {
            session.Turn.Release();
            Interlocked.Increment(ref _done);
            Tidy(TimeSpan.FromHours(1));
        }

        async Task<DiagnosisResult> Diagnosed()
        {
            var begun = Stopwatch.GetTimestamp();
            var result = await threads.RunAsync(() => session.Diagnose(job.State, wish, history, stop), stop);
            figures.Diagnosed(Stopwatch.GetElapsedTime(begun));
            return result;
        }
    }

    private static async Task<T> InTurnAsync<T>(SemaphoreSlim turn, Func<Task<T>> work, CancellationToken stop)
    {
        await turn.WaitAsync(stop);
        try
        {
            return await work();
        }
        finally
        {
            turn.Release();
        }
    }
}
