using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// The description of a kind of device: its terminals, what stands between them, its positions and what a person can do and see. How it
/// behaves, fails and is repaired are sides of the same kind that the layers above ask for (<c>IElectrical</c>, <c>IOperated</c>,
/// <c>IFailing</c>, <c>IRepaired</c>). Nothing outside a kind's own folder knows it by name: what is needed is asked of it.
/// </summary>
public abstract class DeviceKind
{
    /// <summary>Name in the circuit file, e.g. <c>contactor</c>.</summary>
    public abstract string Id { get; }

    /// <summary>Word of the trade, e.g. "contactor".</summary>
    public abstract Wording Name { get; }

    /// <summary>What is bought and replaced when it has failed.</summary>
    public virtual Wording ReplaceableUnit => Name;

    public virtual ImmutableArray<ParameterSpec> Parameters => [];

    /// <summary>
    /// Two-terminal pieces in a fixed order, with the terminals that are printed on this device; behaviour refers to them by index.
    /// </summary>
    public ImmutableArray<Element> Elements(Device device) =>
        device.KnownElements.IsDefault
            ? device.KnownElements = device.HasOwnNames ? [.. OwnElements(device).Select(e => e.On(device))] : OwnElements(device)
            : device.KnownElements;

    /// <summary>The same with the terminals as this kind calls them.</summary>
    private protected abstract ImmutableArray<Element> OwnElements(Device device);

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
    public virtual bool IsMade(Device device, Element element, DeviceState state) =>
        element.Role switch
        {
            ElementRole.NormallyClosed => state.Position == 0,
            ElementRole.NormallyOpen or ElementRole.Pole => state.Position == 1,
            _ => true,
        };

    /// <summary>Everything that can be seen or heard of it in operation, plus what the simulator adds ("chatters").</summary>
    public virtual ImmutableArray<string> Appearances => [];

    /// <summary>What can be looked at, hands out of the panel.</summary>
    public virtual ImmutableArray<Look> Looks(Device device) => [];

    /// <summary>What to mind before touching it; shown where it applies.</summary>
    public virtual IEnumerable<Wording> Cautions(Device device) => [];

    /// <summary>Settles only once everything else has: a rotor.</summary>
    public virtual bool IsSlow => false;

    /// <summary>The plant's supply comes in here: it has a frequency and an earth.</summary>
    public virtual bool IsSupply => false;

    /// <summary>Does something by itself after a time that is set on it or built into it.</summary>
    public virtual bool HasDelays => false;

    /// <summary>Watches the phases of the supply, so that a test takes one away.</summary>
    public virtual bool WatchesSupply => false;

    /// <summary>It stays where a pulse has put it while the supply is away: what was on comes on again with it.</summary>
    public virtual bool KeepsPosition => false;

    /// <summary>What the plant's supply is rated; null for every other device.</summary>
    public virtual SourceRating? SourceOf(Device device) => null;

    /// <summary>Terminals between which this device gives a direct control voltage; null for every other device.</summary>
    public virtual (string Plus, string Minus)? DirectOutput => null;

    /// <summary>The coil that moves it; null for what has none.</summary>
    public virtual RatedCoil? CoilOf(Device device) => null;

    /// <summary>What its nameplate says, of a motor; null for everything else.</summary>
    public virtual MotorPlate? PlateOf(Device device) => null;

    /// <summary>The current that its poles are rated for; null for what has none in the motor circuit.</summary>
    public virtual PoleRating? RatingOf(Device device) => null;

    /// <summary>The voltage between phases that it is set to watch; null for what watches none.</summary>
    public virtual SetPoint? SetPointOf(Device device) => null;

    /// <summary>Rated power of a control transformer, VA; null for everything else.</summary>
    public virtual double? TransformerVaOf(Device device) => null;

    /// <summary>The current on its dial, of what protects a motor by one; null for everything else.</summary>
    public virtual Dial? DialOf(Device device) => null;

    /// <summary>Goes back by itself once it has tripped and cooled.</summary>
    public virtual bool ResetsByItself(Device device) => false;

    /// <summary>The device as it is when what it drives is loaded fully; itself where nothing is driven.</summary>
    public virtual Device FullyLoaded(Device device) => device;

    /// <summary>
    /// Name of the parameter with the voltage it is made for, so that one put into a circuit can be fitted to it; null where it has none.
    /// </summary>
    public virtual string? RatedVoltsParameter => null;

