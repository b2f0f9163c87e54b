using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>
/// Resistances between many pairs of points of an isolated circuit in one state, and the same with any fault in it. The
/// healthy matrix is factored once; a fault changes a branch or two and enters as a low-rank update, so a reading under
/// a fault costs a few multiplications.
/// </summary>
/// <remarks>
/// <see cref="LowRankUpdate{T}"/>: R' = R - wᵀ (D⁻¹ + Bᵀ Y⁻¹ B)⁻¹ w, w = Bᵀ Y⁻¹ (a - b).
/// A fault may split an island or join two: its ties to earth are changed with it (see <see cref="OhmMatrix"/>), so that every
/// matrix on the way can be inverted with all its digits, and what nothing joins any more reads OL.
/// </remarks>
internal sealed class OhmTable
{
    private const double OverRange = 40e6;

    private readonly Network _healthy;
    private readonly bool _underVoltage;
    private readonly CircuitState _state;
    private readonly OhmMatrix _matrix;
    private readonly int[] _islands;

    /// <summary>Number of every node within its island, earth's at 0 and node n's at n + 1; nodes of each island.</summary>
    private readonly int[] _places,
        _sizes;

    private readonly double[]?[] _responses;
    private readonly Network _drawn;
    private readonly OhmTable? _more;
    private Asked? _asked;

    /// <param name="healthy">The healthy circuit.</param>
    /// <param name="state">What stands how.</param>
    /// <param name="underVoltage">With an insulation tester's voltage: insulation that an ohmmeter finds sound may break down.</param>
    /// <param name="more">The same circuit with more copper in its windings; null when nobody asks for it.</param>
    public OhmTable(Network healthy, CircuitState state, bool underVoltage = false, Network? more = null)
        : this(healthy, healthy, state, underVoltage)
    {
        _more = more is null ? null : new OhmTable(more, healthy, state, underVoltage);
    }

    /// <param name="drawn">The circuit whose branches tell which of a faulty one's are changed.</param>
    private OhmTable(Network healthy, Network drawn, CircuitState state, bool underVoltage)
    {
        _drawn = drawn;
        _healthy = healthy;
        _underVoltage = underVoltage;
        _state = state;
        _matrix = new OhmMatrix(healthy, state);
        _islands = OhmMatrix.Islands(healthy, _matrix.Admittances);
        _places = new int[_islands.Length];
        _sizes = new int[_islands.Length];
        for (var i = 0; i < _islands.Length; i++)
        {
            _places[i] = _sizes[_islands[i]]++;
        }

        _responses = new double[healthy.Size][];
    }

    /// <summary>About how much memory it may come to hold: the response of every node to a current into each of its island.</summary>
    public long Bytes => 8 * _islands.Sum(i => (long)_sizes[i]) + 32L * _islands.Length + _matrix.Bytes + (_more?.Bytes ?? 0);

    /// <summary>The readings one standard deviation of copper higher, ohm.</summary>
    public double[] ReadMore(Network faulty, ImmutableArray<(TerminalId From, TerminalId To)> pairs) => (_more ?? this).Read(faulty, pairs);

    /// <summary>Readings of pairs of points, ohm, with the faulty network in the same state; infinite is OL.</summary>
    public double[] Read(Network faulty, ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        var admittances = Admittances(faulty);
        var changes = Changes(faulty, admittances);
        var readings = new double[pairs.Length];
        LowRankUpdate<double>? update = null;
        OhmMatrix? anew = null;
        var islands = _islands;
        if (changes.Count > 0)
        {
            if (JoinsOrParts(admittances))
            {
                islands = OhmMatrix.Islands(faulty, admittances);
                changes.AddRange(_matrix.Retied(islands));
            }

            // Solved for each: superposed from the responses of single nodes a closed wire would keep none of its digits.
            update = new LowRankUpdate<double>(_matrix.Lu, changes);
            if (update.Soundness < Network.LeastSoundness && !_underVoltage)
            {
                anew = new OhmMatrix(_healthy.With(faulty.Alterations), _state);
            }
        }

        var drops = changes.Count <= 16 ? stackalloc double[changes.Count] : new double[changes.Count];
        var nodes = NodesOf(pairs);
        for (var i = 0; i < readings.Length; i++)
        {
            var (a, b) = nodes[i];
            readings[i] =
                islands[a + 1] != islands[b + 1] ? double.PositiveInfinity
                : a == b ? 0
                : Shown(anew?.Between(a, b) ?? Between(a, b, update, changes, drops));
        }

        return readings;
    }

