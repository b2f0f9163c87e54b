using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>
/// Mistakes of wiring after work, as single edits of the conductors: one landed on a terminal that is easily taken for its own, or two
/// exchanged. Which terminals are easily taken for each other is common practice: the same side of the next contact, the other side of the
/// same contact, the next clamp, the same terminal of the device beside, a pole beside a coil.
/// </summary>
internal sealed class WiringFaults(Circuit circuit)
{
    /// <summary>A motor that was replaced turns the wrong way often enough to be tried uncoupled (common practice).</summary>
    private const double ExchangedLeadsWeight = 0.15;

    /// <summary>Of a mistake that is found at the first start, over a broken conductor.</summary>
    private const double LandedWeight = 0.2 * FaultCatalogue.ConductorWeight,
        UnusualWeight = 0.05 * FaultCatalogue.ConductorWeight,
        FarWeight = 0.01 * FaultCatalogue.ConductorWeight;

    private readonly ImmutableHashSet<TerminalId> _power = Cable.PowerTerminals(circuit);

    /// <summary>Those that are worth a thought on every panel.</summary>
    public IEnumerable<FaultMode> Usual() =>
        circuit
            .Conductors.Where(c => !IsPower(c))
            .SelectMany(c => Ends(c).SelectMany(end => SameSide(end.At).Select(wrong => Landed(c, end.At, end.Other, wrong, LandedWeight))))
            .Where(f => f is not null)
            .Select(f => f!)
            .Concat(ExchangedLeads());

    /// <summary>Those that are thought of when nothing else fits.</summary>
    public IEnumerable<FaultMode> Unusual() =>
        circuit
            .Conductors.Where(c => !IsPower(c) && !circuit.IsProtective(c))
            .SelectMany(c =>
                Ends(c)
                    .SelectMany(end =>
                        OtherSide(end.At)
                            .Concat(NextClamps(end.At))
                            .Concat(SameOnNextDevice(end.At))
                            .Concat(PolesBesideCoil(end.At))
                            .Distinct()
                            .Select(wrong => Landed(c, end.At, end.Other, wrong, UnusualWeight))
                    )
            )
            .Where(f => f is not null)
            .Select(f => f!)
            .Concat(ExchangedSideBySide())
            .Concat(Foreign());

    private bool IsPower(Conductor conductor) => Cable.IsPowerConductor(_power, conductor);

    private static IEnumerable<(TerminalId At, TerminalId Other)> Ends(Conductor c) => [(c.To, c.From), (c.From, c.To)];

    private FaultMode? Landed(Conductor conductor, TerminalId right, TerminalId other, TerminalId wrong, double weight) =>
        wrong == other || wrong == right || circuit.WireAt(wrong) == conductor.Wire
            ? null
            : new FaultMode(
                $"{conductor.Id}/landed-on-{wrong}",
                conductor.Id,
                $"Wire {conductor.Wire} from {other} is landed on {wrong} instead of {right}",
                [new ConductorOpen(conductor.Id), new Bridge(other, wrong, conductor.Ohms.Value)],
                weight,
                $"Land it on {right}, as the drawing shows."
            )
            {
                ProofPoints = (other, wrong),
            };