    /// <summary>Parameters that <see cref="Complete"/> works out from this one: they are worked out again when it is changed.</summary>
    public virtual IEnumerable<string> FollowFrom(string parameter) => [];

    /// <summary>Its shape in a ladder drawing.</summary>
    /// <param name="element">The element that is drawn; null for the device as a whole.</param>
    public virtual LadderShape LadderShapeOf(Element? element) =>
        element?.Role switch
        {
            ElementRole.NormallyOpen or ElementRole.NormallyClosed or ElementRole.Pole => LadderShape.Contact,
            ElementRole.Load => LadderShape.Coil,
            _ => LadderShape.Box,
        };

    /// <summary>Letters in the box that stands for it; empty for none.</summary>
    public virtual string Letters => "";

    /// <summary>Whether a contact acts after a delay.</summary>
    public virtual bool IsDelayed(Element element) => false;

    /// <summary>What opens opens before anything closes; only matters where a device does both.</summary>
    public bool BreaksBeforeMakes(Device device)
    {
        var contacts = Elements(device).Where(e => e.IsContact).Select(e => e.Role == ElementRole.NormallyClosed).Distinct().Count();
        return contacts > 1 || Positions(device).Length > 2;
    }

    /// <summary>Parts of it that a test trip tries one by one; empty where one test does for all.</summary>
    public virtual ImmutableArray<string> TriedOneByOne(Device device) => [];

    /// <summary>What is heard of it when one appearance follows another; empty for nothing.</summary>
    public virtual string Heard(string before, string after) => "";

    /// <summary>
    /// Whether this appearance means that it does the work the starter is there for: a motor that turns, a heater that heats.
    /// </summary>
    public virtual bool IsWorking(string appearance) => false;

    /// <summary>Whether this appearance means that it is on and cannot turn: it burns within a minute.</summary>
    public virtual bool IsStalled(string appearance) => false;

    /// <summary>Whether this appearance means that it turns and growls, as on two of three lines: it burns if it is left so.</summary>
    public virtual bool IsRough(string appearance) => false;

    /// <summary>Tags of devices that a shaft, a lever or a brake disc couples this one to.</summary>
    public virtual IEnumerable<string> CoupledTo(Device device) => [];

    /// <summary>Its contacts may share a terminal: change-over contacts.</summary>
    public virtual bool SharesTerminals => false;

    /// <summary>Has a clamp for every wire that leaves its enclosure.</summary>
    public virtual bool IsStrip => false;

    /// <summary>Takes further contacts by their numbers.</summary>
    public bool TakesContacts => Parameters.Any(p => p.Name == ContactsParameter);

    /// <summary>Name of the parameter that lists contacts, of every kind that takes some.</summary>
    public const string ContactsParameter = "contacts";

    /// <summary>Fills in what follows from other parameters, so that the description is complete for any reader.</summary>
    public virtual Device Complete(Device device) => device;

    /// <summary>
    /// Positions in which it isolates what follows and does not, and how soon one would choose it for that (0 first); null for what cannot
    /// isolate.
    /// </summary>
    public virtual (string Off, string On, int Rank)? IsolatingPositions => null;

    /// <summary>Year a device was fitted; every kind takes it. What is old fails more often.</summary>
    public static NumberSpec FittedYear { get; } =
        ParameterSpec.Number("fittedYear", "Year it was fitted; 0 when not known", "", 0, 0, 2200);

    /// <summary>Terminals that are printed otherwise than the kind calls them, like <c>1=L1</c>; every kind takes it.</summary>
    public static NamesSpec TerminalNames { get; } =
        new("terminals", "Terminals that are printed otherwise, like 1=L1, 2=T1", ParameterValue.FromWords([]));

    /// <summary>The kind's own parameters and those that every device takes.</summary>
    public IEnumerable<ParameterSpec> AllParameters => Parameters.Append(FittedYear).Append(TerminalNames);

    internal ParameterSpec Parameter(string name) => AllParameters.First(p => p.Name == name);

    /// <summary>The device with every parameter that it does not state, as the kind usually has it.</summary>
    public Device WithDefaults(Device device) =>
        Complete(Parameters.Aggregate(device, (d, p) => d.Parameters.ContainsKey(p.Name) ? d : d.With(p.Name, p.Default)));
}
