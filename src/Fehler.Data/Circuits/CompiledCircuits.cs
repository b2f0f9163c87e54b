using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>
/// Every compiled circuit that is kept, by version: the one owner of what follows from circuits. Bounded in bytes; what was not used for
/// longest goes first and is compiled again when it is asked for.
/// </summary>
/// <param name="mostBytes">Memory that they may take together; the one that is asked for last is always kept.</param>
/// <remarks>Safe for use by several threads at once.</remarks>
public sealed class CompiledCircuits(long mostBytes)
{
    private readonly Lock _lock = new();
    private readonly Dictionary<Guid, LinkedListNode<(Guid Version, CompiledCircuit Compiled)>> _byVersion = [];
    private readonly LinkedList<(Guid Version, CompiledCircuit Compiled)> _byUse = new();

    /// <summary>About how much memory they take now.</summary>
    public long Bytes
    {
        get
        {
            lock (_lock)
            {
                return _byUse.Sum(c => c.Compiled.Bytes);
            }
        }
    }

    public int Count
    {
        get
        {
            lock (_lock)
            {
                return _byUse.Count;
            }
        }
    }

    /// <summary>The circuit of a version if it is kept.</summary>
    public CompiledCircuit? Find(Guid version)
    {
        lock (_lock)
        {
            if (!_byVersion.TryGetValue(version, out var node))
            {
                return null;
            }

            _byUse.Remove(node);
            _byUse.AddFirst(node);
            return node.Value.Compiled;
        }
    }

    /// <summary>Whether this very one is kept; does not count as a use of it.</summary>
    public bool Holds(CompiledCircuit compiled)
    {
        lock (_lock)
        {
            return _byUse.Any(c => ReferenceEquals(c.Compiled, compiled));
        }
    }

    /// <summary>Keeps a circuit; returns the one that is there already if another thread was first.</summary>
    public CompiledCircuit Keep(Guid version, CompiledCircuit compiled)
    {
        if (Find(version) is { } known)
        {
            return known;
        }

        lock (_lock)
        {
            if (_byVersion.TryGetValue(version, out var first))
            {
                return first.Value.Compiled;
            }

            _byVersion[version] = _byUse.AddFirst((version, compiled));
        }

        Trim();
        return compiled;
    }

    /// <summary>
    /// Forgets what was not used for longest until the rest fits. Circuits grow while they are diagnosed, so this is asked for after that
    /// too.
    /// </summary>
    public void Trim()
    {
        lock (_lock)
        {
            var left = mostBytes;
            for (var node = _byUse.First; node is not null; )
            {
                var next = node.Next;
                left -= node.Value.Compiled.Bytes;
                if (left < 0 && node != _byUse.First)
                {
                    _byUse.Remove(node);
                    _byVersion.Remove(node.Value.Version);
                }

                node = next;
            }
        }
    }

    /// <summary>Forgets all of them.</summary>
    public void Clear()
    {
        lock (_lock)
        {
            _byUse.Clear();
            _byVersion.Clear();
        }
    }
}
