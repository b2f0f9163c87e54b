using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Upkeep;

/// <summary>Whether a piece of upkeep is done on the dead or on the running circuit.</summary>
public enum UpkeepState
{
    /// <summary>Isolated and proved dead.</summary>
    Dead,

    /// <summary>With the supply on: it is operated or measured as it runs.</summary>
    Live,
}

/// <summary>Something that is done on a device again and again, as a kind of device asks for it.</summary>
/// <param name="Id">Stable name over all circuits: who does one for several devices ticks off one line.</param>
/// <param name="Title">What is done, as it stands in a list.</param>
/// <param name="Months">Usual time between two, months; a plant and a circuit have their own.</param>
/// <param name="Minutes">What it takes for one device, isolating not counted.</param>
/// <param name="State">On the dead or on the running circuit.</param>
/// <param name="Source">Where the rule comes from.</param>
public sealed record UpkeepRule(string Id, Wording Title, int Months, double Minutes, UpkeepState State, string Source = UpkeepRule.Usual)
{
    /// <summary>No standard says it; people do it so.</summary>
    public const string Usual = "common practice";

    /// <summary>What is done, step by step.</summary>
    public ImmutableArray<Wording> Steps { get; init; } = [];

    /// <summary>What is measured with it.</summary>
    public ImmutableArray<AskedReading> Readings { get; init; } = [];

    /// <summary>What of a circuit's values says how soon it is due.</summary>
    public ImmutableArray<Followed> Follows { get; init; } = [];

    /// <summary>Words in the kinds of faults after which it is due within a month, like <c>welded</c>.</summary>
    public ImmutableArray<string> AfterFaults { get; init; } = [];

    /// <summary>Due at once when somebody tells of it.</summary>
    public ImmutableArray<Circumstance> AfterTold { get; init; } = [];

    /// <summary>Due at once when the protection tripped twice within a month.</summary>
    public bool AfterTrips { get; init; }

    /// <summary>The machine has to run under its load: no work for a shutdown.</summary>
    public bool NeedsLoad { get; init; }

    /// <summary>A complete function test has done it too.</summary>
    public bool IsInFunctionTest { get; init; }
}

/// <summary>A reading that a piece of upkeep asks for.</summary>
/// <param name="Quantity">What is measured.</param>
/// <param name="From">First lead; for a clamp both.</param>
/// <param name="To">Second lead.</param>
public sealed record AskedReading(Quantity Quantity, TerminalId From, TerminalId To);

/// <summary>What a kind of device needs done from time to time.</summary>
internal interface IMaintained
{
    /// <summary>What is done on it.</summary>
    IEnumerable<UpkeepRule> Upkeep(Device device);
}

/// <summary>A rule as it applies to one circuit, with the devices that it is for.</summary>
/// <param name="Rule">The rule; its readings are those of all the devices.</param>
/// <param name="Devices">Tags; empty for what is done on the circuit as a whole.</param>
/// <param name="Minutes">For all of them.</param>
public sealed record CircuitUpkeep(UpkeepRule Rule, ImmutableArray<string> Devices, double Minutes);

/// <summary>Everything that a circuit needs done from time to time, derived from its devices.</summary>
public sealed class UpkeepRules
{
    /// <summary>Opening, blowing out and tightening a panel, and a minute a device (common practice).</summary>
    private const double PanelMinutes = 10,
        MinutesADevice = 1;

    internal UpkeepRules(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        All =
        [
            .. OfCircuit(compiled),
            .. circuit
                .Devices.SelectMany(d => ((IMaintained)d.Kind).Upkeep(d).Select(rule => (Device: d, Rule: rule)))
                .GroupBy(x => x.Rule.Id)
                .Select(g => new CircuitUpkeep(
                    g.First().Rule with
                    {
                        Readings = [.. g.SelectMany(x => x.Rule.Readings)],
                    },
                    [.. g.Select(x => x.Device.Tag)],
                    g.Sum(x => x.Rule.Minutes)
                )),
        ];
    }

    /// <summary>In the order in which a round is made: the panel as a whole first.</summary>
    public ImmutableArray<CircuitUpkeep> All { get; }

    /// <summary>The rule of this name; null when the circuit has none such.</summary>
    public CircuitUpkeep? Find(string id) => All.FirstOrDefault(r => r.Rule.Id == id);

    private static IEnumerable<CircuitUpkeep> OfCircuit(CompiledCircuit compiled)
    {
        var devices = compiled.Circuit.Devices.Count(d => !d.Kind.IsSupply);
        yield return new CircuitUpkeep(
            new UpkeepRule("panel", "Clean the panel, try every screw", 24, PanelMinutes + MinutesADevice * devices, UpkeepState.Dead)
            {
                Steps =
                [
                    "Vacuum, do not blow dust into contacts and relays.",
                    "Try every screw; note which gave way, and look for discoloured insulation beside it.",
                    "Door seal, glands, filter, labels; covers back on.",
                ],
                AfterFaults = ["high-resistance"],
            },
            [],
            PanelMinutes + MinutesADevice * devices
        );
        var locked = compiled.Circuit.Devices.Where(d => d.Kind.CoupledTo(d).Any() && d.Kind.RatingOf(d) is not null).ToList();
        if (locked.Count > 1)
        {
            yield return new CircuitUpkeep(
                new UpkeepRule("interlock", "Interlock between the directions", 12, 4, UpkeepState.Live)
                {
                    Steps =
                    [
                        "Run one way, then press the other way's start: nothing may pull in.",
                        "Isolated: press one armature in; the other must not go in.",
                    ],
                    AfterFaults = ["welded"],
                    IsInFunctionTest = true,
                },
                [.. locked.Select(d => d.Tag)],
                4
            );
        }

        if (compiled.ThreeLines.Places is { IsEmpty: false } places && compiled.Circuit.Devices.Any(d => d.Kind.PlateOf(d) is not null))
        {
            var place = places.Last(p => compiled.Circuit.Device(p.Id).Kind.PlateOf(compiled.Circuit.Device(p.Id)) is null);
            yield return new CircuitUpkeep(
                new UpkeepRule("currents", "Current of each line under load, volts between the lines", 12, 6, UpkeepState.Live)
                {
                    Steps = ["Under its usual load, each line and each direction; write down what runs."],
                    Readings =
                    [
                        .. places[0].Leads(Quantity.Volts).Select(l => new AskedReading(Quantity.Volts, l.From, l.To)),
                        .. place.Leads(Quantity.Amps).Select(l => new AskedReading(Quantity.Amps, l.From, l.To)),
                    ],
                    Follows =
                    [
                        Followed.RunningAmps,
                        Followed.AmpsUnbalance,
                        Followed.LineVolts,
                        Followed.VoltsUnbalance,
                        Followed.StartingAmps,
                    ],
                    AfterTrips = true,
                    NeedsLoad = true,
                },
                [],
                6
            );
        }
    }
}

/// <summary>What upkeep adds to a compiled circuit.</summary>
public static class UpkeepParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>What it needs done from time to time.</summary>
        public UpkeepRules Upkeep => compiled.Part(static c => new UpkeepRules(c));

        /// <summary>Draws from journals what is worth following over the years.</summary>
        public SeriesValues SeriesValues => compiled.Part(static c => new SeriesValues(c));

        /// <summary>The parts that are fitted in it.</summary>
        public InstalledParts InstalledParts => compiled.Part(static c => new InstalledParts(c.Circuit));
    }
}
