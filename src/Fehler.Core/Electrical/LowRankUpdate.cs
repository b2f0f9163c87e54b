using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>A branch whose admittance is another one than in the matrix that was factored, siemens more; nodes of -1 are earth.</summary>
internal readonly record struct BranchChange<T>(int A, int B, T Siemens)
    where T : unmanaged, INumberBase<T>
{
    /// <summary>Voltage over the branch.</summary>
    public T Drop(T[] volts) => Volts(volts, A) - Volts(volts, B);

    private static T Volts(T[] volts, int node) => node < 0 ? T.Zero : volts[node];
}

/// <summary>
/// What a few changed branches do to a solution: a fault opens, closes or loosens one to three branches, so the matrix of the
/// healthy circuit need not be factored again.
/// </summary>
/// <remarks>
/// Sherman, Morrison and Woodbury: with Y' = Y + B D Bᵀ, v' = v - Y⁻¹ B (D⁻¹ + Bᵀ Y⁻¹ B)⁻¹ Bᵀ v. One solution a changed branch.
/// </remarks>
internal sealed class LowRankUpdate<T>
    where T : unmanaged, INumberBase<T>
{
    /// <summary>Changed branches whose small matrix lies on the stack.</summary>
    private const int Few = 8;

    private readonly IReadOnlyList<BranchChange<T>> _changes;
    private readonly T[][] _responses;

    /// <summary>By rows.</summary>
    private readonly T[] _inverse;

    public LowRankUpdate(SparseLu<T> lu, IReadOnlyList<BranchChange<T>> changes)
    {
        _changes = changes;
        _responses = [.. changes.Select(c => lu.Response(c.A, c.B))];
        _inverse = Invert();
    }

    /// <summary>
    /// Share of the digits that the subtraction of nearly equal numbers leaves: 1 is all of them. Taking away the only conductor
    /// to a point that nothing else holds leaves next to none.
    /// </summary>
    public double Soundness { get; private set; } = 1;

    /// <summary>Turns the node voltages of the factored matrix into those with the changes.</summary>
    public void Apply(T[] volts)
    {
        var drops = _changes.Count <= Few ? stackalloc T[_changes.Count] : new T[_changes.Count];
        for (var i = 0; i < drops.Length; i++)
        {
            drops[i] = _changes[i].Drop(volts);
        }

        for (var i = 0; i < drops.Length; i++)
        {
            var current = T.Zero;
            for (var j = 0; j < drops.Length; j++)
            {
                current += _inverse[i * drops.Length + j] * drops[j];
            }

            var response = _responses[i];
            for (var n = 0; n < volts.Length; n++)
            {
                volts[n] -= response[n] * current;
            }
        }
    }

    /// <summary>By how much the changes lessen the impedance between two points; ohm.</summary>
    /// <param name="drops">Voltage over each changed branch when one ampere flows in at the first point and out at the second.</param>
    public T Lessening(ReadOnlySpan<T> drops)
    {
        var n = drops.Length;
        var less = T.Zero;
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                less += drops[i] * _inverse[i * n + j] * drops[j];
            }
        }

        return less;
    }

    /// <summary>
    /// Gauss and Jordan on D⁻¹ + Bᵀ Y⁻¹ B, largest pivot first: a wire that is taken off here and landed there leaves a point with
    /// nothing in between, and what is landed has to be reckoned before what is taken off. A fault changes some few branches.
    /// </summary>
    private T[] Invert()
    {
        var n = _changes.Count;
        var m = n <= Few ? stackalloc T[n * n] : new T[n * n];
        var inverse = new T[n * n];
        var scale = n <= Few ? stackalloc double[n] : new double[n];
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                m[i * n + j] = _changes[i].Drop(_responses[j]);
            }

            var own = T.One / _changes[i].Siemens;
            scale[i] = Magnitude(own) + Magnitude(m[i * n + i]);
            m[i * n + i] += own;
            inverse[i * n + i] = T.One;
        }

        var isDone = n <= Few ? stackalloc bool[n] : new bool[n];
        isDone.Clear();
        for (var step = 0; step < n; step++)
        {
            var k = -1;
            for (var i = 0; i < n; i++)
            {
                if (!isDone[i] && (k < 0 || Magnitude(m[i * n + i]) / scale[i] > Magnitude(m[k * n + k]) / scale[k]))
                {
                    k = i;
                }
            }

            isDone[k] = true;
            Soundness = Math.Min(Soundness, Magnitude(m[k * n + k]) / scale[k]);
            var pivot = T.One / m[k * n + k];
            for (var j = 0; j < n; j++)
            {
                m[k * n + j] *= pivot;
                inverse[k * n + j] *= pivot;
            }

            for (var i = 0; i < n; i++)
            {
                var factor = m[i * n + k];
                for (var j = 0; j < n && i != k; j++)
                {
                    m[i * n + j] -= factor * m[k * n + j];
                    inverse[i * n + j] -= factor * inverse[k * n + j];
                }
            }
        }

        return inverse;
    }

    private static double Magnitude(T value) => double.CreateChecked(T.Abs(value));
}