    /// <summary>A branch that conducts no longer, or does for the first time; what only conducts more or less leaves the islands.</summary>
    private bool JoinsOrParts(double[] admittances)
    {
        for (var i = 0; i < admittances.Length; i++)
        {
            if (admittances[i] > 0 != (i < _matrix.Admittances.Length && _matrix.Admittances[i] > 0))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>Nodes of pairs that a thousand faults are asked about one after the other.</summary>
    private sealed record Asked(ImmutableArray<(TerminalId From, TerminalId To)> Pairs, (int A, int B)[] Nodes);

    private (int A, int B)[] NodesOf(ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        if (_asked is { } known && known.Pairs == pairs)
        {
            return known.Nodes;
        }

        var nodes = pairs.Select(p => (_healthy.Node(p.From), _healthy.Node(p.To))).ToArray();
        _asked = new Asked(pairs, nodes);
        return nodes;
    }

    private static double Shown(double ohms) => ohms > OverRange ? double.PositiveInfinity : Math.Max(0, ohms);

    /// <summary>What one ampere into one point and out of the other leaves between them: superposed from one ampere into each.</summary>
    private double Between(int a, int b, LowRankUpdate<double>? update, List<BranchChange<double>> changes, Span<double> drops)
    {
        var ohms = Drop(a, a, b) - Drop(b, a, b);
        if (update is null)
        {
            return ohms;
        }

        for (var i = 0; i < drops.Length; i++)
        {
            drops[i] = Drop(a, changes[i].A, changes[i].B) - Drop(b, changes[i].A, changes[i].B);
        }

        return ohms - update.Lessening(drops);
    }

    /// <summary>Voltage from one node to another for one ampere into a node and out at earth.</summary>
    private double Drop(int into, int from, int to)
    {
        if (into < 0)
        {
            return 0;
        }

        var (response, island) = (_responses[into] ??= Response(into), _islands[into + 1]);
        return Volts(response, island, from) - Volts(response, island, to);
    }

    private double Volts(double[] response, int island, int node) =>
        node < 0 || _islands[node + 1] != island ? 0 : response[_places[node + 1]];

    /// <summary>
    /// Node voltages of its island for one ampere into a node and out at earth: no other island has any. Two threads may work out the same.
    /// </summary>
    private double[] Response(int node)
    {
        var volts = _matrix.Lu.Response(node, -1);
        var island = _islands[node + 1];
        var own = new double[_sizes[island]];
        for (var i = 0; i < volts.Length; i++)
        {
            if (_islands[i + 1] == island)
            {
                own[_places[i + 1]] = volts[i];
            }
        }

        return own;
    }

    /// <summary>Siemens of every branch with the fault; with an insulation tester also of what breaks down.</summary>
    private double[] Admittances(Network faulty)
    {
        var admittances = new double[faulty.Branches.Length];
        _matrix.Admittances.CopyTo(admittances, 0);
        for (var i = 0; i < admittances.Length; i++)
        {
            var branch = faulty.Branches[i];
            if (i >= _matrix.Admittances.Length || !ReferenceEquals(branch, _drawn.Branches[i]) || faulty.HasAlteredDevice(branch.Device))
            {
                admittances[i] =
                    branch.UnderVoltage && _underVoltage ? 1 / branch.SeriesOhms : faulty.Admittance(branch, _state, Domain.Ohms).Real;
            }
        }

        return admittances;
    }

    private List<BranchChange<double>> Changes(Network faulty, double[] admittances)
    {
        var changes = new List<BranchChange<double>>();
        for (var i = 0; i < admittances.Length; i++)
        {
            var change = admittances[i] - (i < _matrix.Admittances.Length ? _matrix.Admittances[i] : 0);
            if (change != 0)
            {
                changes.Add(new BranchChange<double>(faulty.Branches[i].A, faulty.Branches[i].B, change));
            }
        }

        return changes;
    }
}
