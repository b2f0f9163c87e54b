using System.Numerics;
using Fehler.Core.Devices;

namespace Fehler.Core.Electrical;

/// <summary>Sources and windings on their way into the matrix; one implementation a domain.</summary>
internal abstract class CoupledStamp : ICoupledStamp
{
    /// <summary>Index of the device that is being stamped.</summary>
    public int Device { get; set; }

    public abstract void Windings((string From, string To)[] windings, Complex[,] admittance);

    public abstract void Source(int element, Complex volts, Complex ohms);

    /// <summary>Winding currents are driven by winding voltages: four entries a pair of windings.</summary>
    protected static void Spread<T>(SparseLu<T> lu, int[] from, int[] to, Func<int, int, T> admittance)
        where T : struct, System.Numerics.INumberBase<T>
    {
        for (var i = 0; i < from.Length; i++)
        {
            for (var j = 0; j < from.Length; j++)
            {
                var y = admittance(i, j);
                lu.Add(from[i], from[j], y);
                lu.Add(from[i], to[j], -y);
                lu.Add(to[i], from[j], -y);
                lu.Add(to[i], to[j], y);
            }
        }
    }
}

internal sealed class AcStamp(Network network, SparseLu<Complex> lu, Complex[] injected, Complex[] admittances) : CoupledStamp
{
    /// <summary>Electromotive force of source branches by branch index.</summary>
    public Dictionary<int, Complex> Electromotive { get; } = [];

    public override void Windings((string From, string To)[] windings, Complex[,] admittance) => Spread(
        lu,
        [.. windings.Select(w => network.InnerNode(Device, w.From))],
        [.. windings.Select(w => network.InnerNode(Device, w.To))],
        (i, j) => admittance[i, j]);

    public override void Source(int element, Complex volts, Complex ohms)
    {
        var index = network.BranchIndex(Device, element);
        var branch = network.Branches[index];
        if (branch.Open || volts == Complex.Zero)
        {
            return;
        }

        // Norton: the source's current into its own impedance. A is the star point, B the phase.
        var y = 1 / (ohms + branch.SeriesOhms);
        admittances[index] = y;
        Electromotive[index] = volts;
        lu.Add(branch.A, branch.A, y);
        lu.Add(branch.B, branch.B, y);
        lu.Add(branch.A, branch.B, -y);
        lu.Add(branch.B, branch.A, -y);
        if (branch.B >= 0)
        {
            injected[branch.B] += y * volts;
        }

        if (branch.A >= 0)
        {
            injected[branch.A] -= y * volts;
        }
    }
}

internal sealed class OhmsStamp(Network network, SparseLu<double> lu) : CoupledStamp
{
    public override void Windings((string From, string To)[] windings, Complex[,] admittance) => Spread(
        lu,
        [.. windings.Select(w => network.InnerNode(Device, w.From))],
        [.. windings.Select(w => network.InnerNode(Device, w.To))],
        (i, j) => admittance[i, j].Real);

    /// <summary>For the ohmmeter supplies are open.</summary>
    public override void Source(int element, Complex volts, Complex ohms) { }
}

/// <summary>Direct-current sources and windings as their resistance.</summary>
internal sealed class DcStamp(Network network, SparseLu<double> lu, double[] injected, double[] admittances) : CoupledStamp
{
    /// <summary>Electromotive force of source branches by branch index.</summary>
    public Dictionary<int, double> Electromotive { get; } = [];

    public override void Windings((string From, string To)[] windings, Complex[,] admittance) => Spread(
        lu,
        [.. windings.Select(w => network.InnerNode(Device, w.From))],
        [.. windings.Select(w => network.InnerNode(Device, w.To))],
        (i, j) => admittance[i, j].Real);

    public override void Source(int element, Complex volts, Complex ohms)
    {
        var index = network.BranchIndex(Device, element);
        var branch = network.Branches[index];
        if (branch.Open || volts == Complex.Zero)
        {
            return;
        }

        var y = 1 / (ohms.Real + branch.SeriesOhms);
        admittances[index] = y;
        Electromotive[index] = volts.Real;
        lu.AddBranch(network.PlaceOf(index), y);
        if (branch.B >= 0)
        {
            injected[branch.B] += y * volts.Real;
        }

        if (branch.A >= 0)
        {
            injected[branch.A] -= y * volts.Real;
        }
    }
}

/// <summary>Collects the inner nodes a device needs.</summary>
internal sealed class PatternStamp : CoupledStamp
{
    public HashSet<string> Names { get; } = [];

    public List<(string From, string To)> Pairs { get; } = [];

    public override void Windings((string From, string To)[] windings, Complex[,] admittance)
    {
        foreach (var (from, to) in windings)
        {
            Names.Add(from);
            Names.Add(to);
        }

        Pairs.AddRange(windings);
    }

    public override void Source(int element, Complex volts, Complex ohms) { }
}
