using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>
/// The isolated circuit as an ohmmeter sees it, factored. What conducts falls into islands; each that does not hang on earth is
/// tied to it at one point, which nothing flows through when a current goes in at one place of the island and out at another.
/// Between islands the reading is OL, exactly: no leak has to stand for it and no digits are lost to one.
/// </summary>
internal sealed class OhmMatrix
{
    /// <summary>Siemens of a tie; of the size of what it ties.</summary>
    public const double Tie = 1;

    private readonly Network _network;
    private readonly SparseLu<double> _lu;
    private readonly int[] _islands;

    public OhmMatrix(Network network, CircuitState state)
    {
        _network = network;
        Admittances = [.. network.Branches.Select(b => network.Admittance(b, state, Domain.Ohms).Real)];
        _islands = Islands(network, Admittances);
        Ties = [.. Enumerable.Range(0, network.Size).GroupBy(n => _islands[n + 1]).Where(g => g.Key != _islands[0]).Select(g => g.First())];
        var tied = Ties.ToHashSet();
        _lu = network.FactorOhms(state, n => tied.Contains(n) ? Tie : 0);
    }

    /// <summary>Siemens of every branch.</summary>
    public double[] Admittances { get; }

    /// <summary>Nodes that are tied to earth, one an island.</summary>
    public ImmutableArray<int> Ties { get; }

    public SparseLu<double> Lu => _lu;

    public long Bytes => _lu.Bytes + 8L * Admittances.Length + 4L * _islands.Length;

    /// <summary>Ohms between two nodes; infinite where nothing joins them.</summary>
    public double Between(int a, int b)
    {
        if (_islands[a + 1] != _islands[b + 1])
        {
            return double.PositiveInfinity;
        }

        return a == b ? 0 : new BranchChange<double>(a, b, 0).Drop(_lu.Response(a, b));
    }

    /// <summary>Island of every node by its number; earth is at 0, node n at n + 1.</summary>
    public static int[] Islands(Network network, IReadOnlyList<double> admittances)
    {
        var islands = new UnionFind(network.Size + 1);
        for (var i = 0; i < admittances.Count; i++)
        {
            if (admittances[i] > 0)
            {
                islands.Join(network.Branches[i].A + 1, network.Branches[i].B + 1);
            }
        }

        foreach (var (a, b) in network.WindingEnds)
        {
            islands.Join(a + 1, b + 1);
        }

        return islands.Roots();
    }

    /// <summary>What has to be changed about the ties when a fault splits or joins islands: one an island again.</summary>
    /// <param name="islands">Islands with the fault, as <see cref="Islands"/> gives them.</param>
    public IEnumerable<BranchChange<double>> Retied(int[] islands)
    {
        var tied = new HashSet<int> { islands[0] };
        foreach (var node in Ties)
        {
            if (!tied.Add(islands[node + 1]))
            {
                yield return new BranchChange<double>(node, -1, -Tie);
            }
        }

        for (var node = 0; node < _network.Size; node++)
        {
            if (tied.Add(islands[node + 1]))
            {
                yield return new BranchChange<double>(node, -1, Tie);
            }
        }
    }
}
