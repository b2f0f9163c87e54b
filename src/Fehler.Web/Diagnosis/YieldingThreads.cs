using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;
using System.Runtime.InteropServices;

namespace Fehler.Web.Diagnosis;

/// <summary>
/// As many threads as there are processors for what takes seconds of them, and at a low priority: a request that writes an entry down finds
/// a processor at once, however many diagnoses are being worked out. What runs on them in parts has its parts on them too.
/// </summary>
[SuppressMessage("Naming", "CA1711", Justification = "It is a scheduler.")]
internal sealed class YieldingThreads : TaskScheduler, IDisposable
{
    /// <summary>
    /// Niceness: a thread of the usual one gets nine times as much of a processor, and one of these seven times as much as what nobody waits
    /// for.
    /// </summary>
    private const int Niceness = 10,
        LeastNiceness = 19;

    private readonly int _niceness;

    [ThreadStatic]
    private static bool t_isOurs;

    private readonly BlockingCollection<Task> _waiting = [];
    private readonly CancellationTokenSource _ending = new();

    /// <summary>For what somebody waits for.</summary>
    public YieldingThreads()
        : this(Environment.ProcessorCount, Niceness, "diagnosis") { }

    private YieldingThreads(int count, int niceness, string name)
    {
        (MaximumConcurrencyLevel, _niceness) = (count, niceness);
        for (var i = 0; i < count; i++)
        {
            new Thread(Work) { IsBackground = true, Name = name }.Start();
        }
    }

    /// <summary>One thread behind everything else, for what nobody waits for.</summary>
    public static YieldingThreads BehindAll() => new(1, LeastNiceness, "catching up");

    public override int MaximumConcurrencyLevel { get; }

    /// <summary>Does the work on one of the threads.</summary>
    public Task<T> RunAsync<T>(Func<T> work, CancellationToken cancellation) =>
        Task.Factory.StartNew(work, cancellation, TaskCreationOptions.None, this);

    /// <summary>
    /// Nothing more is begun. What is under way may still hand out its parts: whoever waits for them does them itself, and nothing fails because
    /// the service ends.
    /// </summary>
    public void Dispose() => _ending.Cancel();

    protected override IEnumerable<Task> GetScheduledTasks() => [.. _waiting];

    protected override void QueueTask(Task task) => _waiting.Add(task);

    protected override bool TryExecuteTaskInline(Task task, bool taskWasPreviouslyQueued) => t_isOurs && TryExecuteTask(task);

    private void Work()
    {
        t_isOurs = true;
        Yield();
        try
        {
            foreach (var task in _waiting.GetConsumingEnumerable(_ending.Token))
            {
                TryExecuteTask(task);
            }
        }
        catch (OperationCanceledException)
        {
            // The service ends.
        }
    }

    /// <summary>Of this thread alone: the runtime's own priorities have no effect on Linux.</summary>
    private void Yield()
    {
        if (OperatingSystem.IsLinux())
        {
            // Where it is not allowed the threads are as others.
            _ = SetPriority(0, 0, _niceness);
        }
        else
        {
            Thread.CurrentThread.Priority = ThreadPriority.BelowNormal;
        }
    }

    /// <summary>Which 0, who 0: the calling thread (setpriority(2)).</summary>
    [DllImport("libc", EntryPoint = "setpriority")]
    private static extern int SetPriority(int which, int who, int nice);
}
