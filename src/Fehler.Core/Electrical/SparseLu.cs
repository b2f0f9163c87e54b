using System.Numerics;

namespace Fehler.Core.Electrical;

/// <summary>
/// The numeric half: a nodal admittance matrix with symmetric pattern (its values need not be symmetric: a rotating
/// machine's are not), factored as LU without pivoting. Every node leaks to earth, so no pivot is zero.
/// </summary>
/// <typeparam name="T"><see cref="Complex"/> for AC, <see cref="double"/> for the ohmmeter.</typeparam>
internal sealed class SparseLu<T>(SparsePattern pattern)
    where T : struct, INumberBase<T>
{
    private readonly T[] _diagonal = new T[pattern.Size];
    private readonly T[] _upper = new T[pattern.OffDiagonals];
    private readonly T[] _lower = new T[pattern.OffDiagonals];
    private readonly T[] _work = new T[pattern.Size];

    public void Clear()
    {
        Array.Clear(_diagonal);
        Array.Clear(_upper);
        Array.Clear(_lower);
    }

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
            if (neighbours.Length == 0)
            {
                continue;
            }

            var first = pattern.FirstSlot(k);
            var targets = pattern.Targets[k];
            var inverse = T.One / _diagonal[k];
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

    /// <summary>Solves in place: node currents in, node voltages out.</summary>
    public void Solve(T[] nodes)
    {
        for (var k = 0; k < pattern.Size; k++)
        {
            _work[k] = nodes[pattern.Order[k]];
        }

        for (var k = 0; k < pattern.Size; k++)
        {
            var neighbours = pattern.Neighbours(k);
            var first = pattern.FirstSlot(k);
            for (var i = 0; i < neighbours.Length; i++)
            {
                _work[neighbours[i]] -= _lower[first + i] * _work[k];
            }
        }

        for (var k = pattern.Size - 1; k >= 0; k--)
        {
            var neighbours = pattern.Neighbours(k);
            var first = pattern.FirstSlot(k);
            var value = _work[k];
            for (var j = 0; j < neighbours.Length; j++)
            {
                value -= _upper[first + j] * _work[neighbours[j]];
            }

            _work[k] = value / _diagonal[k];
            nodes[pattern.Order[k]] = _work[k];
        }
    }
}
