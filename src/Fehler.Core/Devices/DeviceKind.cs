using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A kind of device: its terminals, how it behaves and how it fails, in one file. Nothing else in the core knows
/// any kind by name; <see cref="DeviceKinds"/> finds them. The client adds one symbol.
/// </summary>
public abstract class DeviceKind
{
    /// <summary>Resistance of a closed contact, ohm.</summary>
    public const double ContactOhms = 0.02;

    /// <summary>Name in the circuit file, e.g. <c>contactor</c>.</summary>
    public abstract string Id { get; }

    /// <summary>Word of the trade, e.g. "contactor".</summary>
    public abstract string Term { get; }

    /// <summary>What is bought and replaced when it has failed.</summary>
    public virtual string ReplaceableUnit => Term;

    public virtual ImmutableArray<ParameterSpec> Parameters => [];

    /// <summary>Two-terminal pieces in a fixed order; behaviour refers to them by index.</summary>
    public abstract ImmutableArray<Element> Elements(Device device);

    /// <summary>Terminals a conductor can be landed on.</summary>
    public virtual ImmutableArray<string> Terminals(Device device) =>
        [.. Elements(device).SelectMany(e => new[] { e.A, e.B }).Where(t => t[0] != '~').Distinct()];

    /// <summary>Whether this terminal exists on the device.</summary>
    public virtual bool HasTerminal(Device device, string terminal) => Terminals(device).Contains(terminal);

    /// <summary>Poles from line to load side, in order; empty for devices of the control circuit.</summary>
    public virtual ImmutableArray<(string Line, string Load)> Poles(Device device) =>
        [.. Elements(device).Where(e => e.Role is ElementRole.Pole or ElementRole.Link).Select(e => (e.A, e.B))];

    /// <summary>Position of the mechanism before anyone touches it.</summary>
    public virtual int InitialPosition(Device device) => 0;

    /// <summary>Names of the positions, index = <see cref="DeviceState.Position"/>.</summary>
    public virtual ImmutableArray<string> Positions(Device device) => ["rest"];

    /// <summary>What a person can do with it.</summary>
    public virtual ImmutableArray<Actuation> Actuations(Device device) => [];

    /// <summary>Whether a contact or pole is made in this position of the mechanism.</summary>
    public virtual bool IsMade(Device device, Element element, DeviceState state) => element.Role switch
    {
        ElementRole.NormallyClosed => state.Position == 0,
        ElementRole.NormallyOpen or ElementRole.Pole => state.Position == 1,
        _ => true,
    };

    /// <summary>Admittance of an element that is not a contact, siemens; may depend on the position, on nothing else of the state.</summary>
    public virtual Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / ContactOhms;

    /// <summary>Sources and windings; most devices have none.</summary>
    public virtual void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp) { }

    /// <summary>What the device does at once in a solved circuit.</summary>
    public virtual Transition Settle(Device device, DeviceState state, IDeviceMeter meter) => new(state);

    /// <summary>What it will do after a time if nothing changes.</summary>
    public virtual TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) => null;

    /// <summary>What a person sees or hears of it, one of <see cref="Appearances"/>; null when there is nothing to see.</summary>
    public virtual string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => null;

    /// <summary>Everything <see cref="Appearance"/> can say, plus what the simulator adds ("chatters").</summary>
    public virtual ImmutableArray<string> Appearances => [];

    public virtual ImmutableArray<Look> Looks(Device device) => [];

    /// <summary>What a look shows in this state; <paramref name="drawn"/> is the device as the drawing has it, for comparison.</summary>
    public virtual string Seen(Device device, Look look, DeviceState state, Device drawn) => look.Answers[0];

    /// <summary>What an indicator that is put on it shows, for looks that are <see cref="Look.Measured"/>.</summary>
    public virtual string Measured(Device device, IDeviceMeter meter) => "";

    /// <summary>How it fails. Conductors have their own, see <see cref="FaultCatalogue"/>.</summary>
    public virtual IEnumerable<FaultMode> FaultModes(Device device) => [];

    /// <summary>What to mind before touching it; shown where it applies.</summary>
    public virtual IEnumerable<string> Cautions(Device device) => [];

    /// <summary>Settles only once everything else has: a rotor.</summary>
    public virtual bool IsSlow => false;

    /// <summary>The plant's supply comes in here: it has a frequency and an earth.</summary>
    public virtual bool IsSupply => false;

    /// <summary>Terminals between which this device gives a direct control voltage; null for every other device.</summary>
    public virtual (string Plus, string Minus)? DirectOutput => null;

    /// <summary>What opens opens before anything closes; only matters where a device does both.</summary>
    public bool BreaksBeforeMakes(Device device)
    {
        var contacts = Elements(device).Where(e => e.IsContact).Select(e => e.Role == ElementRole.NormallyClosed).Distinct().Count();
        return contacts > 1 || Positions(device).Length > 2;
    }

    /// <summary>Whether this appearance means that it does the work the starter is there for: a motor that turns, a heater that heats.</summary>
    public virtual bool IsWorking(string appearance) => false;

    /// <summary>Tags of devices that a shaft, a lever or a brake disc couples this one to.</summary>
    public virtual IEnumerable<string> CoupledTo(Device device) => [];

    /// <summary>Its contacts may share a terminal: change-over contacts.</summary>
    public virtual bool SharesTerminals => false;

    /// <summary>Has a clamp for every wire that leaves its enclosure.</summary>
    public virtual bool IsStrip => false;

    /// <summary>Fills in what follows from other parameters, so that the description is complete for any reader.</summary>
    public virtual Device Complete(Device device) => device;

    /// <summary>Positions in which it isolates what follows and does not, and how soon one would choose it for that (0 first); null for what cannot isolate.</summary>
    public virtual (string Off, string On, int Rank)? IsolatingPositions => null;

    /// <summary>Year a device was fitted; every kind takes it. What is old fails more often.</summary>
    public static ParameterSpec FittedYear { get; } = ParameterSpec.Number("fittedYear", "Year it was fitted; 0 when not known", "", 0, 0, 2200);

    /// <summary>The kind's own parameters and those that every device takes.</summary>
    public IEnumerable<ParameterSpec> AllParameters => Parameters.Append(FittedYear);

    internal ParameterSpec Parameter(string name) => AllParameters.First(p => p.Name == name);

    /// <summary>The device with every parameter that it does not state, as the kind usually has it.</summary>
    public Device WithDefaults(Device device) => Complete(Parameters.Where(p => p.Default is not null)
        .Aggregate(device, (d, p) => d.Parameters.ContainsKey(p.Name) ? d : d.With(p.Name, p.Default!)));

    private protected static double Magnitude(Complex phasor) => phasor.Magnitude;

    /// <summary>How one of its faults is repaired, and why it usually comes.</summary>
    public virtual RepairNotes Repair(Device device, FaultMode fault) => RepairNotes.Of(device, fault);
}
