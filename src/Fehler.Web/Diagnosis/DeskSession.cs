using System.Diagnostics.CodeAnalysis;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Desk;

namespace Fehler.Web.Diagnosis;

/// <summary>What one diagnosis is computed for.</summary>
internal readonly record struct DeskKey(int Entries, Strategy Strategy, Without Without, bool Learn)
{
    public static implicit operator DeskKey((int Entries, Strategy Strategy, Without Without, bool Learn) x) =>
        new(x.Entries, x.Strategy, x.Without, x.Learn);
}

/// <summary>A diagnosis that is being computed, and how many wait for it.</summary>
internal sealed class DeskWork(DeskKey key, Task<DiagnosisResult> result, CancellationTokenSource stop)
{
    public DeskKey Key { get; } = key;

    public Task<DiagnosisResult> Result { get; } = result;

    public CancellationTokenSource Stop { get; } = stop;

    public int Waiting { get; set; } = 1;
}

/// <summary>One job's diagnosis: its session, and what is being computed for it.</summary>
[SuppressMessage("Reliability", "CA1001", Justification = "A semaphore whose wait handle is never asked for holds nothing to dispose of.")]
internal sealed class DeskSession(CompiledCircuit compiled)
{
    private readonly Lock _lock = new();
    private DiagnosisSession? _diagnosis;
    private Task<History>? _history;
    private DeskWork? _work;
    private long _bytes;

    /// <summary>The circuit of the job.</summary>
    public CompiledCircuit Compiled => compiled;

    /// <summary>One diagnosis of a job at a time.</summary>
    public SemaphoreSlim Turn { get; } = new(1, 1);

    public long LastUsed { get; set; }

    /// <summary>Nothing was worked out for it yet.</summary>
    public bool IsFirst => _diagnosis is null;

    /// <summary>About how much memory it took by itself when it was last used: others ask for it while it works.</summary>
    public long Bytes => Interlocked.Read(ref _bytes);

    public bool IsBusy => Turn.CurrentCount == 0;

    /// <summary>What this job learns from: read once, since only what was closed before the job was opened counts.</summary>
    public async Task<History> HistoryAsync(Func<Task<History>> read)
    {
        lock (_lock)
        {
            _history = _history is null or { IsFaulted: true } or { IsCanceled: true } ? read() : _history;
        }

        return await _history;
    }

    /// <summary>Joins the computation that is under way for the same question, or begins it.</summary>
    public DeskWork Join(DeskKey key, Func<CancellationToken, Task<DiagnosisResult>> compute, TimeSpan budget)
    {
        lock (_lock)
        {
            if (
                _work is { } running
                && running.Key == key
                && !running.Stop.IsCancellationRequested
                && !running.Result.IsFaulted
                && !running.Result.IsCanceled
            )
            {
                running.Waiting++;
                return running;
            }

            var stop = new CancellationTokenSource(budget);
            return _work = new DeskWork(key, compute(stop.Token), stop);
        }
    }

    /// <summary>A caller waits no more; when it went away and nobody else waits the work stops.</summary>
    public void Leave(DeskWork work, bool isGone)
    {
        lock (_lock)
        {
            work.Waiting--;
            if (isGone && work.Waiting == 0 && !work.Result.IsCompleted)
            {
                work.Stop.Cancel();
            }
        }
    }

    /// <summary>Computes; in turn.</summary>
    public DiagnosisResult Diagnose(JobState state, DiagnosisWish wish, History history, CancellationToken cancellation)
    {
        try
        {
            _diagnosis ??= new DiagnosisSession(compiled);
            _diagnosis.Learn(history);
            return _diagnosis.Diagnose(state, wish.Strategy, wish.Without, cancellation);
        }
        finally
        {
            Note();
        }
    }

    /// <summary>What to ask before a reading counts; in turn.</summary>
    public string? Doubt(JobState state, Reading reading, History history)
    {
        _diagnosis ??= new DiagnosisSession(compiled);
        _diagnosis.Learn(history);
        return _diagnosis.Doubt(state, reading);
    }

    public void Forget()
    {
        _diagnosis = null;
        Note();
    }

    private void Note() => Interlocked.Exchange(ref _bytes, _diagnosis?.Bytes ?? 0);

    /// <summary>Keeps only what is small, unless it is being used.</summary>
    public void Rest()
    {
        if (Turn.Wait(0))
        {
            try
            {
                _diagnosis?.Rest();
                Note();
            }
            finally
            {
                Turn.Release();
            }
        }
    }
}