    private static List<Element> Contacts(Device device) =>
        [.. device.Kind.Elements(device).Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)];

    /// <summary>On the same side of another contact of the same device (13 for 53, 95 for 97).</summary>
    private IEnumerable<TerminalId> SameSide(TerminalId end)
    {
        var device = circuit.Device(end.Device);
        var contacts = Contacts(device);
        var right = contacts.FirstOrDefault(e => e.A == end.Name || e.B == end.Name);
        return contacts.Where(e => right is not null && e != right).Select(e => device.Terminal(right!.A == end.Name ? e.A : e.B));
    }

    /// <summary>Past the contact instead of through it: it is left out.</summary>
    private IEnumerable<TerminalId> OtherSide(TerminalId end)
    {
        var device = circuit.Device(end.Device);
        return Contacts(device).Where(e => e.A == end.Name || e.B == end.Name).Select(e => device.Terminal(e.A == end.Name ? e.B : e.A));
    }

    private IEnumerable<TerminalId> NextClamps(TerminalId end)
    {
        var device = circuit.Device(end.Device);
        if (!device.Kind.IsStrip)
        {
            return [];
        }

        var clamps = Clamps(device);
        var at = clamps.IndexOf(end);
        return new[] { at - 1, at + 1 }.Where(i => i >= 0 && i < clamps.Count).Select(i => clamps[i]);
    }

    /// <summary>As they stand on the rail: in the order of the description.</summary>
    private List<TerminalId> Clamps(Device strip) =>
        [.. circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Where(t => t.Device == strip.Tag).Distinct()];

    private IEnumerable<TerminalId> SameOnNextDevice(TerminalId end)
    {
        var device = circuit.Device(end.Device);
        return device.Kind.IsStrip ? [] : Beside(device).Where(d => d.Kind.HasTerminal(d, end.Name)).Select(d => d.Terminal(end.Name));
    }

    /// <summary>The devices of the same kind before and behind it at its place.</summary>
    private IEnumerable<Device> Beside(Device device)
    {
        var alike = circuit.Devices.Where(d => d.Kind == device.Kind && d.Location == device.Location).ToList();
        var at = alike.IndexOf(device);
        return new[] { at - 1, at + 1 }.Where(i => i >= 0 && i < alike.Count).Select(i => alike[i]);
    }

    /// <summary>A coil's terminals stand beside the poles.</summary>
    private IEnumerable<TerminalId> PolesBesideCoil(TerminalId end)
    {
        var device = circuit.Device(end.Device);
        return device.Kind.CoilOf(device)?.Element is { } coil && (coil.A == end.Name || coil.B == end.Name)
            ? device
                .Kind.Elements(device)
                .Where(e => e.Role == ElementRole.Pole)
                .Select(e => device.Terminal(coil.A == end.Name ? e.A : e.B))
            : [];
    }

    /// <summary>
    /// Two leads exchanged on a motor after work: it turns the other way; of six leads the second three exchanged make a star-delta
    /// starter trip at the change-over.
    /// </summary>
    private IEnumerable<FaultMode> ExchangedLeads()
    {
        foreach (
            var motor in circuit
                .Paths.Where(p => p.Type == PathType.Power)
                .SelectMany(p => p.Expression.Parts())
                .Where(p => p.Out.IsEmpty && p.In.Length > 1)
                .Select(p => (p.Device, p.In))
                .DistinctBy(p => (p.Device, string.Join(',', p.In)))
        )
        {
            var leads = motor
                .In.Select(t => circuit.Conductors.FirstOrDefault(c => c.To == new TerminalId(motor.Device, t)))
                .OfType<Conductor>()
                .ToList();
            foreach (var (a, b) in leads.Zip(leads.Skip(1)))
            {
                yield return Exchanged(
                    a,
                    b,
                    ExchangedLeadsWeight,
                    $"Land {a.Wire} on {a.To} and {b.Wire} on {b.To}; prove the direction uncoupled."
                );
            }
        }
    }

    /// <summary>
    /// Two wires of neighbouring terminals on each other's: along one side of a device, on a strip, on the same terminal of two devices side
    /// by side. The swap of a reversing contactor left out, or made twice, is one of them.
    /// </summary>
    private IEnumerable<FaultMode> ExchangedSideBySide()
    {
        foreach (var device in circuit.Devices.Where(d => !d.Kind.IsSupply))
        {
            var elements = device.Kind.Elements(device);
            var sides = device.Kind.IsStrip
                ? [Clamps(device)]
                : new[] { elements.Select(e => device.Terminal(e.A)).ToList(), [.. elements.Select(e => device.Terminal(e.B))] };
            var pairs = sides.SelectMany(side => side.Zip(side.Skip(1)));
            var poles = elements.Where(e => e.Role == ElementRole.Pole).ToList();
            if (poles.Count == 3)
            {
                pairs = pairs
                    .Append((device.Terminal(poles[0].A), device.Terminal(poles[2].A)))
                    .Append((device.Terminal(poles[0].B), device.Terminal(poles[2].B)));
            }

            if (!device.Kind.IsStrip)
            {
                pairs = pairs.Concat(
                    Beside(device)
                        .Take(1)
                        .SelectMany(d => elements.SelectMany(e => new[] { e.A, e.B }).Select(t => (device.Terminal(t), d.Terminal(t))))
                );
            }

            foreach (var (first, second) in pairs)
            {
                if (
                    circuit.WireAt(first) != circuit.WireAt(second)
                    && Ending(first) is { } a
                    && Ending(second) is { } b
                    && a.Id != b.Id
                    && !circuit.IsProtective(a)
                    && !circuit.IsProtective(b)
                )
                {
                    yield return Exchanged(a, b, UnusualWeight, $"Land {a.Wire} on {a.To} and {b.Wire} on {b.To}, as the drawing shows.");
                }
            }
        }
    }

    /// <summary>
    /// One control wire exchanged with any other that ends in the same enclosure.
    /// </summary>
    public IEnumerable<FaultMode> ExchangedWithAny(Conductor conductor) =>
        from a in BothWays(conductor)
        from other in circuit.Conductors
        where IsControl(conductor) && IsControl(other) && other.Wire != conductor.Wire
        from b in BothWays(other)
        where a.To != b.To && circuit.LocationOf(a.To) == circuit.LocationOf(b.To)
        select Exchanged(a, b, FarWeight, $"Land {a.Wire} on {a.To} and {b.Wire} on {b.To}, as the drawing shows.") with
        {
            Id = $"{a.Id}{ExchangedWith}{a.To}-with-{b.Id}-on-{b.To}",
        };

    /// <summary>The same for the two modes that have two wires exchanged on the same two terminals, seen from either.</summary>
    public static string Exchange(FaultMode mode) =>
        string.Join(
            ' ',
            mode.Alterations.Select(a =>
                    a switch
                    {
                        ConductorOpen open => open.Conductor,
                        Bridge bridge => string.Join('~', new[] { bridge.From.ToString(), $"{bridge.To}" }.Order(StringComparer.Ordinal)),
                        _ => $"{a}",
                    }
                )
                .Order(StringComparer.Ordinal)
        );

    /// <summary>What stands between the conductor and the rest in the id of such a mode.</summary>
    public const string ExchangedWith = "/exchanged-on-";

    private static IEnumerable<Conductor> BothWays(Conductor c) => [c, c with { From = c.To, To = c.From }];

    private bool IsControl(Conductor conductor) => !IsPower(conductor) && !circuit.IsProtective(conductor);

    /// <summary>The conductor that ends at a terminal, seen from its other end; of a clamp the one that comes from the field.</summary>
    private Conductor? Ending(TerminalId at) =>
        circuit
            .Conductors.Where(c => c.From == at || c.To == at)
            .OrderBy(c => circuit.LocationOf(c.From) == circuit.LocationOf(c.To))
            .Select(c => c.To == at ? c : c with { From = c.To, To = c.From })
            .FirstOrDefault();

    private static FaultMode Exchanged(Conductor a, Conductor b, double weight, Wording remedy) =>
        new(
            $"{a.Id}/exchanged-{b.Id}",
            a.Id,
            $"Wires {a.Wire} and {b.Wire} are exchanged on {a.To} and {b.To}",
            Miswiring.Exchanged(a, b),
            weight,
            remedy
        )
        {
            ProofPoints = (a.From, b.To),
        };

    /// <summary>A core of a control cable that another circuit feeds: it stays live when the panel is isolated.</summary>
    private IEnumerable<FaultMode> Foreign() =>
        Cable
            .Of(circuit)
            .Where(c => !c.IsPower)
            .SelectMany(cable =>
                cable
                    .Cores.Where(c => !circuit.IsProtective(c))
                    .Select(core => new FaultMode(
                        $"{core.Id}/foreign",
                        core.Id,
                        $"Wire {core.Wire} to {cable.Far.Name} gets a voltage from another circuit: it stays live when this one is isolated",
                        [new Bridge(cable.NearEnd(circuit, core), circuit.Supply.Terminal("L1"), 200)],
                        UnusualWeight,
                        "Find what feeds it and isolate that too; take the two apart."
                    )
                    {
                        SizeFactor = 4,
                        ProofPoints = (cable.NearEnd(circuit, core), circuit.Earth),
                    })
            );
}
