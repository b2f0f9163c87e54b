using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Electrical;

/// <summary>
/// A circuit as a network of nodes and branches, with a fault in it or none. Every terminal is a node, every conductor,
/// contact and load a branch, so that any of them can be opened, loosened or measured across. Earth is the reference.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
public sealed class Network : IHoldsMemory
{
    /// <summary>Insulation of a single point to earth in a sound panel, siemens.</summary>
    internal const double PointLeak = 1e-10;

    /// <summary>An update that leaves fewer digits than this is not taken: eight of sixteen stay.</summary>
    internal const double LeastSoundness = 1e-8;

    /// <summary>Less than any device notices: an indicator draws milliamperes, a monitor's input tens of microamperes.</summary>
    private const double NoAmps = 1e-6,
        NoVolts = 1e-3;

    private readonly NetworkTopology _topology;
    private readonly ImmutableArray<NetworkBranch> _branches;
    private readonly Network? _healthy;
    private readonly Baselines? _baselines;
    private readonly int[] _changed = [];
    private SparsePattern? _pattern;
    private BranchPlace[]? _places;
    private readonly Dictionary<string, int> _deviceIndex;
    private readonly int[] _firstBranch;
    private IReadOnlyList<(int A, int B)>? _windingEnds;

    /// <summary>Devices that the fault makes another one, by index; null when there is none.</summary>
    private readonly bool[]? _altered;

    /// <summary>What each device's elements conduct; a fault shares what it does not change.</summary>
    private readonly KnownAdmittances[] _known;

    private Network(Circuit circuit)
    {
        Circuit = circuit;
        Alterations = [];
        Supply = circuit.Devices.FirstOrDefault(d => d.Kind.IsSupply);
        HasDirectSupply = circuit.Devices.Any(d => d.Kind.DirectOutput is not null);
        Omega = 2 * Math.PI * (Supply?.Kind.SourceOf(Supply)?.Hertz ?? 50);
        _topology = new NetworkTopology(circuit);
        _deviceIndex = circuit.Devices.Select((d, i) => (d.Tag, i)).ToDictionary(x => x.Tag, x => x.i);
        _firstBranch = [.. Elements.Select((_, i) => Elements.Take(i).Sum(e => e.Length))];
        _branches = _topology.Branches;
        Size = _topology.Farads.Length;
        _pattern = new SparsePattern(Size, _branches.Select(b => (b.A, b.B)).Concat(WindingLinks));
        _places = [.. _branches.Select(b => _pattern.Place(b.A, b.B))];
        _known = [.. circuit.Devices.Select((d, i) => new KnownAdmittances(d, Elements[i]))];
        _baselines = new Baselines(this);
    }

    private Network(Network healthy, ImmutableArray<Alteration> alterations)
    {
        var isAnotherDevice = alterations.Any(a => a is ParameterIs);
        Circuit = isAnotherDevice
            ? healthy.Circuit with
            {
                Devices = [.. healthy.Circuit.Devices.Select(d => Altered(d, alterations))],
            }
            : healthy.Circuit;
        Alterations = alterations;
        _altered = isAnotherDevice
            ? [.. healthy.Circuit.Devices.Select(d => alterations.Any(a => a is ParameterIs p && p.Device == d.Tag))]
            : null;
        HasDirectSupply = healthy.HasDirectSupply;
        Supply = healthy.Supply is null ? null : Circuit.Device(healthy.Supply.Tag);
        Omega = healthy.Omega;
        _topology = healthy._topology;
        _deviceIndex = healthy._deviceIndex;
        _firstBranch = healthy._firstBranch;
        _branches = [.. healthy._branches.Select(b => b.With(healthy.Circuit, alterations)), .. Bridges(alterations)];
        Size = healthy.Size;
        _healthy = healthy;
        _changed =
        [
            .. Enumerable
                .Range(0, _branches.Length)
                .Where(i => i >= healthy._branches.Length || !ReferenceEquals(_branches[i], healthy._branches[i])),
        ];
        // Another device or source is more than a few changed branches.
        _baselines = isAnotherDevice || _changed.Any(i => _branches[i].Element?.Role == ElementRole.Source) ? null : healthy._baselines;
        _known = isAnotherDevice
            ? [.. Circuit.Devices.Select((d, i) => HasAlteredDevice(i) ? new KnownAdmittances(d, Elements[i]) : healthy._known[i])]
            : healthy._known;
    }

    /// <summary>The healthy circuit.</summary>
    public static Network Of(Circuit circuit) => new(circuit);

    /// <summary>This circuit, healthy so far, with a fault (or several) in it.</summary>
    public Network With(ImmutableArray<Alteration> alterations) => new(this, alterations);

