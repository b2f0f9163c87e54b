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
    private readonly int[] _first;
    private readonly int[] _columns;
    private readonly int[] _firstTarget;
    private readonly int[] _targets;
    private readonly Dictionary<long, int> _slots = [];

    /// <param name="size">Number of unknown nodes.</param>
    /// <param name="links">Pairs of nodes that any branch may ever join.</param>
    public SparsePattern(int size, IEnumerable<(int A, int B)> links)
    {
        Size = size;
        _position = new int[size];
        Order = new int[size];
        var adjacent = Enumerable.Range(0, size).Select(_ => new HashSet<int>()).ToArray();
        foreach (var (a, b) in links)
        {
            if (a != b && a >= 0 && b >= 0)
            {
                adjacent[a].Add(b);
                adjacent[b].Add(a);
            }
        }

        var neighbours = Eliminate(adjacent);
        (_columns, _first) = Packed(neighbours);
        for (var k = 0; k < size; k++)
        {
            foreach (var neighbour in neighbours[k])
            {
                _slots[Key(k, neighbour)] = _slots.Count;
            }
        }

        (_targets, _firstTarget) = Packed([.. neighbours.Select(UpdateTargets)]);
    }

    public int Size { get; }

    /// <summary>Pairs (upper and lower) that are stored off the diagonal.</summary>
    public int OffDiagonals => _columns.Length;

    /// <summary>Node eliminated at each step.</summary>
    public int[] Order { get; }

    /// <summary>Steps of the nodes that step k is still joined to when it is eliminated; first slot in <see cref="FirstSlot"/>.</summary>
    public ReadOnlySpan<int> Neighbours(int k) => _columns.AsSpan(_first[k], _first[k + 1] - _first[k]);

    /// <summary>Slot of the first neighbour of step k; the others follow.</summary>
    public int FirstSlot(int k) => _first[k];

    /// <summary>Where the update of each neighbour pair of step k (row-major) lands; diagonal targets are -1.</summary>
    public ReadOnlySpan<int> Targets(int k) => _targets.AsSpan(_firstTarget[k], _firstTarget[k + 1] - _firstTarget[k]);

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

    private static long Key(int low, int high) => ((long)low << 32) | (uint)high;

    private static (int[] Items, int[] First) Packed(int[][] rows)
    {
        var first = new int[rows.Length + 1];
        for (var k = 0; k < rows.Length; k++)
        {
            first[k + 1] = first[k] + rows[k].Length;
        }

        return ([.. rows.SelectMany(r => r)], first);
    }

    private int[][] Eliminate(HashSet<int>[] adjacent)
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

        return [.. nodeNeighbours.Select(nodes => nodes.Select(n => _position[n]).Order().ToArray())];
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
