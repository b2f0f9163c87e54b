using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>Sources and windings on their way into the matrix; one implementation a domain.</summary>
internal abstract class CoupledStamp : ICoupledStamp
{
    /// <summary>Index of the device that is being stamped.</summary>
    public int Device { get; set; }

    public abstract void Windings((string From, string To)[] windings, Complex[] admittance);

    public abstract void Source(int element, Complex volts, Complex ohms);
}

/// <summary>Windings and sources of one domain on their way into its matrix; for the ohmmeter supplies are open.</summary>
internal sealed class SolvingStamp<T>(
    Network network,
    SparseLu<T> lu,
    T[] injected,
    T[] admittances,
    Func<Complex, T> number,
    bool isPowered
) : CoupledStamp
    where T : unmanaged, INumberBase<T>
{
    /// <summary>Electromotive force of source branches by branch index.</summary>
    public Dictionary<int, T> Electromotive { get; } = [];

    public override void Windings((string From, string To)[] windings, Complex[] admittance)
    {
        var n = windings.Length;
        Span<(int From, int To)> nodes = stackalloc (int, int)[n];
        for (var i = 0; i < n; i++)
        {
            nodes[i] = (network.InnerNode(Device, windings[i].From), network.InnerNode(Device, windings[i].To));
        }

        for (var i = 0; i < n; i++)
        {
            for (var j = 0; j < n; j++)
            {
                // Winding currents are driven by winding voltages: four entries a pair of windings.
                var y = number(admittance[i * n + j]);
                lu.Add(nodes[i].From, nodes[j].From, y);
                lu.Add(nodes[i].From, nodes[j].To, -y);
                lu.Add(nodes[i].To, nodes[j].From, -y);
                lu.Add(nodes[i].To, nodes[j].To, y);
            }
        }
    }

    public override void Source(int element, Complex volts, Complex ohms)
    {
        var index = network.BranchIndex(Device, element);
        var branch = network.Branches[index];
        if (!isPowered || branch.Open || volts == Complex.Zero)
        {
            return;
        }

        // Norton: the source's current into its own impedance. A is the star point, B the phase.
        var y = T.One / number(ohms + branch.SeriesOhms);
        admittances[index] = y;
        Electromotive[index] = number(volts);
        lu.AddBranch(network.PlaceOf(index), y);
        if (branch.B >= 0)
        {
            injected[branch.B] += y * number(volts);
        }

        if (branch.A >= 0)
        {
            injected[branch.A] -= y * number(volts);
        }
    }
}

/// <summary>Collects the inner nodes a device needs.</summary>
internal sealed class PatternStamp : CoupledStamp
{
    public HashSet<string> Names { get; } = [];

    public List<(string From, string To)> Pairs { get; } = [];

    public override void Windings((string From, string To)[] windings, Complex[] admittance)
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
