using System.Collections.Concurrent;
using Fehler.Web.Diagnosis;

namespace Fehler.Web.Tests;

/// <summary>Where diagnoses are worked out: beside the requests, and behind them.</summary>
public sealed class YieldingThreadsTests : IDisposable
{
    private readonly YieldingThreads _threads = new();

    public void Dispose() => _threads.Dispose();

    /// <summary>Field 19 of a thread's stat is its niceness (proc(5)); requests run at 0.</summary>
    [Fact]
    public async Task They_let_everything_else_go_before_them()
    {
        static int Niceness() => int.Parse(File.ReadAllText("/proc/thread-self/stat").Split(") ")[1].Split(' ')[16], null);
        (await _threads.RunAsync(Niceness, Host.Cancellation)).ShouldBe(10);
        (await Task.Run(Niceness, Host.Cancellation)).ShouldBe(0);
        using var behindAll = YieldingThreads.BehindAll();
        (await behindAll.RunAsync(Niceness, Host.Cancellation)).ShouldBe(19, "what nobody waits for comes last");
    }

    [Fact]
    public async Task What_is_done_in_parts_has_its_parts_there_and_ends_though_all_are_busy()
    {
        var where = new ConcurrentDictionary<string, bool>();
        int Parts() =>
            Enumerable
                .Range(0, 4)
                .Sum(_ =>
                {
                    Parallel.For(
                        0,
                        200,
                        new ParallelOptions { TaskScheduler = null },
                        _ =>
                        {
                            where[Thread.CurrentThread.Name ?? ""] = true;
                            Thread.SpinWait(1000);
                        }
                    );
                    return 1;
                });
        var many = Enumerable.Range(0, 4 * Environment.ProcessorCount).Select(_ => _threads.RunAsync(Parts, Host.Cancellation));
        (await Task.WhenAll(many)).ShouldAllBe(done => done == 4);
        where.Keys.ShouldBe(["diagnosis"]);
    }

    [Fact]
    public async Task What_is_under_way_when_the_service_ends_is_done()
    {
        using var begun = new SemaphoreSlim(0);
        using var ended = new ManualResetEventSlim();
        var parts = 0;
        var work = _threads.RunAsync(
            () =>
            {
                begun.Release();
                ended.Wait(Host.Cancellation);
                Parallel.For(0, 100, new ParallelOptions { TaskScheduler = null }, _ => Interlocked.Increment(ref parts));
                return parts;
            },
            Host.Cancellation
        );
        await begun.WaitAsync(Host.Cancellation);
        _threads.Dispose();
        ended.Set();
        (await work).ShouldBe(100);
    }

    [Fact]
    public async Task What_fails_there_fails_for_whoever_asked_and_what_nobody_waits_for_is_not_begun()
    {
        await Should.ThrowAsync<InvalidOperationException>(() =>
            _threads.RunAsync<int>(() => throw new InvalidOperationException("as meant"), Host.Cancellation)
        );
        using var stopped = new CancellationTokenSource();
        await stopped.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => _threads.RunAsync(() => 1, stopped.Token));
        (await _threads.RunAsync(() => 2, Host.Cancellation)).ShouldBe(2);
    }
}
