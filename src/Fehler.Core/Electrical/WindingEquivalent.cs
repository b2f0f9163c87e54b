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
    private readonly Complex[,] _behind;
    private readonly Captured _before;

    public WindingEquivalent(Solution solution, int device)
    {
        var network = solution.Network;
        _before = Capture(network.Circuit.Devices[device], solution.State.Devices[device]);
        var nodes = _before.Windings.Select(w => (From: network.InnerNode(device, w.From), To: network.InnerNode(device, w.To))).ToArray();
        var n = nodes.Length;
        _volts = [.. nodes.Select(w => solution.NodeVolts(w.From) - solution.NodeVolts(w.To))];
        _behind = new Complex[n, n];
        var factored = network.Factored(solution.State);
        for (var j = 0; j < n; j++)
        {
            var response = factored.Response(nodes[j].From, nodes[j].To);
            for (var i = 0; i < n; i++)
            {
                _behind[i, j] = At(response, nodes[i].From) - At(response, nodes[i].To);
            }
        }
    }

    /// <summary>Voltages over the windings with the device in another state.</summary>
    public IReadOnlyDictionary<(string From, string To), Complex> Volts(Device device, DeviceState state)
    {
        var after = Capture(device, state);
        var n = _volts.Length;
        var system = new Complex[n, n + 1];
        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                for (var k = 0; k < n; k++)
                {
                    system[i, j] += _behind[i, k] * (after.Admittance[k, j] - _before.Admittance[k, j]);
                }

                system[i, j] += i == j ? 1 : 0;
            }

            system[i, n] = _volts[i];
        }

        var volts = Solve(system);
        return _before.Windings.Select((w, i) => (w, i)).ToDictionary(x => x.w, x => volts[x.i]);
    }

    private static Complex At(Complex[] volts, int node) => node < 0 ? Complex.Zero : volts[node];

    /// <summary>Gauss with partial pivoting; three unknowns.</summary>
    private static Complex[] Solve(Complex[,] m)
    {
        var n = m.GetLength(0);
        for (var k = 0; k < n; k++)
        {
            var pivot = Enumerable.Range(k, n - k).MaxBy(i => m[i, k].Magnitude);
            for (var j = 0; j <= n && pivot != k; j++)
            {
                (m[k, j], m[pivot, j]) = (m[pivot, j], m[k, j]);
            }

            for (var i = 0; i < n; i++)
            {
                var factor = m[i, k] / m[k, k];
                for (var j = k; j <= n && i != k; j++)
                {
                    m[i, j] -= factor * m[k, j];
                }
            }
        }

        return [.. Enumerable.Range(0, n).Select(i => m[i, n] / m[i, i])];
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

        public Complex[,] Admittance { get; private set; } = new Complex[0, 0];

        void ICoupledStamp.Windings((string From, string To)[] windings, Complex[,] admittance) =>
            (Windings, Admittance) = (windings, admittance);

        public void Source(int element, Complex volts, Complex ohms) { }
    }
}
