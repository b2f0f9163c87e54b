using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>
/// One entry of a job's journal. The journal only grows: what turned out wrong is struck out by a later entry and stays
/// visible. State and diagnosis are computed from the circuit and its entries, never stored.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(Complaint), "complaint")]
[JsonDerivedType(typeof(OperationSeen), "operation")]
[JsonDerivedType(typeof(Told), "told")]
[JsonDerivedType(typeof(LookSeen), "look")]
[JsonDerivedType(typeof(LiveWorkAcknowledged), "liveWorkAcknowledged")]
[JsonDerivedType(typeof(Isolated), "isolated")]
[JsonDerivedType(typeof(ProvedDead), "provedDead")]
[JsonDerivedType(typeof(Energised), "energised")]
[JsonDerivedType(typeof(LockHung), "lockHung")]
[JsonDerivedType(typeof(LockTaken), "lockTaken")]
[JsonDerivedType(typeof(Reading), "reading")]
[JsonDerivedType(typeof(ReadingAsTyped), "readingAsTyped")]
[JsonDerivedType(typeof(CarriedIn), "carriedIn")]
[JsonDerivedType(typeof(CircuitCorrected), "circuitCorrected")]
[JsonDerivedType(typeof(WireLifted), "wireLifted")]
[JsonDerivedType(typeof(Makeshift), "makeshift")]
[JsonDerivedType(typeof(MakeshiftUndone), "makeshiftUndone")]
[JsonDerivedType(typeof(WireLanded), "wireLanded")]
[JsonDerivedType(typeof(Tightened), "tightened")]
[JsonDerivedType(typeof(ConductorsCounted), "conductorsCounted")]
[JsonDerivedType(typeof(MeterChecked), "meterChecked")]
[JsonDerivedType(typeof(Finding), "finding")]
[JsonDerivedType(typeof(Repair), "repair")]
[JsonDerivedType(typeof(FunctionTested), "functionTested")]
[JsonDerivedType(typeof(TripTimed), "tripTimed")]
[JsonDerivedType(typeof(CounterRead), "counterRead")]
[JsonDerivedType(typeof(Restored), "restored")]
[JsonDerivedType(typeof(Note), "note")]
[JsonDerivedType(typeof(Photo), "photo")]
[JsonDerivedType(typeof(StruckOut), "struckOut")]
[JsonDerivedType(typeof(Closed), "closed")]
public abstract record JournalEntry
{
    /// <summary>Made by whoever records it, so that an entry sent twice is one entry.</summary>
    public Guid Id { get; init; }

    /// <summary>Place in the journal, from 1.</summary>
    public int Sequence { get; init; }

    /// <summary>When it was made, by the clock of whoever made it.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it arrived here; later than <see cref="At"/> by as long as it had to wait for a connection.</summary>
    public DateTimeOffset Received { get; init; }

    /// <summary>
    /// Where it comes from when it was recorded elsewhere and carried in, e.g. a bundle's name; empty for what was recorded here.
    /// </summary>
    public string Origin { get; init; } = "";

    public string Who { get; init; } = "";

    /// <summary>On which device, or by which program, it was made, as the service that took it saw it; empty where nobody signed in.</summary>
    public string MadeOn { get; init; } = "";

    /// <summary>Who stood by, where whoever made it may not do so alone.</summary>
    public string Second { get; init; } = "";
}

/// <summary>What was reported, in somebody's words.</summary>
public sealed record Complaint(string Text) : JournalEntry;

/// <summary>
/// Something was operated and this was seen; or nothing was, and this is how it stands. Devices that nobody looked at are not in
/// <paramref name="Seen"/>.
/// </summary>
public sealed record OperationSeen(ImmutableArray<Step> Steps, ImmutableSortedDictionary<string, string> Seen) : JournalEntry
{
    /// <summary>
    /// It showed this from the first step to the last: nothing happened. Otherwise it is what was seen after the last one, whatever a
    /// button did while it was held.
    /// </summary>
    public bool AllAlong { get; init; }
}

/// <summary>What somebody told who was there: how often it happens, what was done before, what it smelt of.</summary>
/// <param name="What">What was told.</param>
/// <param name="Device">Tag of the device that it is about; empty when it is about none.</param>
public sealed record Told(Circumstance What, string Device = "") : JournalEntry
{
    /// <summary>
    /// With <see cref="Circumstance.EveryTime"/> and <see cref="Circumstance.Sometimes"/>: how many of the last <see cref="Tries"/> failed; 0
    /// where nobody counted.
    /// </summary>
    public int Failed { get; init; }

    /// <summary>How many tries were counted; 0 where nobody counted.</summary>
    public int Tries { get; init; }

    /// <summary>With <see cref="Circumstance.RanUntilNow"/>: the day until which it ran; null: today.</summary>
    public DateOnly? Until { get; init; }

    /// <summary>Counted tries that were given without saying what they mean: every time, or only now and then.</summary>
    public static Told Counted(int failed, int tries) =>
        new(failed == tries ? Circumstance.EveryTime : Circumstance.Sometimes) { Failed = failed, Tries = tries };
}

