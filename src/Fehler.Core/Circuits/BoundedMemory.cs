using System.Collections.Concurrent;

namespace Fehler.Core.Circuits;

/// <summary>
/// What was worked out before, by what it was asked for, within a bound in bytes. When that is reached everything is forgotten and begun
/// anew: all of it can be worked out again.
/// </summary>
/// <param name="most">Bytes it may hold.</param>
/// <param name="bytes">About how many an entry takes; asked once, when it is added.</param>
/// <remarks>Safe for use by several threads at once. Two may work out the same at the same time; both get the one that is kept.</remarks>
internal sealed class BoundedMemory<TKey, TValue>(long most, Func<TValue, long> bytes)
    where TKey : notnull
{
    /// <summary>What the dictionary itself takes for an entry.</summary>
    private const long EntryBytes = 96;

    private readonly ConcurrentDictionary<TKey, TValue> _known = new();
    private long _bytes;

    public long Bytes => Interlocked.Read(ref _bytes);

    public bool TryGet(TKey key, [System.Diagnostics.CodeAnalysis.MaybeNullWhen(false)] out TValue value) =>
        _known.TryGetValue(key, out value);

    public TValue GetOrAdd(TKey key, Func<TKey, TValue> workOut) => _known.TryGetValue(key, out var known) ? known : Add(key, workOut(key));

    /// <summary>Keeps a value; the one that is there already, if another thread was first.</summary>
    public TValue Add(TKey key, TValue value)
    {
        if (_known.TryGetValue(key, out var kept))
        {
            return kept;
        }

        var size = bytes(value) + EntryBytes;
        if (Bytes + size > most)
        {
            _known.Clear();
            Interlocked.Exchange(ref _bytes, 0);
        }

        if (_known.TryAdd(key, value))
        {
            Interlocked.Add(ref _bytes, size);
            return value;
        }

        return _known.TryGetValue(key, out var first) ? first : value;
    }
}
