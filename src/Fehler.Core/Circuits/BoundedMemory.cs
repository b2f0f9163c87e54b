using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;

namespace Fehler.Core.Circuits;

/// <summary>
/// What was worked out before, by what it was asked for, within a bound in bytes. When half of that is reached, what was not asked for since
/// the last time is forgotten: all of it can be worked out again.
/// </summary>
/// <param name="most">Bytes it may hold.</param>
/// <param name="bytes">About how many a value takes; asked when it is kept.</param>
/// <remarks>Safe for use by several threads at once. Two may work out the same at the same time; both get the one that is kept.</remarks>
internal sealed class BoundedMemory<TKey, TValue>(long most, Func<TValue, long> bytes)
    where TKey : notnull
{
    /// <summary>What the dictionary itself takes for an entry.</summary>
    private const long EntryBytes = 80;

    private readonly Lock _turning = new();
    private volatile ConcurrentDictionary<TKey, TValue> _recent = Empty();
    private volatile ConcurrentDictionary<TKey, TValue>? _before;
    private long _recentBytes,
        _beforeBytes;

    public long Bytes => Interlocked.Read(ref _recentBytes) + Interlocked.Read(ref _beforeBytes);

    public bool TryGet(TKey key, [MaybeNullWhen(false)] out TValue value)
    {
        if (_recent.TryGetValue(key, out value))
        {
            return true;
        }

        if (_before is not { } before || !before.TryGetValue(key, out value))
        {
            return false;
        }

        value = Keep(key, value);
        return true;
    }

    public TValue GetOrAdd(TKey key, Func<TKey, TValue> workOut) => TryGet(key, out var known) ? known : Add(key, workOut(key));

    /// <summary>Keeps a value; the one that is there already, if another thread was first.</summary>
    public TValue Add(TKey key, TValue value) => TryGet(key, out var kept) ? kept : Keep(key, value);

    private TValue Keep(TKey key, TValue value)
    {
        var size = bytes(value) + EntryBytes;
        lock (_turning)
        {
            if (_recentBytes + size > most / 2)
            {
                _before = _recent;
                _recent = Empty();
                Interlocked.Exchange(ref _beforeBytes, _recentBytes);
                Interlocked.Exchange(ref _recentBytes, 0);
            }

            if (_recent.TryAdd(key, value))
            {
                Interlocked.Add(ref _recentBytes, size);
                return value;
            }

            return _recent.TryGetValue(key, out var first) ? first : value;
        }
    }

    /// <summary>A thousand hypotheses have one each: as small as it can begin.</summary>
    private static ConcurrentDictionary<TKey, TValue> Empty() => new(1, 5);
}