/// <summary>Circumstances of a fault that people know without a meter.</summary>
public enum Circumstance
{
    /// <summary>It fails every time.</summary>
    EveryTime,

    /// <summary>It fails only now and then.</summary>
    Sometimes,

    /// <summary>It fails only once it is warm, or while the machine shakes.</summary>
    OnlyWarm,

    /// <summary>It ran well until now.</summary>
    RanUntilNow,

    /// <summary>Somebody worked on it before it failed.</summary>
    WorkedOn,

    /// <summary>It has not run once since it was wired.</summary>
    NeverRan,

    /// <summary>Rain, washing down, damp.</summary>
    Water,

    /// <summary>A device was changed.</summary>
    PartChanged,

    /// <summary>A device smells burnt, is hot or discoloured.</summary>
    Burnt,
}

/// <summary>Something was looked at. The answer is one of the look's answers, or <c>not sure</c>.</summary>
public sealed record LookSeen(string Device, string Look, string Answer) : JournalEntry
{
    public const string NotSure = "not sure";
}

/// <summary>Working on the live circuit was acknowledged.</summary>
public sealed record LiveWorkAcknowledged : JournalEntry;

/// <summary>The circuit was isolated and locked off.</summary>
/// <param name="Points">Tags of the isolating devices that were opened.</param>
public sealed record Isolated(ImmutableArray<string> Points) : JournalEntry;

/// <summary>Absence of voltage was verified at the point of work, the detector checked on a known source before and after.</summary>
public sealed record ProvedDead(bool DetectorCheckedBefore, bool DetectorCheckedAfter) : JournalEntry
{
    /// <summary>
    /// What was measured, at every point that <see cref="AbsenceOfVoltage"/> asks for; absent where nobody wrote it down
    /// (journals from elsewhere).
    /// </summary>
    public ImmutableArray<ProvingReading> Readings { get; init; } = [];
}

/// <summary>A reading of the table by which absence of voltage was proved.</summary>
/// <param name="From">First lead.</param>
/// <param name="To">Second lead.</param>
/// <param name="Typed">What the meter showed, as it was typed.</param>
public sealed record ProvingReading(TerminalId From, TerminalId To, string Typed);

/// <summary>Somebody hangs a lock beside the one that is on: the circuit stays off until both are gone.</summary>
public sealed record LockHung : JournalEntry;

/// <summary>A lock is taken off: one's own, or somebody else's by the site's procedure, with the reason.</summary>
/// <param name="Of">Whose; one's own when empty.</param>
/// <param name="Reason">Why somebody else's was taken off.</param>
public sealed record LockTaken(string Of = "", string Reason = "") : JournalEntry;

/// <summary>The circuit was switched on again.</summary>
public sealed record Energised : JournalEntry;

/// <summary>A reading between two terminals, with what was held while it was taken.</summary>
/// <param name="Quantity">What was measured.</param>
/// <param name="From">First lead.</param>
/// <param name="To">Second lead.</param>
/// <param name="Held">Devices operated during the reading and let go after it.</param>
/// <param name="Value">What the meter showed.</param>
/// <param name="Meter">Which meter; may be empty.</param>
public sealed record Reading(
    Quantity Quantity,
    TerminalId From,
    TerminalId To,
    ImmutableArray<Step> Held,
    ReadingValue Value,
    string Meter = ""
) : JournalEntry
{
    /// <summary>What was typed, where it was typed; <see cref="Value"/> is what that was understood as.</summary>
    public string Typed { get; init; } = "";

    /// <summary>Of a voltage: taken with a two-pole tester or a meter's low-impedance setting, which settles what only leaks in.</summary>
    public bool LowImpedance { get; init; }

    /// <summary>
    /// Both leads were on one device that stood by itself: pulled out as a fuse is, or with every wire off but its protective conductor, as on
    /// the bench. Nothing in parallel has a say in it.
    /// </summary>
    public bool Alone { get; init; }

    /// <summary>
    /// Id of the lifted conductor whose free end the first lead touched, instead of the terminal it was lifted off; empty when it touched the
    /// terminal.
    /// </summary>
    public string FreeEnd { get; init; } = "";

    /// <summary>Of insulation: how warm the winding was, °C; null where nobody measured it.</summary>
    public double? Celsius { get; init; }
}

/// <summary>A reading on its way in, its value as it was typed: it becomes a <see cref="Reading"/> and is never kept as this.</summary>
public sealed record ReadingAsTyped(
    Quantity Quantity,
    TerminalId From,
    TerminalId To,
    ImmutableArray<Step> Held,
    string Typed,
    string Meter = ""
) : JournalEntry
{
    /// <summary>See <see cref="Reading.LowImpedance"/>.</summary>
    public bool LowImpedance { get; init; }

    /// <summary>See <see cref="Reading.Alone"/>.</summary>
    public bool Alone { get; init; }

    /// <summary>See <see cref="Reading.FreeEnd"/>.</summary>
    public string FreeEnd { get; init; } = "";

    /// <summary>See <see cref="Reading.Celsius"/>.</summary>
    public double? Celsius { get; init; }

    /// <summary>The reading that is meant.</summary>
    /// <exception cref="RefusedException">The text is not a reading of this quantity.</exception>
    public Reading Understood() =>
        new(Quantity, From, To, Held, ReadingText.Parse(Typed, Quantity), Meter)
        {
            Id = Id,
            At = At,
            Who = Who,
            Typed = Typed.Trim(),
            LowImpedance = LowImpedance,
            Alone = Alone,
            FreeEnd = FreeEnd,
            Celsius = Celsius,
        };
}

