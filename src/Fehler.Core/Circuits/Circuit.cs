using System.Collections.Immutable;
using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>
/// One installed starter: the structure it was drawn with (paths of parts), the routes its conductors take, and
/// what is known of its devices. Everything else, drawing, network, operation, faults, reading sheet and function
/// test, is derived from this description. Immutable: an edit makes a new circuit.
/// </summary>
public sealed record Circuit
{
    /// <summary>Designation in the plant, e.g. <c>P-301</c>.</summary>
    public required string Tag { get; init; }
    public required string Title { get; init; }
    public string Area { get; init; } = "";
    public string Enclosure { get; init; } = "";
    public string Drawing { get; init; } = "";
    public string Notes { get; init; } = "";
    public required ImmutableArray<Location> Locations { get; init; }
    public required ImmutableArray<Device> Devices { get; init; }
    public required ImmutableArray<CircuitPath> Paths { get; init; }

    /// <summary>Every conductor end to end; derived from the paths where the description gives no route.</summary>
    public required ImmutableArray<Conductor> Conductors { get; init; }

    /// <summary>The terminal that readings of the control circuit are referred to by default: the control return.</summary>
    public required TerminalId Reference { get; init; }

    public Device Device(string tag) =>
        Devices.FirstOrDefault(d => d.Tag == tag) ?? throw new KeyNotFoundException($"The circuit {Tag} has no device {tag}.");

    public Device? FindDevice(string tag) => Devices.FirstOrDefault(d => d.Tag == tag);

    /// <summary>Where the plant's supply comes in; the first when there are several.</summary>
    public Device Supply => Devices.First(d => d.Kind.IsSupply);

    /// <summary>Earth, as the supply's terminal.</summary>
    public TerminalId Earth => Supply.Terminal("PE");

    /// <summary>
    /// Whether a conductor is protective earth, whatever it is numbered: its wire is the one that earth is on, and it goes from one
    /// protective point to another. A wire that earths one side of a control supply is not: it may be lifted, and missed.
    /// </summary>
    public bool IsProtective(Conductor conductor) =>
        conductor.Wire == WireAt(Earth) && IsProtective(conductor.From) && IsProtective(conductor.To);

    /// <summary>A device's terminal for the protective conductor, or a clamp of a strip or bar.</summary>
    private bool IsProtective(TerminalId terminal) => terminal.Name == "PE" || Device(terminal.Device).Kind.IsStrip;

    /// <summary>This circuit with everything that follows from it, worked out as it is asked for.</summary>
    public CompiledCircuit Compile() => new(this);

    public Location Location(string id) => Locations.First(l => l.Id == id);

    /// <summary>Where a terminal is: the place of its device.</summary>
    public Location LocationOf(TerminalId terminal) => Location(Device(terminal.Device).Location);

    /// <summary>Length of a wire between two terminals whose length nobody states, metres.</summary>
    public double MetresBetween(TerminalId from, TerminalId to) => Circuits.Location.MetresBetween(LocationOf(from), LocationOf(to));

    /// <summary>Wire numbers landed on a terminal; more than one only when the description is wrong.</summary>
    public string WireAt(TerminalId terminal) => Conductors.FirstOrDefault(c => c.From == terminal || c.To == terminal)?.Wire ?? "";

    /// <summary>Conductors that are drawn under a terminal's screw.</summary>
    public IEnumerable<Conductor> ConductorsAt(TerminalId terminal) => Conductors.Where(c => c.From == terminal || c.To == terminal);

    public bool Equals(Circuit? other) =>
        other is not null
        && Tag == other.Tag
        && Title == other.Title
        && Area == other.Area
        && Enclosure == other.Enclosure
        && Drawing == other.Drawing
        && Notes == other.Notes
        && Reference == other.Reference
        && Locations.SequenceEqual(other.Locations)
        && Devices.SequenceEqual(other.Devices)
        && Paths.SequenceEqual(other.Paths)
        && Conductors.SequenceEqual(other.Conductors);

    public override int GetHashCode() => HashCode.Combine(Tag, Devices.Length, Conductors.Length);
}
