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
    internal const double ConductorWeight = 0.12;

    private readonly Circuit _circuit;
    private readonly WiringFaults _wiring;
    private readonly ImmutableArray<FaultMode> _modes;
    private readonly Lazy<ImmutableArray<FaultMode>> _exchanged;

    private FaultCatalogue(Circuit circuit)
    {
        (_circuit, _wiring) = (circuit, new WiringFaults(circuit));
        _exchanged = new(() => [.. circuit.Conductors.SelectMany(_wiring.ExchangedWithAny).DistinctBy(WiringFaults.Exchange)]);
        var devices = circuit
            .Devices.SelectMany(d => Weighted(circuit.Location(d.Location), d.Kind.FaultModes(d)))
            .Where(m => !IsUnwired(circuit, m));
        var conductors = circuit.Conductors.SelectMany(c => Weighted(Farther(circuit, c), OfConductor(circuit, c)));
        _modes = [.. devices, .. conductors, .. Pairs(circuit), .. InThePanel(circuit), .. _wiring.Usual()];
        Differences = [.. _wiring.Unusual().DistinctBy(f => f.Id).ExceptBy(_modes.Select(m => m.Id), f => f.Id)];
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

    /// <summary>
    /// Wirings that differ from the drawing in one mistake, of which there are as many as faults and which are rare without work on the
    /// panel: thought of when nothing in the catalogue fits.
    /// </summary>
    public ImmutableArray<FaultMode> Differences { get; }

    public int Count => _modes.Length;

    public FaultMode this[int index] => _modes[index];

    /// <summary>The mode of this id, its first variant unless one is named; null when there is none.</summary>
    public FaultMode? Find(string id, string? variant = null) =>
        _modes.Concat(Differences).FirstOrDefault(f => f.Id == id && (variant is null || f.Variant == variant))
        ?? (
            id.IndexOf(WiringFaults.ExchangedWith, StringComparison.Ordinal) is var end and > 0
                ? ExchangedWithAny(id[..end]).FirstOrDefault(f => f.Id == id)
                : null
        );

    /// <summary>
    /// A control wire exchanged with any other that ends in the same enclosure; none for what is no control wire. They are no part of
    /// <see cref="Differences"/>.
    /// </summary>
    /// <param name="conductor">Id of the wire.</param>
    public IEnumerable<FaultMode> ExchangedWithAny(string conductor) =>
        _circuit.Conductors.FirstOrDefault(c => c.Id == conductor) is { } wire ? _wiring.ExchangedWithAny(wire) : [];

    /// <summary>
    /// Any two control wires that end in the same enclosure exchanged there, every two once: some hundreds, of which most are refuted by the
    /// first thing that works. Thought of when nothing else fits.
    /// </summary>
    public IEnumerable<FaultMode> ExchangedWires => _exchanged.Value;

    public IEnumerator<FaultMode> GetEnumerator() => ((IEnumerable<FaultMode>)_modes).GetEnumerator();

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private static IEnumerable<FaultMode> Weighted(Location place, IEnumerable<FaultMode> modes) =>
        place.Type == LocationType.FieldStation ? modes.Select(m => m with { Weight = m.Weight * FieldWeight }) : modes;

    /// <summary>What nothing is landed on is missed by nobody.</summary>
    private static bool IsUnwired(Circuit circuit, FaultMode mode) =>
        mode.Alterations is [ElementOpen open]
        && circuit.Device(open.Device) is var device
        && device.Kind.Elements(device).First(e => e.Name == open.Element) is var element
        && new[] { element.A, element.B }.Any(t => t[0] != '~' && circuit.WireAt(device.Terminal(t)).Length == 0);

    /// <summary>
    /// A wire of the panel that touches its mounting plate or door: one unit a number, since nothing but lifting tells which of its conductors it
    /// is.
    /// </summary>
    private static IEnumerable<FaultMode> InThePanel(Circuit circuit) =>
        circuit
            .Conductors.Where(c =>
                c.Wire != circuit.WireAt(circuit.Earth)
                && c.From.Device != circuit.Supply.Tag
                && circuit.LocationOf(c.From) == circuit.LocationOf(c.To)
            )
            .Where(c => circuit.LocationOf(c.From).Type == LocationType.Enclosure)
            .GroupBy(c => c.Wire)
            .SelectMany(wire => wire.Select(c => (Conductor: c, Unit: wire.First().Id, IsAlone: wire.Count() == 1)))
            .SelectMany(x =>
                Common.Bridged(
                    x.Conductor.Id == x.Unit ? $"{x.Unit}/earth" : $"{x.Unit}/earth-{x.Conductor.Id}",
                    x.Unit,
                    x.IsAlone
                        ? InPanel(circuit, x.Conductor)
                        : $"{InPanel(circuit, x.Conductor)}, from {x.Conductor.From} to {x.Conductor.To}",
                    x.Conductor.From,
                    null,
                    circuit.Earth,
                    0.1 * ConductorWeight,
                    "Look for a crushed or chafed wire at edges, hinges and under cover plates; lift it part by part to find where it touches.",
                    x.Conductor.Id
                )
            );

    private static Wording InPanel(Circuit circuit, Conductor conductor) =>
        $"Wire {conductor.Wire} has {Term.EarthFault.WithArticle} inside {circuit.LocationOf(conductor.From).Name}";

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
        if (circuit.IsProtective(conductor))
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

        // What is earthed on purpose has no earth fault.
        if (Farther(circuit, conductor).Type != LocationType.Enclosure && conductor.Wire != circuit.WireAt(circuit.Earth))
        {
            yield return new FaultMode(
                $"{conductor.Id}/wet",
                conductor.Id,
                $"The cable with wire {conductor.Wire} is wet: its insulation breaks down under voltage",
                [new Bridge(Near(circuit, conductor), null, 2_000) { UnderVoltage = true, FromIn = conductor.Id }],
                0.15 * ConductorWeight,
                "Measure the insulation of each core with both ends off; look for water in glands and boxes; replace the cable."
            )
            {
                SizeFactor = 4,
                ProofPoints = (Near(circuit, conductor), circuit.Earth),
            };
            foreach (
                var mode in Common.Bridged(
                    $"{conductor.Id}/earth",
                    conductor.Id,
                    $"{name} has {Term.EarthFault.WithArticle}",
                    Near(circuit, conductor),
                    null,
                    circuit.Earth,
                    0.5 * ConductorWeight,
                    "Lift both ends to tell the cable from what it goes to; find where it touches; replace the conductor or cable.",
                    conductor.Id
                )
            )
            {
                yield return mode;
            }
        }
    }

    /// <summary>Shorts between neighbouring cores of the cables to the field.</summary>
    private static IEnumerable<FaultMode> Pairs(Circuit circuit)
    {
        foreach (var cable in Cable.Of(circuit))
        {
            var cores = cable.Cores.Where(c => !circuit.IsProtective(c)).ToList();
            foreach (var (a, b) in cores.Zip(cores.Skip(1)))
            {
                foreach (
                    var mode in Common.Bridged(
                        $"{a.Id}/short-{b.Id}",
                        a.Id,
                        $"Wires {a.Wire} and {b.Wire} in the cable to {cable.Far.Name} are shorted",
                        cable.NearEnd(circuit, a),
                        cable.NearEnd(circuit, b),
                        cable.NearEnd(circuit, b),
                        FieldWeight * 0.4 * ConductorWeight,
                        "Lift both ends to tell the cable from what it goes to; find where the cores touch; replace the cable.",
                        a.Id,
                        b.Id
                    )
                )
                {
                    yield return mode;
                }
            }
        }
    }

    internal static bool IsPower(Circuit circuit, Conductor conductor) => Cable.IsPowerConductor(Cable.PowerTerminals(circuit), conductor);

    /// <summary>The end towards the panel, where a fault of the cable is measured.</summary>
    private static TerminalId Near(Circuit circuit, Conductor conductor) =>
        circuit.LocationOf(conductor.To).Type == LocationType.Enclosure ? conductor.To : conductor.From;

    private static Location Farther(Circuit circuit, Conductor conductor)
    {
        var (from, to) = (circuit.LocationOf(conductor.From), circuit.LocationOf(conductor.To));
        return from.Type == LocationType.Enclosure ? to : from;
    }
}
