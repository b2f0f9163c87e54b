using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>
/// Tells screens that look at a job how many entries its journal has, as soon as one is on disk. Only the newest number counts: a slow screen
/// misses none that matters.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
public sealed class JobNews
{
    /// <summary>More screens than a plant has people; beyond it a screen asks again later.</summary>
    private const int MostListeners = 500;

    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, List<Channel<int>>> _listeners = [];
    private int _count;

    /// <summary>The number of entries each time that it has grown, until it is cancelled.</summary>
    /// <exception cref="RefusedException">Too many listen already.</exception>
    public async IAsyncEnumerable<int> Of(Guid job, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        Join(job, channel);
        try
        {
            await foreach (var entries in channel.Reader.ReadAllAsync(cancellation))
            {
                yield return entries;
            }
        }
        finally
        {
            Leave(job, channel);
        }
    }

    internal void Tell(Guid job, int entries)
    {
        lock (_lock)
        {
            foreach (var channel in _listeners.GetValueOrDefault(job) ?? [])
            {
                channel.Writer.TryWrite(entries);
            }
        }
    }

    private void Join(Guid job, Channel<int> channel)
    {
        lock (_lock)
        {
            if (_count >= MostListeners)
            {
                throw new RefusedException($"{MostListeners} screens are listening already; ask for the number of entries instead.");
            }

            _count++;
            if (!_listeners.TryGetValue(job, out var own))
            {
                _listeners[job] = own = [];
            }

            own.Add(channel);
        }
    }

    private void Leave(Guid job, Channel<int> channel)
    {
        lock (_lock)
        {
            _count--;
            if (_listeners.TryGetValue(job, out var own) && own.Remove(channel) && own.Count == 0)
            {
                _listeners.Remove(job);
            }
        }
    }
}