    public Circuit Circuit { get; }

    public ImmutableArray<Alteration> Alterations { get; }

    /// <summary>About how much memory it holds by itself; what it shares with the healthy one is counted there.</summary>
    public long Bytes => 200 + 8L * _branches.Length + 100L * _changed.Length + (_healthy is null ? OwnBytes : 0);

    private long OwnBytes => 300L * _branches.Length + 200L * _topology.Nodes.Count + 3000L * Elements.Length + _baselines!.Bytes;

    /// <summary>Number of nodes besides earth.</summary>
    public int Size { get; }

    /// <summary>Whether the fault is only a few changed branches, so that the healthy circuit's solutions can be updated.</summary>
    internal bool IsUpdate => _baselines is not null && _healthy is not null;

    /// <summary>Angular frequency of the supply, rad/s.</summary>
    public double Omega { get; }

    internal Device? Supply { get; }

    /// <summary>Some of the circuit works on direct current.</summary>
    internal bool HasDirectSupply { get; }

    internal ImmutableArray<ImmutableArray<Element>> Elements => _topology.Elements;
    internal ImmutableArray<NetworkBranch> Branches => _branches;
    internal IReadOnlyDictionary<TerminalId, int> Nodes => _topology.Nodes;

    internal double Farads(int node) => _topology.Farads[node];

    internal int DeviceIndex(string tag) => _deviceIndex[tag];

    /// <summary>Node of a terminal; earth is -1.</summary>
    /// <exception cref="KeyNotFoundException">The circuit has no such terminal.</exception>
    public int Node(TerminalId terminal) =>
        _topology.Nodes.TryGetValue(terminal, out var node)
            ? node
            : throw new KeyNotFoundException($"The circuit {Circuit.Tag} has no terminal {terminal}.");

    public bool Has(TerminalId terminal) => _topology.Nodes.ContainsKey(terminal);

    /// <summary>Voltages of all nodes in a state of the devices, supply frequency.</summary>
    /// <remarks>A fault in a state that several faults come to is an update of the healthy circuit's solution of that state.</remarks>
    public Solution Solve(CircuitState state)
    {
        var baseline = _baselines?.Of(state.Timeless);
        var ac = Updated(baseline?.Ac, state, Domain.Ac, y => y) ?? SolveAlternating(state).Solved;
        var dc = HasDirectSupply ? Updated(baseline?.Dc, state, Domain.Dc, y => y.Real) ?? SolveDirect(state).Solved : null;
        return new Solution(this, state, ac, dc);
    }

    /// <summary>Node voltages for one ampere into a node and out at another in a state, its sources as they are; -1 is earth.</summary>
    internal Func<int, int, Complex[]> Responses(CircuitState state)
    {
        if (_baselines?.Of(state.Timeless)?.Ac is { } known && Update(known, state, Domain.Ac, y => y) is { } change)
        {
            return (into, outOf) =>
            {
                var volts = known.Lu.Response(into, outOf);
                change.Update?.Apply(volts);
                return volts;
            };
        }

        return SolveAlternating(state).Lu.Response;
    }

    /// <summary>
    /// Whether the alternating voltages of a state come from an update of the healthy circuit's solution rather than from scratch.
    /// </summary>
    internal bool IsUpdated(CircuitState state) =>
        IsUpdate && Updated(_baselines?.Of(state.Timeless)?.Ac, state, Domain.Ac, y => y) is not null;

    /// <summary>
    /// Whether this fault changes nothing in a solved state of the healthy circuit: what it opens or loosens carries no current there,
    /// what it joins has no voltage across it.
    /// </summary>
    internal bool Leaves(Solution healthy)
    {
        foreach (var i in _changed)
        {
            var branch = _branches[i];
            if (!Leaves(healthy, branch, i, Domain.Ac) || (HasDirectSupply && !Leaves(healthy, branch, i, Domain.Dc)))
            {
                return false;
            }
        }

        return true;
    }

    private bool Leaves(Solution healthy, NetworkBranch branch, int index, Domain domain)
    {
        var before =
            index < healthy.Network._branches.Length
                ? healthy.Network.Admittance(healthy.Network._branches[index], healthy.State, domain)
                : 0;
        var after = Admittance(branch, healthy.State, domain);
        if (after == before)
        {
            return true;
        }

        var volts =
            domain == Domain.Ac
                ? (healthy.NodeVolts(branch.A) - healthy.NodeVolts(branch.B)).Magnitude
                : Math.Abs(healthy.DirectVolts(branch.A) - healthy.DirectVolts(branch.B));
        return after.Magnitude < before.Magnitude ? volts * before.Magnitude < NoAmps : volts < NoVolts;
    }

