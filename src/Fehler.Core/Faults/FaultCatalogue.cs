using System.Collections;
using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>Every fault mode of every device and conductor of a circuit, with its weight.</summary>
public sealed class FaultCatalogue : IReadOnlyList<FaultMode>
{
    /// <summary>Field devices, terminals and cables fail more often than what sits in a panel (common practice).</summary>
    private const double FieldWeight = 2;

    /// <summary>A single conductor seldom fails; there are many of them.</summary>
    private const double ConductorWeight = 0.12;

    /// <summary>A motor that was replaced turns the wrong way often enough to be tried uncoupled (common practice).</summary>
    private const double ExchangedWeight = 0.15;

    private readonly ImmutableArray<FaultMode> _modes;

    private FaultCatalogue(Circuit circuit)
    {
        var devices = circuit.Devices.SelectMany(d => Weighted(circuit.Location(d.Location), d.Kind.FaultModes(d)));
        var conductors = circuit.Conductors.SelectMany(c => Weighted(Farther(circuit, c), OfConductor(circuit, c)));
        _modes =
        [
            .. devices,
            .. conductors,
            .. Pairs(circuit),
            .. circuit.Conductors.SelectMany(c => LandedWrong(circuit, c)),
            .. ExchangedLeads(circuit),
        ];
        Protective =
        [
            .. circuit.Devices.Where(d =>
                d.Kind.FaultModes(d).Any(f => f.AskWhy is not null && f.Alterations.Any(a => a is FoundInPosition))
            ),
        ];
    }

    public static FaultCatalogue Of(Circuit circuit) => new(circuit);

    /// <summary>Devices that trip or blow because of something else, so that they may have to be put right with it.</summary>
    public ImmutableArray<Device> Protective { get; }

    public int Count => _modes.Length;

    public FaultMode this[int index] => _modes[index];

    /// <summary>The mode of this id, its first variant unless one is named; null when there is none.</summary>
    public FaultMode? Find(string id, string? variant = null) =>
        _modes.FirstOrDefault(f => f.Id == id && (variant is null || f.Variant == variant));

    public IEnumerator<FaultMode> GetEnumerator() => ((IEnumerable<FaultMode>)_modes).GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private static IEnumerable<FaultMode> Weighted(Location place, IEnumerable<FaultMode> modes) =>
        place.Type == LocationType.FieldStation ? modes.Select(m => m with { Weight = m.Weight * FieldWeight }) : modes;

    private static IEnumerable<FaultMode> OfConductor(Circuit circuit, Conductor conductor)
    {
        var power = IsPower(circuit, conductor);
        var name = $"Wire {conductor.Wire} from {conductor.From} to {conductor.To}";
        yield return new FaultMode(
            $"{conductor.Id}/open",
            conductor.Id,
            $"{name} is open (broken, off its terminal, or left lifted)",
            [new ConductorOpen(conductor.Id)],
            ConductorWeight,
            "Land it and tighten, or replace the conductor."
        )
        {
            ProofPoints = (conductor.From, conductor.To),
        };
        if (conductor.Wire == "PE")
        {
            yield break;
        }

        foreach (
            var mode in Common.HighResistance(
                conductor,
                $"{name} has a loose or corroded terminal",
                2 * ConductorWeight,
                $"Clean and tighten both terminals; replace the {Term.EndSleeve}.",
                power
            )
        )
        {
            yield return mode;
        }

        if (Farther(circuit, conductor).Type != LocationType.Enclosure)
        {
            foreach (
                var mode in Common.Bridged(
                    $"{conductor.Id}/earth",
                    conductor.Id,
                    $"{name} has {Term.EarthFault.WithArticle}",
                    Near(circuit, conductor),
                    null,
                    circuit.Earth,
                    0.5 * ConductorWeight,
                    "Lift both ends to tell the cable from what it goes to; find where it touches; replace the conductor or cable."
                )
            )
            {
                yield return mode;
            }
        }
    }

