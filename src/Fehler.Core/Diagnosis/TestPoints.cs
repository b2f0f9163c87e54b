using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>The pairs of points worth putting leads on, derived from the circuit once.</summary>
internal sealed class TestPoints
{
    private readonly Circuit _circuit;
    private readonly ConcurrentDictionary<string, ImmutableArray<(TerminalId From, TerminalId To)>> _around = new();

    public TestPoints(CompiledCircuit compiled)
    {
        var circuit = _circuit = compiled.Circuit;
        Live = compiled.Isolation.LiveTerminals;
        var order = Order(circuit);
        var proofs = compiled.Faults.Where(f => f.ProofPoints is not null).Select(f => f.ProofPoints!.Value).ToList();
        var volts = VoltPairs(compiled, order)
            .Concat(proofs)
            .Distinct()
            .ToLookup(p => compiled.IsDirect(p.Item1) && compiled.IsDirect(p.Item2));
        Volts = [.. volts[false]];
        DcVolts = [.. volts[true]];
        Amps = [.. Leads(circuit).Select(t => (t, t))];
        Ohms = [.. OhmPairs(compiled, order).Concat(proofs).Distinct().Where(p => !Live.Contains(p.Item1) && !Live.Contains(p.Item2))];
        Insulation = [.. Windings(circuit).Where(p => !Live.Contains(p.Item1))];
        Position = order;
        OfTheOnlyMotor = circuit.Devices.Count(d => d.Kind.PlateOf(d) is not null) == 1 ? Cable.PowerTerminals(circuit) : [];
    }

    /// <summary>Terminals that the current of the only motor passes; none where there are several.</summary>
    public ImmutableHashSet<TerminalId> OfTheOnlyMotor { get; }

    /// <summary>Terminals that stay live above the isolator.</summary>
    public ImmutableHashSet<TerminalId> Live { get; }

    public ImmutableArray<(TerminalId From, TerminalId To)> Volts { get; }
    public ImmutableArray<(TerminalId From, TerminalId To)> DcVolts { get; }
    public ImmutableArray<(TerminalId From, TerminalId To)> Ohms { get; }

    /// <summary>Leads that a clamp goes around in the panel: where a load's power leaves it.</summary>
    public ImmutableArray<(TerminalId From, TerminalId To)> Amps { get; }

    /// <summary>Where an insulation tester goes: each end of a power path to its own protective conductor.</summary>
    public ImmutableArray<(TerminalId From, TerminalId To)> Insulation { get; }

    /// <summary>How far down from the supply a terminal stands.</summary>
    public IReadOnlyDictionary<TerminalId, int> Position { get; }

    private static IEnumerable<(TerminalId, TerminalId)> VoltPairs(CompiledCircuit compiled, IReadOnlyDictionary<TerminalId, int> order)
    {
        var circuit = compiled.Circuit;
        var power = Terminals(circuit, PathType.Power).ToHashSet();
        foreach (var terminal in order.Keys.Where(t => !power.Contains(t) && t != compiled.ReturnOf(t) && t.Name != "PE"))
        {
            yield return (terminal, compiled.ReturnOf(terminal));
        }

        foreach (var pair in Elements(circuit).Concat(circuit.Conductors.Where(c => !circuit.IsProtective(c)).Select(c => (c.From, c.To))))
        {
            yield return pair;
        }

        foreach (var part in circuit.Paths.Where(p => p.Type == PathType.Power).SelectMany(p => p.Expression.Parts()))
        {
            foreach (var side in new[] { part.In, part.Out }.Where(s => s.Length > 1))
            {
                for (var i = 0; i < side.Length; i++)
                {
                    yield return (new TerminalId(part.Device, side[i]), new TerminalId(part.Device, side[(i + 1) % side.Length]));
                    if (circuit.Reference.Name == "N")
                    {
                        yield return (new TerminalId(part.Device, side[i]), circuit.Reference);
                    }
                }
            }
        }

        foreach (var path in circuit.Paths.Where(p => p.Type == PathType.Power && p.From.Length > 1))
        {
            for (var i = 0; i < path.From.Length; i++)
            {
                yield return (path.From[i], path.From[(i + 1) % path.From.Length]);
                if (circuit.Supply.Kind.HasTerminal(circuit.Supply, "N"))
                {
                    yield return (path.From[i], circuit.Supply.Terminal("N"));
                }
            }
        }
    }

    private static IEnumerable<(TerminalId, TerminalId)> OhmPairs(CompiledCircuit compiled, IReadOnlyDictionary<TerminalId, int> order)
    {
        var circuit = compiled.Circuit;
        foreach (var pair in Elements(circuit).Concat(circuit.Conductors.Select(c => (c.From, c.To))))
        {
            yield return pair;
        }

        var earth = circuit.Earth;
        foreach (var part in circuit.Paths.Where(p => p.Type == PathType.Power).SelectMany(p => p.Expression.Parts()))
        {
            var end = part.Out.IsEmpty ? part.In : part.Out;
            for (var i = 0; i < end.Length && end.Length > 1; i++)
            {
                yield return (new TerminalId(part.Device, end[i]), new TerminalId(part.Device, end[(i + 1) % end.Length]));
                yield return (new TerminalId(part.Device, end[i]), earth);
            }
        }

        var power = Terminals(circuit, PathType.Power).ToHashSet();
        var head = circuit.Paths.Where(p => p.Type == PathType.Control).Select(p => p.From[0]).FirstOrDefault();
        foreach (var terminal in order.Keys.Where(t => !power.Contains(t) && t.Name != "PE"))
        {
            if (terminal != compiled.ReturnOf(terminal))
            {
                yield return (terminal, compiled.ReturnOf(terminal));
            }

            if (head != default && terminal != head)
            {
                yield return (head, terminal);
            }
        }
    }