/// <summary>
/// What stands before this was recorded elsewhere. The circuit here is not in the state that was left there: from here on it counts as live
/// until somebody has isolated it and proved it dead.
/// </summary>
/// <param name="From">Where it comes from.</param>
public sealed record CarriedIn(string From) : JournalEntry;

/// <summary>
/// The panel turned out to be built otherwise than it was described. The job goes on with another version of the circuit, and everything that
/// was recorded is weighed on it; both versions are kept.
/// </summary>
/// <param name="From">Number of the version until here.</param>
/// <param name="To">Number of the version from here on.</param>
/// <param name="What">What differs, in words.</param>
public sealed record CircuitCorrected(int From, int To, string What) : JournalEntry;

/// <summary>A conductor was lifted off a terminal for a test.</summary>
public sealed record WireLifted(string Conductor, TerminalId End) : JournalEntry;

/// <summary>A lifted conductor is back on its terminal and tight.</summary>
public sealed record WireLanded(string Conductor) : JournalEntry;

/// <summary>
/// The screw of a terminal was tried and tightened. What is measured or operated after it belongs to the circuit with that terminal
/// tight; that it was loose before is evidence, and so is that it was not.
/// </summary>
/// <param name="Terminal">The terminal.</param>
/// <param name="WasLoose">It gave way.</param>
public sealed record Tightened(TerminalId Terminal, bool WasLoose) : JournalEntry;

/// <summary>The conductors under a screw were counted: more or fewer than the drawing has there is evidence, and so are as many.</summary>
/// <param name="Terminal">The terminal.</param>
/// <param name="Found">How many belong under it as it was found: those that were lifted off it for a test are counted too.</param>
public sealed record ConductorsCounted(TerminalId Terminal, int Found) : JournalEntry;

/// <summary>The meter was tried on a known source and its leads against each other.</summary>
/// <param name="Good">It showed what it should. When it did not, its readings since the check before do not count.</param>
/// <param name="Meter">Which meter; all of them when empty.</param>
public sealed record MeterChecked(bool Good, string Meter = "") : JournalEntry;

/// <summary>What the fault was found to be.</summary>
/// <param name="Unit">Device tag or conductor id.</param>
/// <param name="Fault">Fault mode id; empty when it is none of the known ones.</param>
public sealed record Finding(string Unit, string Fault = "", string Text = "") : JournalEntry;

/// <summary>What was done about it. Readings taken after this belong to the repaired circuit.</summary>
/// <param name="Unit">Device or conductor; empty where it is neither.</param>
/// <param name="Action">What was done.</param>
/// <param name="Parts">What was used.</param>
/// <param name="Minutes">Minutes of work; 0 where nobody counted.</param>
/// <param name="Cause">Why it had failed; empty where nobody knows.</param>
/// <param name="NotIsolated">Why it was done on a circuit that is not recorded as isolated and proved dead; empty where it is.</param>
public sealed record Repair(
    string Unit,
    string Action,
    ImmutableArray<string> Parts,
    double Minutes = 0,
    string Cause = "",
    string NotIsolated = ""
) : JournalEntry;

/// <summary>A step of the function test was done.</summary>
public sealed record FunctionTested(string Step, bool Passed, ImmutableSortedDictionary<string, string> Seen) : JournalEntry;

/// <summary>A step of restoring the panel was confirmed: covers on, locks off, tools out.</summary>
public sealed record Restored(string Item) : JournalEntry;

public sealed record Note(string Text) : JournalEntry;

/// <summary>A photo was taken.</summary>
/// <param name="Picture">Id of the picture, which is kept beside the journal.</param>
/// <param name="Caption">What it shows; may be empty.</param>
public sealed record Photo(Guid Picture, string Caption) : JournalEntry;

/// <summary>An earlier entry is wrong; it stays visible but no longer counts.</summary>
public sealed record StruckOut(Guid Entry, string Reason) : JournalEntry;

/// <summary>The job is closed.</summary>
public sealed record Closed(CloseOutcome Outcome, string Text = "", double MinutesDown = 0) : JournalEntry;

public enum CloseOutcome
{
    /// <summary>Found, repaired and proved by a complete function test.</summary>
    RepairedAndProved,

    /// <summary>Nothing found: the fault may come back. Not the same as repaired.</summary>
    NothingFound,

    /// <summary>Left to somebody else, with the circuit as the journal says.</summary>
    HandedOver,
}
