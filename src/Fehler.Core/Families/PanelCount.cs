using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Families;

/// <summary>A sort of thing that can be counted in a panel without knowing its circuit.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Group">Where one looks for it.</param>
/// <param name="Name">What it is called, several of it.</param>
/// <param name="Most">More are not counted.</param>
public sealed record PanelSort(string Id, string Group, string Name, int Most)
{
    /// <summary>How many of them a circuit has.</summary>
    internal Func<Circuit, int> In { get; init; } = _ => 0;

    /// <summary>All of them, in the order in which one looks.</summary>
    public static ImmutableArray<PanelSort> All { get; } =
    [
        Of("contactors", "In the panel", "contactors", 9, "contactor"),
        Of("relays", "In the panel", "control relays", 4, "control-relay"),
        Of("timers", "In the panel", "timers", 4, "timer-relay"),
        Of("impulseRelays", "In the panel", "impulse relays", 2, "impulse-relay"),
        Of("overloads", "In the panel", "overload relays", 6, "overload-relay"),
        Of("breakers", "In the panel", "circuit-breakers", 6, "circuit-breaker"),
        Of("motorBreakers", "In the panel", "motor-protective breakers", 6, "motor-breaker"),
        Of("transformers", "In the panel", "control transformers", 2, "control-transformer"),
        Of("dcSupplies", "In the panel", "DC supplies", 2, "dc-supply"),
        Of("monitors", "In the panel", "monitoring relays", 2, "voltage-monitor"),
        Of("controllers", "In the panel", "programmable controllers", 1, "controller"),
        Of("lamps", "On the door and at the stations", "lamps", 12, "pilot-lamp"),
        Of("starts", "On the door and at the stations", "buttons that start", 14, d => IsButton(d) && Makes(d)),
        Of("stops", "On the door and at the stations", "Stop buttons", 14, d => IsButton(d) && !Makes(d)),
        Of("emergencyStops", "On the door and at the stations", "emergency stops", 6, "emergency-stop"),
        Of("selectors", "On the door and at the stations", "selector switches", 4, "selector-switch"),
        new("stations", "On the door and at the stations", "places with buttons", 12)
        {
            In = c => c.Devices.Where(IsButton).Select(d => d.Location).Distinct().Count(),
        },
        Of("switches", "At the machine", "limit and process switches", 12, "process-switch"),
        Of("motors", "At the machine", "motors", 4, "motor", "single-phase-motor"),
        Of("brakes", "At the machine", "brakes", 4, "brake"),
        Of("capacitors", "At the machine", "capacitors", 2, "capacitor"),
        Of("drums", "At the machine", "drum switches", 1, "drum-switch"),
    ];

    private static PanelSort Of(string id, string group, string name, int most, params string[] kinds) =>
        Of(id, group, name, most, d => kinds.Contains(d.Kind.Id));

    private static PanelSort Of(string id, string group, string name, int most, Func<Device, bool> isOne) =>
        new(id, group, name, most) { In = c => c.Devices.Count(isOne) };

    private static bool IsButton(Device device) => device.Kind.Id == "push-button";

    private static bool Makes(Device device) => device.Kind.Elements(device).Any(e => e.Role == ElementRole.NormallyOpen);
}

/// <summary>What was counted in a panel and read on a coil.</summary>
/// <param name="Counts">How many of each <see cref="PanelSort"/>, by its id; what nobody counted is absent.</param>
/// <param name="CoilVolts">Voltage on the label of a contactor's coil; 0 when nobody read it.</param>
public sealed record PanelCount(ImmutableSortedDictionary<string, int> Counts, double CoilVolts)
{
    /// <exception cref="RefusedException">It is not a count.</exception>
    public void Check()
    {
        foreach (var (id, count) in Counts)
        {
            var sort =
                PanelSort.All.FirstOrDefault(s => s.Id == id)
                ?? throw new RefusedException($"'{id[..Math.Min(40, id.Length)]}' is nothing that is counted in a panel.");
            if (count < 0 || count > sort.Most)
            {
                throw new RefusedException($"Count 0 to {sort.Most} {sort.Name}.");
            }
        }

        if (CoilVolts != 0 && !(CoilVolts is >= 12 and <= 690))
        {
            throw new RefusedException("A coil's label says 12 to 690 V.");
        }
    }

    /// <summary>What a circuit has otherwise than it was counted.</summary>
    internal ImmutableArray<PanelDifference> Differences(PanelTally tally) =>
        [
            .. PanelSort
                .All.Zip(tally.Counts, (sort, drawn) => (Sort: sort, Drawn: drawn))
                .Where(x => Counts.TryGetValue(x.Sort.Id, out var counted) && counted != x.Drawn)
                .Select(x => new PanelDifference(x.Sort, x.Drawn, Counts[x.Sort.Id])),
        ];

    /// <summary>Whether a circuit's contactors have the coil that was read, to the spread of nominal voltages (230 and 240 are one).</summary>
    internal bool HasCoil(PanelTally tally) => CoilVolts == 0 || tally.Coils.All(v => Math.Abs(v - CoilVolts) <= 0.1 * CoilVolts);
}

/// <summary>What would be counted in a circuit.</summary>
/// <param name="Counts">How many of each <see cref="PanelSort"/>, in the order of <see cref="PanelSort.All"/>.</param>
/// <param name="Coils">Voltages on the labels of its contactors and impulse relays.</param>
internal sealed record PanelTally(ImmutableArray<int> Counts, ImmutableArray<double> Coils)
{
    public static PanelTally Of(Circuit circuit) =>
        new(
            [.. PanelSort.All.Select(s => s.In(circuit))],
            [.. circuit.Devices.Where(d => d.Kind.Id is "contactor" or "impulse-relay").Select(d => d.Given("coilVolts").Number!.Value)]
        );
}

/// <summary>A sort of thing of which a drawing has another number than was counted.</summary>
internal readonly record struct PanelDifference(PanelSort Sort, int Drawn, int Counted)
{
    public override string ToString() => $"{Sort.Name}: {Drawn} drawn, {Counted} counted";
}
