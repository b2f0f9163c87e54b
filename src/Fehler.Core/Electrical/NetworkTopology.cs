using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Electrical;

/// <summary>
/// What a circuit's network consists of: numbered nodes, branches between them, windings that couple them, stray capacitance.
/// </summary>
internal sealed class NetworkTopology
{
    /// <summary>Capacitance of a wire to everything around it, F per metre (0.2 uF per km; common practice 0.1 to 0.3).</summary>
    private const double FaradsPerMetre = 0.2e-9;

    /// <summary>Share of it that a core of a cable has to the other cores; the rest is to earth.</summary>
    private const double BetweenCores = 0.5;

    private const double StrayFarads = 10e-12;

    private readonly Circuit _circuit;
    private readonly ImmutableArray<Cable> _cables;

    public NetworkTopology(Circuit circuit)
    {
        _circuit = circuit;
        _cables = Cable.Of(circuit);
        Elements = [.. circuit.Devices.Select(d => d.Kind.Elements(d))];
        Nodes = NumberNodes();
        WindingLinks = [.. CoupledLinks()];
        Branches = [.. HealthyBranches()];
        Farads = NodeCapacitance();
    }

    public ImmutableArray<ImmutableArray<Element>> Elements { get; }

    /// <summary>Node of each terminal and inner point; earth is -1.</summary>
    public Dictionary<TerminalId, int> Nodes { get; }

    /// <summary>
    /// Of the healthy circuit, in the order of the devices and their elements, then the conductors, then what couples the cores of cables.
    /// </summary>
    public ImmutableArray<NetworkBranch> Branches { get; }

    /// <summary>Pairs of nodes that act on each other through windings, whether joined or not (a transformer's two sides).</summary>
    public IReadOnlyList<(int A, int B)> WindingLinks { get; }

    /// <summary>Capacitance of each node to earth, F.</summary>
    public double[] Farads { get; }

    /// <summary>Pairs of nodes that a winding joins.</summary>
    public IEnumerable<(int A, int B)> Joins() =>
        _circuit.Devices.SelectMany(
            (d, i) =>
            {
                var names = new PatternStamp();
                d.Kind.Stamp(d, default, Domain.Ac, names);
                return names.Pairs.Select(p => (InnerNode(i, p.From), InnerNode(i, p.To)));
            }
        );

    private int InnerNode(int device, string name) => Nodes[_circuit.Devices[device].At(name)];

    private Dictionary<TerminalId, int> NumberNodes()
    {
        var supply = _circuit.Devices.FirstOrDefault(d => d.Kind.IsSupply);
        var nodes = new Dictionary<TerminalId, int>();
        var next = 0;
        foreach (var terminal in AllTerminals())
        {
            if (!nodes.ContainsKey(terminal))
            {
                // The supply's PE is earth itself.
                nodes[terminal] = terminal.Device == supply?.Tag && terminal.Name == "PE" ? -1 : next++;
            }
        }

        return nodes;
    }

    private IEnumerable<TerminalId> AllTerminals() =>
        _circuit
            .Devices.SelectMany(
                (d, i) =>
                    d
                        .Kind.Terminals(d)
                        .Concat(Elements[i].SelectMany(e => new[] { e.A, e.B }))
                        .Concat(InnerNames(i).Select(d.Printed))
                        .Select(d.Terminal)
            )
            .Concat(_circuit.Conductors.SelectMany(c => new[] { c.From, c.To }));

    private HashSet<string> InnerNames(int device)
    {
        var names = new PatternStamp();
        _circuit.Devices[device].Kind.Stamp(_circuit.Devices[device], default, Domain.Ac, names);
        return names.Names;
    }

    private IEnumerable<(int, int)> CoupledLinks()
    {
        for (var i = 0; i < _circuit.Devices.Length; i++)
        {
            var nodes = InnerNames(i).Select(n => InnerNode(i, n)).Distinct().ToList();
            foreach (var a in nodes)
            {
                foreach (var b in nodes)
                {
                    yield return (a, b);
                }
            }
        }
    }

    private IEnumerable<NetworkBranch> HealthyBranches() =>
        [
            .. _circuit.Devices.SelectMany(
                (d, i) =>
                    Elements[i]
                        .Select(
                            (e, k) =>
                                new NetworkBranch(Nodes[d.Terminal(e.A)], Nodes[d.Terminal(e.B)])
                                {
                                    Device = i,
                                    ElementIndex = k,
                                    Element = e,
                                }
                        )
            ),
            .. _circuit.Conductors.Select(c => new NetworkBranch(Nodes[c.From], Nodes[c.To]) { Conductor = c }),
            .. _cables.SelectMany(Coupling),
        ];

    /// <summary>Half of what two neighbours couple at each end of the cable.</summary>
    private IEnumerable<NetworkBranch> Coupling(Cable cable)
    {
        // In a ring every core has two neighbours, of two cores each has one.
        var share = BetweenCores / Math.Min(2, cable.Cores.Length - 1);
        foreach (var (a, b) in cable.Neighbours)
        {
            var farads = FaradsPerMetre * share * Math.Min(a.Metres, b.Metres) / 2;
            foreach (
                var (from, to) in new[]
                {
                    (cable.NearEnd(_circuit, a), cable.NearEnd(_circuit, b)),
                    (cable.FarEnd(_circuit, a), cable.FarEnd(_circuit, b)),
                }
            )
            {
                if (Nodes[from] != Nodes[to])
                {
                    yield return new NetworkBranch(Nodes[from], Nodes[to]) { Farads = farads };
                }
            }
        }
    }

    private double[] NodeCapacitance()
    {
        var farads = new double[Nodes.Values.Max() + 1];
        Array.Fill(farads, StrayFarads);
        var cores = _cables.Where(c => c.Cores.Length > 1).SelectMany(c => c.Cores).Select(c => c.Id).ToHashSet();
        foreach (var conductor in _circuit.Conductors)
        {
            var toEarth = cores.Contains(conductor.Id) ? 1 - BetweenCores : 1;
            foreach (var node in new[] { Nodes[conductor.From], Nodes[conductor.To] }.Where(n => n >= 0))
            {
                farads[node] += FaradsPerMetre * toEarth * conductor.Metres / 2;
            }
        }

        return farads;
    }
}
