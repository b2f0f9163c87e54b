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
/// All right-hand sides are balanced (one ampere in at one point, out at the other), so the huge common mode of a floating
/// circuit never enters and opening the only conductor to a point comes out as OL rather than as rounding error.
/// </remarks>
internal sealed class OhmTable
{
    private const double OverRange = 40e6;

    private readonly Network _healthy;
    private readonly bool _underVoltage;
    private readonly CircuitState _state;
    private readonly SparseLu<double> _lu;
    private readonly ImmutableArray<(TerminalId From, TerminalId To)> _pairs;
    private readonly double[][] _responses;
    private readonly double[] _healthyAdmittances;
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
        _lu = healthy.FactorOhms(state);
        _healthyAdmittances = [.. healthy.Branches.Select(b => healthy.Admittance(b, state, Domain.Ohms).Real)];
        _responses = [.. pairs.Select(p => _lu.Response(healthy.Node(p.From), healthy.Node(p.To)))];
    }

    /// <summary>About how much memory it holds: the response of every node to a current between each pair.</summary>
    public long Bytes => 8L * _responses.Sum(r => r.Length) + 8L * _healthyAdmittances.Length + _lu.Bytes + (_more?.Bytes ?? 0);

    /// <summary>The readings one standard deviation of copper higher, ohm.</summary>
    public double[] ReadMore(Network faulty) => (_more ?? this).Read(faulty);

    /// <summary>Readings of all pairs, ohm, with the faulty network in the same state; infinite is OL.</summary>
    public double[] Read(Network faulty)
    {
        var changes = Changes(faulty);
        if (changes.Count == 0)
        {
            return [.. _pairs.Select((p, i) => Shown(Between(i, p)))];
        }

        var update = new LowRankUpdate<double>(_lu, changes);
        var readings = new double[_pairs.Length];
        for (var p = 0; p < _pairs.Length; p++)
        {
            readings[p] = Shown(Between(p, _pairs[p]) - update.Lessening(_responses[p]));
        }

        return readings;
    }

    private static double Shown(double ohms) => ohms > OverRange || ohms < -1 ? double.PositiveInfinity : Math.Max(0, ohms);

    private double Between(int pair, (TerminalId From, TerminalId To) points) =>
        new BranchChange<double>(_healthy.Node(points.From), _healthy.Node(points.To), 0).Drop(_responses[pair]);

    private List<BranchChange<double>> Changes(Network faulty)
    {
        var changes = new List<BranchChange<double>>();
        for (var i = 0; i < faulty.Branches.Count; i++)
        {
            var branch = faulty.Branches[i];
            var healthy = i < _healthyAdmittances.Length ? _healthyAdmittances[i] : 0;
            if (i < _healthyAdmittances.Length && ReferenceEquals(branch, _drawn.Branches[i]) && !faulty.HasAlteredDevice(branch.Device))
            {
                continue;
            }

            var change =
                (
                    branch is { UnderVoltage: true } && _underVoltage
                        ? 1 / branch.SeriesOhms
                        : faulty.Admittance(branch, _state, Domain.Ohms).Real
                ) - healthy;
            if (change != 0)
            {
                changes.Add(new BranchChange<double>(branch.A, branch.B, change));
            }
        }

        return changes;
    }
}