    /// <summary>The alternating voltages of a state from scratch.</summary>
    internal Factored<Complex> SolveAlternating(CircuitState state) =>
        SolveAfresh(state, Domain.Ac, y => y, n => new Complex(PointLeak, Omega * _topology.Farads[n]));

    /// <summary>The direct-current control supplies alone: what is alternating does not move a DC meter or a DC coil.</summary>
    internal Factored<double> SolveDirect(CircuitState state) => SolveAfresh(state, Domain.Dc, y => y.Real, _ => PointLeak);

    private Factored<T> SolveAfresh<T>(CircuitState state, Domain domain, Func<Complex, T> number, Func<int, T> leak)
        where T : unmanaged, INumberBase<T>
    {
        var lu = new SparseLu<T>(Pattern);
        var injected = new T[Size];
        var admittances = new T[_branches.Length];
        for (var i = 0; i < _branches.Length; i++)
        {
            admittances[i] = number(Admittance(_branches[i], state, domain));
            lu.AddBranch(PlaceOf(i), admittances[i]);
        }

        for (var n = 0; n < Size; n++)
        {
            lu.Add(n, n, leak(n));
        }

        var stamp = new SolvingStamp<T>(this, lu, injected, admittances, number, isPowered: domain != Domain.Ohms);
        StampCoupled(state, domain, stamp);
        lu.Factor();
        lu.Solve(injected);
        return new Factored<T>(lu, new Solved<T>(injected, admittances, stamp.Electromotive));
    }

    /// <summary>The healthy circuit's solution with this fault put in; null when there is none or it would leave too few digits.</summary>
    private Solved<T>? Updated<T>(Factored<T>? healthy, CircuitState state, Domain domain, Func<Complex, T> number)
        where T : unmanaged, INumberBase<T>
    {
        if (healthy is null || Update(healthy, state, domain, number) is not { } change)
        {
            return null;
        }

        if (change.Update is null)
        {
            return healthy.Solved;
        }

        var volts = (T[])healthy.Solved.Volts.Clone();
        change.Update.Apply(volts);
        return healthy.Solved with { Volts = volts, Changed = change.Changed };
    }

    /// <summary>
    /// What this fault changes in a solved state of the healthy circuit, no update when that is nothing; null when it would leave too few
    /// digits.
    /// </summary>
    private (LowRankUpdate<T>? Update, (int Branch, T Siemens)[] Changed)? Update<T>(
        Factored<T> healthy,
        CircuitState state,
        Domain domain,
        Func<Complex, T> number
    )
        where T : unmanaged, INumberBase<T>
    {
        List<BranchChange<T>>? changes = null;
        List<(int Branch, T Siemens)>? changed = null;
        foreach (var i in _changed)
        {
            var (before, after) = (healthy.Solved.AdmittanceOf(i), number(Admittance(_branches[i], state, domain)));
            if (after != before)
            {
                (changes ??= []).Add(new BranchChange<T>(_branches[i].A, _branches[i].B, after - before));
                (changed ??= []).Add((i, after));
            }
        }

        if (changes is null)
        {
            return (null, []);
        }

        var update = new LowRankUpdate<T>(healthy.Lu, changes);
        return update.Soundness < LeastSoundness ? null : (update, [.. changed!]);
    }

    /// <summary>
    /// What an ohmmeter with a high range reads between two points of the isolated circuit; OL above 40 Mohm.
    /// Everything in parallel is in the reading, as on the bench.
    /// </summary>
    public Ohms Ohms(CircuitState state, TerminalId from, TerminalId to) => OhmMeter(state)(from, to);

    /// <summary>An ohmmeter on this state: factored once, any number of readings.</summary>
    public Func<TerminalId, TerminalId, Ohms> OhmMeter(CircuitState state)
    {
        const double overRange = 40e6;
        var matrix = new OhmMatrix(this, state);
        return (from, to) => matrix.Between(Node(from), Node(to)) is var ohms && ohms > overRange ? Circuits.Ohms.Open : new(ohms);
    }

    /// <summary>The ohmmeter's matrix of a state, factored.</summary>
    /// <param name="state">What stands how.</param>
    /// <param name="tie">Siemens that tie a node to earth.</param>
    internal SparseLu<double> FactorOhms(CircuitState state, Func<int, double> tie) => SolveAfresh(state, Domain.Ohms, y => y.Real, tie).Lu;

    /// <summary>Whether the fault made this device another one (a wrong coil).</summary>
    internal bool HasAlteredDevice(int device) => device >= 0 && _altered is { } altered && altered[device];

