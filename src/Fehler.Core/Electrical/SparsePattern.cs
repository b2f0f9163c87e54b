using System.Collections.Concurrent;
using System.Numerics;

namespace Fehler.Core.Electrical;

/// <summary>
/// The symbolic half of a sparse LU factorisation: elimination order by minimum degree and the fill-in that it
/// causes. A starter is nearly a tree, so almost nothing fills in and a numeric factorisation costs a few
/// microseconds; the pattern is found once for a circuit and used for every state and nearly every fault.
/// </summary>
/// <remarks>Minimum degree ordering: Tinney and Walker, "Direct solutions of sparse network equations by
/// optimally ordered triangular factorization", Proc. IEEE 55 (1967).</remarks>
internal sealed class SparsePattern
{
    private readonly int[] _position;
    private readonly int[][] _neighbours;
    private readonly Dictionary<long, int> _slots = [];
    private readonly ConcurrentBag<SparseLu<Complex>> _idle = [];

    /// <param name="size">Number of unknown nodes.</param>
    /// <param name="links">Pairs of nodes that any branch may ever join.</param>
    public SparsePattern(int size, IEnumerable<(int A, int B)> links)
    {
        Size = size;
        _position = new int[size];
        Order = new int[size];
        _neighbours = new int[size][];
        var adjacent = Enumerable.Range(0, size).Select(_ => new HashSet<int>()).ToArray();
        foreach (var (a, b) in links)
        {
            if (a != b && a >= 0 && b >= 0)
            {
                adjacent[a].Add(b);
                adjacent[b].Add(a);
            }
        }

        Eliminate(adjacent);
        for (var k = 0; k < size; k++)
        {
            for (var n = 0; n < _neighbours[k].Length; n++)
            {
                _slots[Key(k, _neighbours[k][n])] = OffDiagonals++;
            }
        }

        Targets = new int[size][];
        for (var k = 0; k < size; k++)
        {
            Targets[k] = UpdateTargets(_neighbours[k]);
        }
    }

    public int Size { get; }

    /// <summary>A cleared AC matrix of this pattern; give it back with <see cref="Return"/>.</summary>
    public SparseLu<Complex> Rent()
    {
        if (!_idle.TryTake(out var lu))
        {
            return new SparseLu<Complex>(this);
        }

        lu.Clear();
        return lu;
    }

    public void Return(SparseLu<Complex> lu) => _idle.Add(lu);

    /// <summary>Pairs (upper and lower) that are stored off the diagonal.</summary>
    public int OffDiagonals { get; }

    /// <summary>Node eliminated at each step.</summary>
    public int[] Order { get; }

    /// <summary>Steps of the nodes that step k is still joined to when it is eliminated; first slot in <see cref="FirstSlot"/>.</summary>
    public int[] Neighbours(int k) => _neighbours[k];

    /// <summary>Where the update of each neighbour pair (row-major) lands; diagonal targets are -1.</summary>
    public int[][] Targets { get; }

    public int Position(int node) => _position[node];

    /// <summary>Slot of the pair of steps; the lower step is the row of U and the column of L.</summary>
    public int Slot(int stepA, int stepB) => _slots[stepA < stepB ? Key(stepA, stepB) : Key(stepB, stepA)];

    public bool Joins(int nodeA, int nodeB)
    {
        if (nodeA < 0 || nodeB < 0)
        {
            return true;
        }

        var (a, b) = (_position[nodeA], _position[nodeB]);
        return a == b || _slots.ContainsKey(a < b ? Key(a, b) : Key(b, a));
    }

    /// <summary>Where a branch between two nodes is stored; -1 is earth.</summary>
    public BranchPlace Place(int nodeA, int nodeB)
    {
        var a = nodeA < 0 ? -1 : _position[nodeA];
        var b = nodeB < 0 ? -1 : _position[nodeB];
        return a == b ? new BranchPlace(-1, -1, -1) : new BranchPlace(a, b, a < 0 || b < 0 ? -1 : Slot(a, b));
    }

    public int FirstSlot(int k) => _neighbours[k].Length == 0 ? 0 : _slots[Key(k, _neighbours[k][0])];

    private static long Key(int low, int high) => ((long)low << 32) | (uint)high;

    private void Eliminate(HashSet<int>[] adjacent)
    {
        var left = new HashSet<int>(Enumerable.Range(0, Size));
        var nodeNeighbours = new int[Size][];
        for (var k = 0; k < Size; k++)
        {
            var node = left.MinBy(n => (adjacent[n].Count, n));
            left.Remove(node);
            Order[k] = node;
            _position[node] = k;
            nodeNeighbours[k] = [.. adjacent[node]];
            foreach (var a in adjacent[node])
            {
                adjacent[a].Remove(node);
                adjacent[a].UnionWith(adjacent[node]);
                adjacent[a].Remove(a);
            }
        }

        for (var k = 0; k < Size; k++)
        {
            _neighbours[k] = [.. nodeNeighbours[k].Select(n => _position[n]).Order()];
        }
    }

    private int[] UpdateTargets(int[] neighbours)
    {
        var targets = new int[neighbours.Length * neighbours.Length];
        for (var i = 0; i < neighbours.Length; i++)
        {
            for (var j = 0; j < neighbours.Length; j++)
            {
                targets[i * neighbours.Length + j] = i == j ? -1 : Slot(neighbours[i], neighbours[j]);
            }
        }

        return targets;
    }
}

/// <summary>Steps and slot of a two-terminal branch in the factorisation; -1 where there is none.</summary>
internal readonly record struct BranchPlace(int StepA, int StepB, int Slot);
