using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using MathNet.Numerics.LinearAlgebra;
using Complex = System.Numerics.Complex;

namespace Fehler.Benchmarks;

/// <summary>
/// The same nodal equations as a full matrix, solved by a general-purpose library's LU: what the sparse one is measured against.
/// </summary>
internal sealed class DenseMatrix : ICoupledStamp
{
    private readonly Network _network;
    private readonly Matrix<Complex> _matrix;
    private readonly Vector<Complex> _injected;
    private int _device;

    public DenseMatrix(Network network, CircuitState state)
    {
        _network = network;
        _matrix = Matrix<Complex>.Build.Dense(network.Size, network.Size);
        _injected = Vector<Complex>.Build.Dense(network.Size);
        foreach (var branch in network.Branches)
        {
            Join(branch.A, branch.B, network.Admittance(branch, state, Domain.Ac));
        }

        for (var n = 0; n < network.Size; n++)
        {
            _matrix[n, n] += new Complex(Network.PointLeak, network.Omega * network.Farads(n));
        }

        for (_device = 0; _device < network.Circuit.Devices.Length; _device++)
        {
            var device = network.Circuit.Devices[_device];
            device.Kind.Stamp(device, state.Devices[_device], Domain.Ac, this);
        }
    }

    public Vector<Complex> Volts() => _matrix.LU().Solve(_injected);

    void ICoupledStamp.Windings((string From, string To)[] windings, Complex[] admittance)
    {
        for (var i = 0; i < windings.Length; i++)
        {
            for (var j = 0; j < windings.Length; j++)
            {
                var (fromI, toI) = (_network.InnerNode(_device, windings[i].From), _network.InnerNode(_device, windings[i].To));
                var (fromJ, toJ) = (_network.InnerNode(_device, windings[j].From), _network.InnerNode(_device, windings[j].To));
                var y = admittance[i * windings.Length + j];
                Add(fromI, fromJ, y);
                Add(fromI, toJ, -y);
                Add(toI, fromJ, -y);
                Add(toI, toJ, y);
            }
        }
    }

    void ICoupledStamp.Source(int element, Complex volts, Complex ohms)
    {
        var branch = _network.Branches[_network.BranchIndex(_device, element)];
        Join(branch.A, branch.B, 1 / ohms);
        foreach (var (node, current) in new[] { (branch.B, volts / ohms), (branch.A, -volts / ohms) }.Where(x => x.Item1 >= 0))
        {
            _injected[node] += current;
        }
    }

    private void Join(int a, int b, Complex admittance)
    {
        Add(a, a, admittance);
        Add(b, b, admittance);
        Add(a, b, -admittance);
        Add(b, a, -admittance);
    }

    private void Add(int row, int column, Complex value)
    {
        if (row >= 0 && column >= 0)
        {
            _matrix[row, column] += value;
        }
    }
}
