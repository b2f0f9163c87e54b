using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>
/// A solved circuit as the windings of one device see it: their voltages and the impedance behind them. A rotor that looks
/// for its speed changes nothing but its windings, so every speed it tries is a small linear system instead of a new
/// solution of the whole circuit.
/// </summary>
/// <remarks>
/// Low-rank update, Sherman, Morrison and Woodbury: with Y' = Y + B D Bᵀ the winding voltages are v' = (I + Z D)⁻¹ v, where
/// Z = Bᵀ Y⁻¹ B is found once with one solution a winding.
/// </remarks>
internal sealed class WindingEquivalent
{
    private readonly Complex[] _volts;
    private readonly Complex[] _behind;
    private readonly Captured _before;

    public WindingEquivalent(Solution solution, int device)
    {
        var network = solution.Network;
        _before = Capture(network.Circuit.Devices[device], solution.State.Devices[device]);
        var nodes = _before.Windings.Select(w => (From: network.InnerNode(device, w.From), To: network.InnerNode(device, w.To))).ToArray();
        var n = nodes.Length;
        _volts = [.. nodes.Select(w => solution.NodeVolts(w.From) - solution.NodeVolts(w.To))];
        _behind = new Complex[n * n];
        var responseTo = network.Responses(solution.State);
        for (var j = 0; j < n; j++)
        {
            var response = responseTo(nodes[j].From, nodes[j].To);
            for (var i = 0; i < n; i++)
            {
                _behind[i * n + j] = At(response, nodes[i].From) - At(response, nodes[i].To);
            }
        }
    }

    /// <summary>Voltages over the windings with the device in another state.</summary>
    public WindingVolts Volts(Device device, DeviceState state)
    {
        var after = Capture(device, state);
        var (n, row) = (_volts.Length, _volts.Length + 1);
        Span<Complex> system = stackalloc Complex[n * row];
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                for (var k = 0; k < n; k++)
                {
                    system[i * row + j] += _behind[i * n + k] * (after.Admittance[k * n + j] - _before.Admittance[k * n + j]);
                }

                system[i * row + j] += i == j ? 1 : 0;
            }

            system[i * row + n] = _volts[i];
        }

        return new WindingVolts(_before.Windings, Solve(system, n));
    }

    private static Complex At(Complex[] volts, int node) => node < 0 ? Complex.Zero : volts[node];

    /// <summary>Gauss with partial pivoting; three unknowns.</summary>
    /// <param name="m">By rows, the right-hand side last in each.</param>
    /// <param name="n">Unknowns.</param>
    private static Complex[] Solve(Span<Complex> m, int n)
    {
        var row = n + 1;
        for (var k = 0; k < n; k++)
        {
            var pivot = k;
            for (var i = k + 1; i < n; i++)
            {
                pivot = m[i * row + k].Magnitude > m[pivot * row + k].Magnitude ? i : pivot;
            }

            for (var j = 0; j <= n && pivot != k; j++)
            {
                (m[k * row + j], m[pivot * row + j]) = (m[pivot * row + j], m[k * row + j]);
            }

            for (var i = 0; i < n; i++)
            {
                var factor = m[i * row + k] / m[k * row + k];
                for (var j = k; j <= n && i != k; j++)
                {
                    m[i * row + j] -= factor * m[k * row + j];
                }
            }
        }

        var solved = new Complex[n];
        for (var i = 0; i < n; i++)
        {
            solved[i] = m[i * row + n] / m[i * row + i];
        }

        return solved;
    }

    private static Captured Capture(Device device, DeviceState state)
    {
        var captured = new Captured();
        device.Kind.Stamp(device, state, Domain.Ac, captured);
        return captured;
    }

    private sealed class Captured : ICoupledStamp
    {
        public (string From, string To)[] Windings { get; private set; } = [];

        public Complex[] Admittance { get; private set; } = [];

        void ICoupledStamp.Windings((string From, string To)[] windings, Complex[] admittance) =>
            (Windings, Admittance) = (windings, admittance);

        public void Source(int element, Complex volts, Complex ohms) { }
    }
}

/// <summary>Voltages over the windings of one device, by their ends.</summary>
internal readonly record struct WindingVolts((string From, string To)[] Windings, Complex[] Volts)
{
    public Complex? Of(string from, string to)
    {
        for (var i = 0; i < Windings.Length; i++)
        {
            if (Windings[i] == (from, to))
            {
                return Volts[i];
            }
        }

        return null;
    }
}
