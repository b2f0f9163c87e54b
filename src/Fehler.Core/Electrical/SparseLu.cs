using System.Buffers;
using System.Numerics;
using System.Runtime.CompilerServices;

namespace Fehler.Core.Electrical;

/// <summary>
/// The numeric half: a nodal admittance matrix with symmetric pattern (its values need not be symmetric: a rotating
/// machine's are not), factored as LU without pivoting. Everything leaks or is tied to earth, so no pivot is zero.
/// </summary>
/// <typeparam name="T"><see cref="Complex"/> for AC, <see cref="double"/> for the ohmmeter.</typeparam>
internal sealed class SparseLu<T>(SparsePattern pattern)
    where T : unmanaged, INumberBase<T>
{
    private readonly T[] _diagonal = new T[pattern.Size];
    private readonly T[] _upper = new T[pattern.OffDiagonals];
    private readonly T[] _lower = new T[pattern.OffDiagonals];
    private readonly T[] _inverse = new T[pattern.Size];

    /// <summary>About how much memory it holds; the pattern is shared.</summary>
    public long Bytes => (2L * _diagonal.Length + 2L * _upper.Length) * Unsafe.SizeOf<T>();

    /// <summary>Adds to entry (row, column); -1 stands for the earth node and is not stored.</summary>
    public void Add(int row, int column, T value)
    {
        if (row < 0 || column < 0)
        {
            return;
        }

        if (row == column)
        {
            _diagonal[pattern.Position(row)] += value;
            return;
        }

        var (r, c) = (pattern.Position(row), pattern.Position(column));
        var slot = pattern.Slot(r, c);
        if (r < c)
        {
            _upper[slot] += value;
        }
        else
        {
            _lower[slot] += value;
        }
    }

    /// <summary>Adds a two-terminal admittance, siemens.</summary>
    public void AddBranch(in BranchPlace place, T admittance)
    {
        if (place.StepA >= 0)
        {
            _diagonal[place.StepA] += admittance;
        }

        if (place.StepB >= 0)
        {
            _diagonal[place.StepB] += admittance;
        }

        if (place.Slot >= 0)
        {
            _upper[place.Slot] -= admittance;
            _lower[place.Slot] -= admittance;
        }
    }

    public void Factor()
    {
        for (var k = 0; k < pattern.Size; k++)
        {
            var neighbours = pattern.Neighbours(k);
            var first = pattern.FirstSlot(k);
            var targets = pattern.Targets(k);
            var inverse = _inverse[k] = T.One / _diagonal[k];
            for (var i = 0; i < neighbours.Length; i++)
            {
                var factor = _lower[first + i] * inverse;
                _lower[first + i] = factor;
                for (var j = 0; j < neighbours.Length; j++)
                {
                    var update = factor * _upper[first + j];
                    var target = targets[i * neighbours.Length + j];
                    if (target < 0)
                    {
                        _diagonal[neighbours[i]] -= update;
                    }
                    else if (neighbours[i] < neighbours[j])
                    {
                        _upper[target] -= update;
                    }
                    else
                    {
                        _lower[target] -= update;
                    }
                }
            }
        }
    }

    /// <summary>Node voltages when one ampere flows in at one node and out at the other; -1 is earth.</summary>
    public T[] Response(int into, int outOf)
    {
        var current = new T[pattern.Size];
        if (into >= 0)
        {
            current[into] += T.One;
        }

        if (outOf >= 0)
        {
            current[outOf] -= T.One;
        }

        Solve(current);
        return current;
    }

    /// <summary>Solves in place: node currents in, node voltages out. Several threads may do so at once.</summary>
    public void Solve(T[] nodes)
    {
        var work = ArrayPool<T>.Shared.Rent(pattern.Size);
        for (var k = 0; k < pattern.Size; k++)
        {
            work[k] = nodes[pattern.Order[k]];
        }

        for (var k = 0; k < pattern.Size; k++)
        {
            var value = work[k];
            if (value == T.Zero)
            {
                // A response starts from two nodes: most of the way down there is nothing to pass on.
                continue;
            }

            var neighbours = pattern.Neighbours(k);
            var lower = _lower.AsSpan(pattern.FirstSlot(k), neighbours.Length);
            for (var i = 0; i < neighbours.Length; i++)
            {
                work[neighbours[i]] -= lower[i] * value;
            }
        }

        for (var k = pattern.Size - 1; k >= 0; k--)
        {
            var neighbours = pattern.Neighbours(k);
            var upper = _upper.AsSpan(pattern.FirstSlot(k), neighbours.Length);
            var value = work[k];
            for (var j = 0; j < neighbours.Length; j++)
            {
                value -= upper[j] * work[neighbours[j]];
            }

            nodes[pattern.Order[k]] = work[k] = value * _inverse[k];
        }

        ArrayPool<T>.Shared.Return(work);
    }
}
