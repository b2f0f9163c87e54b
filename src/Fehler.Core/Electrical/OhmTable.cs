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
    private readonly ImmutableArray<(TerminalId From, TerminalId To)> _pairs;
    private readonly int[] _islands;
    private readonly double[][] _responses;
    private readonly Network _drawn;
    private readonly OhmTable? _more;

    /// <param name="healthy">The healthy circuit.</param>
    /// <param name="state">What stands how.</param>
    /// <param name="pairs">Where the leads go.</param>
    /// <param name="underVoltage">With an insulation tester's voltage: insulation that an ohmmeter finds sound may break down.</param>
    /// <param name="more">The same circuit with more copper in its windings; null when nobody asks for it.</param>
    public OhmTable(
        Network healthy,
        CircuitState state,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs,
        bool underVoltage = false,
        Network? more = null
    )
        : this(healthy, healthy, state, pairs, underVoltage)
    {
        _more = more is null ? null : new OhmTable(more, healthy, state, pairs, underVoltage);
    }

    /// <param name="drawn">The circuit whose branches tell which of a faulty one's are changed.</param>
    private OhmTable(
        Network healthy,
        Network drawn,
        CircuitState state,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs,
        bool underVoltage
    )
    {
        _drawn = drawn;
        _healthy = healthy;
        _underVoltage = underVoltage;
        _state = state;
        _pairs = pairs;
        _matrix = new OhmMatrix(healthy, state);
        _islands = OhmMatrix.Islands(healthy, _matrix.Admittances);
        _responses = [.. pairs.Select(p => _matrix.Lu.Response(healthy.Node(p.From), healthy.Node(p.To)))];
    }

    /// <summary>About how much memory it holds: the response of every node to a current between each pair.</summary>
    public long Bytes => 8L * _responses.Sum(r => r.Length) + _matrix.Bytes + (_more?.Bytes ?? 0);

    /// <summary>The readings one standard deviation of copper higher, ohm.</summary>
    public double[] ReadMore(Network faulty) => (_more ?? this).Read(faulty);

    /// <summary>Readings of all pairs, ohm, with the faulty network in the same state; infinite is OL.</summary>
    public double[] Read(Network faulty)
    {
        var admittances = Admittances(faulty);
        var changes = Changes(faulty, admittances);
        if (changes.Count == 0)
        {
            return [.. _pairs.Select((p, i) => Shown(Between(i, p), _islands, p))];
        }

        var islands = OhmMatrix.Islands(faulty, admittances);
        changes.AddRange(_matrix.Retied(islands));
        var update = new LowRankUpdate<double>(_matrix.Lu, changes);
        if (update.Soundness < Network.LeastSoundness && !_underVoltage)
        {
            var anew = new OhmMatrix(_healthy.With(faulty.Alterations), _state);
            return [.. _pairs.Select(p => Shown(anew.Between(_healthy.Node(p.From), _healthy.Node(p.To)), islands, p))];
        }

        var readings = new double[_pairs.Length];
        for (var p = 0; p < _pairs.Length; p++)
        {
            readings[p] = Shown(Between(p, _pairs[p]) - update.Lessening(_responses[p]), islands, _pairs[p]);
        }

        return readings;
    }

    private double Shown(double ohms, int[] islands, (TerminalId From, TerminalId To) pair) =>
        islands[_healthy.Node(pair.From) + 1] != islands[_healthy.Node(pair.To) + 1] || ohms > OverRange
            ? double.PositiveInfinity
            : Math.Max(0, ohms);

    private double Between(int pair, (TerminalId From, TerminalId To) points) =>
        new BranchChange<double>(_healthy.Node(points.From), _healthy.Node(points.To), 0).Drop(_responses[pair]);

    /// <summary>Siemens of every branch with the fault; with an insulation tester also of what breaks down.</summary>
    private double[] Admittances(Network faulty)
    {
        var admittances = new double[faulty.Branches.Count];
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
