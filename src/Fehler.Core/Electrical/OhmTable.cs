using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Electrical;

/// <summary>
/// Resistances between many pairs of points of an isolated circuit in one state, and the same with any fault in it. The
/// healthy matrix is factored once; a fault changes a branch or two and enters as a low-rank update, so a reading under
/// a fault costs a few multiplications.
/// </summary>
/// <remarks>
/// Sherman, Morrison and Woodbury: with Y' = Y + B D Bᵀ, R' = R - wᵀ (D⁻¹ + Bᵀ Y⁻¹ B)⁻¹ w, w = Bᵀ Y⁻¹ (a - b).
/// All right-hand sides are balanced (one ampere in at one point, out at the other), so the huge common mode of a floating
/// circuit never enters and opening the only conductor to a point comes out as OL rather than as rounding error.
/// </remarks>
internal sealed class OhmTable
{
    private const double OverRange = 40e6;

    private readonly Network _healthy;
    private readonly CircuitState _state;
    private readonly SparseLu<double> _lu;
    private readonly ImmutableArray<(TerminalId From, TerminalId To)> _pairs;
    private readonly double[][] _responses;
    private readonly double[] _healthyAdmittances;

    public OhmTable(Network healthy, CircuitState state, ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        _healthy = healthy;
        _state = state;
        _pairs = pairs;
        _lu = healthy.FactorOhms(state);
        _healthyAdmittances = [.. healthy.Branches.Select(b => healthy.Admittance(b, state, Domain.Ohms).Real)];
        _responses = [.. pairs.Select(p => Response(healthy.Node(p.From), healthy.Node(p.To)))];
    }

    /// <summary>Readings of all pairs, ohm, with the faulty network in the same state; infinite is OL.</summary>
    public double[] Read(Network faulty)
    {
        var changes = Changes(faulty);
        if (changes.Count == 0)
        {
            return [.. _pairs.Select((p, i) => Shown(Between(i, p)))];
        }

        var responses = changes.Select(c => Response(c.A, c.B)).ToArray();
        var inverse = Invert(changes, responses);
        var readings = new double[_pairs.Length];
        for (var p = 0; p < _pairs.Length; p++)
        {
            var ohms = Between(p, _pairs[p]);
            for (var i = 0; i < changes.Count; i++)
            {
                for (var j = 0; j < changes.Count; j++)
                {
                    ohms -= Drop(_responses[p], changes[i]) * inverse[i, j] * Drop(_responses[p], changes[j]);
                }
            }

            readings[p] = Shown(ohms);
        }

        return readings;
    }

    private static double Shown(double ohms) => ohms > OverRange || ohms < -1 ? double.PositiveInfinity : Math.Max(0, ohms);

    private double Between(int pair, (TerminalId From, TerminalId To) points) =>
        Volts(_responses[pair], _healthy.Node(points.From)) - Volts(_responses[pair], _healthy.Node(points.To));

    private static double Volts(double[] response, int node) => node < 0 ? 0 : response[node];

    private static double Drop(double[] response, Change change) => Volts(response, change.A) - Volts(response, change.B);

    /// <summary>Node voltages when one ampere flows in at one node and out at the other.</summary>
    private double[] Response(int into, int outOf)
    {
        var current = new double[_healthy.Size];
        if (into >= 0)
        {
            current[into] += 1;
        }

        if (outOf >= 0)
        {
            current[outOf] -= 1;
        }

        _lu.Solve(current);
        return current;
    }

    private List<Change> Changes(Network faulty)
    {
        var changes = new List<Change>();
        for (var i = 0; i < faulty.Branches.Count; i++)
        {
            var branch = faulty.Branches[i];
            var healthy = i < _healthyAdmittances.Length ? _healthyAdmittances[i] : 0;
            if (i < _healthyAdmittances.Length && ReferenceEquals(branch, _healthy.Branches[i]) && !faulty.HasAlteredDevice(branch.Device))
            {
                continue;
            }

            var change = faulty.Admittance(branch, _state, Domain.Ohms).Real - healthy;
            if (change != 0)
            {
                changes.Add(new Change(branch.A, branch.B, change));
            }
        }

        return changes;
    }

    private static double[,] Invert(List<Change> changes, double[][] responses)
    {
        var n = changes.Count;
        var m = new double[n, 2 * n];
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                m[i, j] = Drop(responses[j], changes[i]) + (i == j ? 1 / changes[i].Siemens : 0);
            }

            m[i, n + i] = 1;
        }

        // Gauss and Jordan; a fault changes three branches at most.
        for (var k = 0; k < n; k++)
        {
            var pivot = m[k, k];
            for (var j = 0; j < 2 * n; j++)
            {
                m[k, j] /= pivot;
            }

            for (var i = 0; i < n; i++)
            {
                var factor = m[i, k];
                for (var j = 0; j < 2 * n && i != k; j++)
                {
                    m[i, j] -= factor * m[k, j];
                }
            }
        }

        var inverse = new double[n, n];
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                inverse[i, j] = m[i, n + j];
            }
        }

        return inverse;
    }

    private readonly record struct Change(int A, int B, double Siemens);
}