    /// <summary>
    /// A control wire on the wrong terminal after work: on the same side of another contact of the same device, the one that
    /// is easily taken for it (13 for 53, 95 for 97).
    /// </summary>
    private static IEnumerable<FaultMode> LandedWrong(Circuit circuit, Conductor conductor)
    {
        if (IsPower(circuit, conductor))
        {
            yield break;
        }

        foreach (var (end, other) in new[] { (conductor.To, conductor.From), (conductor.From, conductor.To) })
        {
            var device = circuit.Device(end.Device);
            var contacts = device
                .Kind.Elements(device)
                .Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)
                .ToList();
            var right = contacts.FirstOrDefault(e => e.A == end.Name || e.B == end.Name);
            foreach (
                var wrong in contacts
                    .Where(e => right is not null && e != right)
                    .Select(e => device.Terminal(right!.A == end.Name ? e.A : e.B))
                    .Where(t => t != other)
            )
            {
                yield return new FaultMode(
                    $"{conductor.Id}/landed-on-{wrong}",
                    conductor.Id,
                    $"Wire {conductor.Wire} from {other} is landed on {wrong} instead of {end}",
                    [new ConductorOpen(conductor.Id), new Bridge(other, wrong, conductor.Ohms.Value)],
                    0.2 * ConductorWeight,
                    $"Land it on {end}, as the drawing shows."
                )
                {
                    ProofPoints = (other, wrong),
                };
            }
        }
    }

    /// <summary>
    /// Two leads exchanged on a motor after work: it turns the other way; of six leads the second three exchanged make a star-delta
    /// starter trip at the change-over.
    /// </summary>
    private static IEnumerable<FaultMode> ExchangedLeads(Circuit circuit)
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
                yield return new FaultMode(
                    $"{a.Id}/exchanged-{b.Id}",
                    a.Id,
                    $"Wires {a.Wire} and {b.Wire} are exchanged on {a.To} and {b.To}",
                    [
                        new ConductorOpen(a.Id),
                        new ConductorOpen(b.Id),
                        new Bridge(a.From, b.To, a.Ohms.Value),
                        new Bridge(b.From, a.To, b.Ohms.Value),
                    ],
                    ExchangedWeight,
                    $"Land {a.Wire} on {a.To} and {b.Wire} on {b.To}; prove the direction uncoupled."
                )
                {
                    ProofPoints = (a.From, b.To),
                };
            }
        }
    }

    /// <summary>Shorts between neighbouring cores of the cables to the field.</summary>
    private static IEnumerable<FaultMode> Pairs(Circuit circuit)
    {
        var cables = circuit
            .Conductors.Where(c =>
                c.Wire != "PE"
                && Farther(circuit, c).Type != LocationType.Enclosure
                && circuit.LocationOf(c.From) != circuit.LocationOf(c.To)
            )
            .GroupBy(c => (Farther(circuit, c).Id, IsPower(circuit, c)));
        foreach (var cable in cables)
        {
            foreach (var (a, b) in cable.Zip(cable.Skip(1)))
            {
                foreach (
                    var mode in Common.Bridged(
                        $"{a.Id}/short-{b.Id}",
                        a.Id,
                        $"Wires {a.Wire} and {b.Wire} in the cable to {circuit.LocationOf(a.To).Name} are shorted",
                        Near(circuit, a),
                        Near(circuit, b),
                        Near(circuit, b),
                        FieldWeight * 0.4 * ConductorWeight,
                        "Lift both ends to tell the cable from what it goes to; find where the cores touch; replace the cable."
                    )
                )
                {
                    yield return mode;
                }
            }
        }
    }

    internal static bool IsPower(Circuit circuit, Conductor conductor) =>
        circuit
            .Paths.Where(p => p.Type == PathType.Power)
            .SelectMany(p => p.Expression.Parts())
            .Any(p => p.In.Concat(p.Out).Any(t => new TerminalId(p.Device, t) is var id && (id == conductor.From || id == conductor.To)));

    /// <summary>The end towards the panel: a fault of the cable stays with the cable when its far end is lifted.</summary>
    private static TerminalId Near(Circuit circuit, Conductor conductor) =>
        circuit.LocationOf(conductor.To).Type == LocationType.Enclosure ? conductor.To : conductor.From;

    private static Location Farther(Circuit circuit, Conductor conductor)
    {
        var (from, to) = (circuit.LocationOf(conductor.From), circuit.LocationOf(conductor.To));
        return from.Type == LocationType.Enclosure ? to : from;
    }
}