    /// <summary>Admittance of a branch in a state, its fault included, siemens.</summary>
    internal Complex Admittance(NetworkBranch branch, CircuitState state, Domain domain)
    {
        if (branch.Conductor is { } conductor)
        {
            return branch.Open || state.IsOff(conductor) ? 0 : 1 / (conductor.Ohms.Value + branch.SeriesOhms);
        }

        if (branch.Farads > 0)
        {
            return domain == Domain.Ac ? new Complex(0, Omega * branch.Farads) : 0;
        }

        if (branch.Element is not { } element)
        {
            return (branch.UnderVoltage && domain == Domain.Ohms) || !branch.IsHere(state) ? 0 : 1 / branch.SeriesOhms;
        }

        if (branch.Open || element.Role == ElementRole.Source)
        {
            return 0;
        }

        var admittance = branch.Made
            ? 1 / IElectrical.ContactOhms
            : _known[branch.Device].Of(state.Devices[branch.Device], domain)[branch.ElementIndex];
        if (branch.Inverted)
        {
            admittance = admittance == Complex.Zero ? 1 / IElectrical.ContactOhms : 0;
        }

        if (branch.ImpedanceFactor != 1)
        {
            admittance /= branch.ImpedanceFactor;
        }

        return branch.SeriesOhms > 0 && admittance != Complex.Zero ? 1 / (1 / admittance + branch.SeriesOhms) : admittance;
    }

    /// <summary>Branches stand in the order of the devices and their elements.</summary>
    internal int BranchIndex(int device, int element) => _firstBranch[device] + element;

    /// <summary>Pairs of nodes that act on each other through windings, whether joined or not (a transformer's two sides).</summary>
    internal IReadOnlyList<(int A, int B)> WindingLinks => _topology.WindingLinks;

    /// <summary>Pairs of nodes that a winding joins.</summary>
    internal IReadOnlyList<(int A, int B)> WindingEnds => _windingEnds ??= [.. _topology.Joins()];

    /// <summary>Where a branch stands in the matrix.</summary>
    internal BranchPlace PlaceOf(int branch) =>
        (_places ??= SharesPlaces ? _healthy!._places! : [.. _branches.Select(b => Pattern.Place(b.A, b.B))])[branch];

    private bool SharesPlaces => _healthy is not null && Pattern == _healthy._pattern && _branches.Length == _healthy._branches.Length;

    /// <summary>Only a bridge between points that nothing else joins changes the pattern, and most solutions never need it.</summary>
    private SparsePattern Pattern =>
        _pattern ??= _branches.All(b => _healthy!._pattern!.Joins(b.A, b.B))
            ? _healthy!._pattern!
            : new SparsePattern(Size, _branches.Select(b => (b.A, b.B)).Concat(WindingLinks));

    internal int InnerNode(int device, string name) => _topology.Nodes[Circuit.Devices[device].At(name)];

    private void StampCoupled(CircuitState state, Domain domain, CoupledStamp stamp)
    {
        for (var i = 0; i < Circuit.Devices.Length; i++)
        {
            stamp.Device = i;
            Circuit.Devices[i].Kind.Stamp(Circuit.Devices[i], state.Devices[i], domain, stamp);
        }
    }

    private static Device Altered(Device device, ImmutableArray<Alteration> alterations) =>
        alterations.OfType<ParameterIs>().Where(p => p.Device == device.Tag).Aggregate(device, (d, p) => d.With(p.Parameter, p.Value));

    /// <summary>
    /// Bridges, each at every end that it may stand at: what touches inside a conductor stays with that as it is lifted off a terminal.
    /// </summary>
    private IEnumerable<NetworkBranch> Bridges(ImmutableArray<Alteration> alterations) =>
        from bridge in alterations.OfType<Bridge>()
        from one in Places(bridge.FromIn, bridge.From)
        from other in bridge.To is { } to ? Places(bridge.ToIn, to) : [(-1, [], [])]
        select new NetworkBranch(one.Node, other.Node)
        {
            SeriesOhms = bridge.Ohms,
            UnderVoltage = bridge.UnderVoltage,
            WhileLanded = [.. one.Landed, .. other.Landed],
            WhileLifted = [.. one.Lifted, .. other.Lifted],
        };

    private IEnumerable<(int Node, ConductorEnd[] Landed, ConductorEnd[] Lifted)> Places(string within, TerminalId at)
    {
        if (within.Length == 0)
        {
            yield return (_topology.Nodes[at], [], []);
            yield break;
        }

        var conductor = Circuit.Conductors.First(c => c.Id == within);
        var (near, far) = (conductor.EndAt(at), conductor.EndAt(conductor.FarFrom(at)));
        yield return (_topology.Nodes[at], [near], []);
        yield return (_topology.Nodes[far.End], [far], [near]);
    }
}