    /// <summary>With wires lifted: between the terminals they came off, between their other ends, and from each to earth.</summary>
    public ImmutableArray<(TerminalId From, TerminalId To)> Around(IReadOnlyCollection<(Conductor Conductor, TerminalId End)> lifts) =>
        _around.GetOrAdd(
            string.Join('|', lifts.Select(l => l.Conductor.EndAt(l.End))),
            _ =>
            {
                TerminalId[][] sides =
                [
                    [.. lifts.Select(l => l.End).Distinct()],
                    [.. lifts.Select(l => l.Conductor.FarFrom(l.End)).Distinct()],
                ];
                return
                [
                    .. sides
                        .SelectMany(side =>
                            side.SelectMany((a, i) => side.Skip(i + 1).Select(b => (a, b)).Append((a, EarthAt(_circuit, a))))
                        )
                        .Where(p => p.Item1 != p.Item2 && !Live.Contains(p.Item1) && !Live.Contains(p.Item2)),
                ];
            }
        );

    /// <summary>The frame that a device stands in, where it has a terminal for it, is nearer than the panel's earth.</summary>
    private static TerminalId EarthAt(Circuit circuit, TerminalId terminal) =>
        circuit.Device(terminal.Device) is var device && !device.Kind.IsStrip && device.Kind.HasTerminal(device, "PE")
            ? device.Terminal("PE")
            : circuit.Earth;

    /// <summary>
    /// Before a load that a path ends at, passes through on its way (a motor with both ends of its windings brought out, a single-phase one), or
    /// leads to (the second feeder of a delta).
    /// </summary>
    private static IEnumerable<TerminalId> Leads(Circuit circuit)
    {
        foreach (var path in circuit.Paths.Where(p => p.Type == PathType.Power))
        {
            Part? last = null;
            foreach (var part in path.Expression.Parts())
            {
                if (part.Out.IsEmpty || IsLoad(part.Device, part.In))
                {
                    foreach (var lead in LeadsFrom(last))
                    {
                        yield return lead;
                    }
                }

                last =
                    circuit.Location(circuit.Device(part.Device).Location).Type == LocationType.Enclosure && !part.Out.IsEmpty
                        ? part
                        : last;
            }

            if (path.To.Any(t => IsLoad(t.Device, [t.Name])))
            {
                foreach (var lead in LeadsFrom(last))
                {
                    yield return lead;
                }
            }
        }

        bool IsLoad(string tag, ImmutableArray<string> at) =>
            circuit.Device(tag) is var device
            && (
                device.Kind.PlateOf(device) is not null
                || device.Kind.Elements(device).Any(e => e.Role == ElementRole.Load && (at.Contains(e.A) || at.Contains(e.B)))
            );
        static IEnumerable<TerminalId> LeadsFrom(Part? part) =>
            part is null ? [] : part.Out.Where(name => name != "PE").Select(name => new TerminalId(part.Device, name));
    }

    private static IEnumerable<(TerminalId, TerminalId)> Windings(Circuit circuit) =>
        circuit
            .Paths.Where(p => p.Type == PathType.Power)
            .SelectMany(p => p.Expression.Parts())
            .Where(p => p.Out.IsEmpty)
            .Select(p => circuit.Device(p.Device))
            .Distinct()
            .SelectMany(d => d.Kind.Terminals(d).Where(t => t != "PE").Select(t => (d.Terminal(t), EarthAt(circuit, d.Terminal(t)))));

    private static IEnumerable<(TerminalId, TerminalId)> Elements(Circuit circuit) =>
        circuit
            .Devices.SelectMany(d =>
                d.Kind.Elements(d)
                    .Where(e => e.Role != ElementRole.Source && e.A[0] != '~' && e.B[0] != '~')
                    .Select(e => (d.Terminal(e.A), d.Terminal(e.B)))
            )
            .Where(p =>
                circuit.Conductors.Any(c => c.From == p.Item1 || c.To == p.Item1)
                && circuit.Conductors.Any(c => c.From == p.Item2 || c.To == p.Item2)
            );

    private static IEnumerable<TerminalId> Terminals(Circuit circuit, PathType type) =>
        circuit
            .Paths.Where(p => p.Type == type)
            .SelectMany(p => p.Expression.Parts())
            .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t)));

    /// <summary>Terminals in the order power reaches them: reading order of the paths, strip clamps with their wire.</summary>
    private static Dictionary<TerminalId, int> Order(Circuit circuit)
    {
        var order = new Dictionary<TerminalId, int>();
        void Add(TerminalId t)
        {
            if (order.TryAdd(t, order.Count))
            {
                foreach (var c in circuit.Conductors.Where(c => c.From == t || c.To == t))
                {
                    var other = c.FarFrom(t);
                    if (circuit.Device(other.Device).Kind.IsStrip)
                    {
                        order.TryAdd(other, order.Count);
                    }
                }
            }
        }

        foreach (var path in circuit.Paths.OrderBy(p => p.Type))
        {
            foreach (var terminal in path.From)
            {
                Add(terminal);
            }

            foreach (var part in path.Expression.Parts())
            {
                foreach (var name in part.In.Concat(part.Out))
                {
                    Add(new TerminalId(part.Device, name));
                }
            }

            foreach (var terminal in path.To)
            {
                Add(terminal);
            }
        }

        return order;
    }
}
