using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Editing;

/// <summary>One change to a circuit's description. Applied by <see cref="CircuitEditor"/>; undone by keeping the circuit before.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(InsertBeside), "insert")]
[JsonDerivedType(typeof(RemovePart), "remove")]
[JsonDerivedType(typeof(RenameDevice), "renameDevice")]
[JsonDerivedType(typeof(RenameContact), "renameContact")]
[JsonDerivedType(typeof(RenumberWire), "renumberWire")]
[JsonDerivedType(typeof(RenumberWires), "renumberWires")]
[JsonDerivedType(typeof(SetParameter), "setParameter")]
[JsonDerivedType(typeof(DescribeDevice), "describeDevice")]
[JsonDerivedType(typeof(SetPlace), "setPlace")]
[JsonDerivedType(typeof(RouteChained), "routeChained")]
[JsonDerivedType(typeof(RouteOverStrip), "routeOverStrip")]
[JsonDerivedType(typeof(MoveEnd), "moveEnd")]
[JsonDerivedType(typeof(DescribeCircuit), "describeCircuit")]
public abstract record CircuitEdit;

/// <summary>How a new device stands to the part that is already there.</summary>
public enum Beside
{
    SeriesBefore,
    SeriesAfter,
    Parallel,
}

/// <summary>Puts a new contact, lamp or other two-terminal device before, behind or across a part of a path.</summary>
/// <param name="Part">The part as its path writes it, <c>S1:21-22</c>.</param>
/// <param name="How">Before, after or across it.</param>
/// <param name="Tag">Tag of the new device, or of one that is there and gets one more contact.</param>
/// <param name="Kind">Kind of a new device; ignored for one that is there.</param>
/// <param name="Contact">Its terminals, <c>13-14</c>.</param>
/// <param name="Location">Place of a new device.</param>
/// <param name="Function">What a new device does.</param>
public sealed record InsertBeside(string Part, Beside How, string Tag, string Kind, string Contact, string Location, string Function)
    : CircuitEdit;

/// <summary>Takes a part out of its path; what stood before and behind it is joined. A device with no part left goes too.</summary>
public sealed record RemovePart(string Part) : CircuitEdit;

public sealed record RenameDevice(string Tag, string NewTag) : CircuitEdit;

/// <summary>Gives a contact the terminal numbers that are on the installed block.</summary>
public sealed record RenameContact(string Tag, string Contact, string NewContact) : CircuitEdit;

public sealed record RenumberWire(string Wire, string NewWire) : CircuitEdit;

/// <summary>Numbers every wire whose number is a number anew, in the order that they have: from the first one on in equal steps.</summary>
public sealed record RenumberWires(int First, int Step) : CircuitEdit;

/// <summary>Sets a rating or setting: a number, a word, or words separated by commas.</summary>
public sealed record SetParameter(string Tag, string Name, string Value) : CircuitEdit;

/// <summary>Changes what a device is called for and where it sits.</summary>
public sealed record DescribeDevice(string Tag, string Function, string Location) : CircuitEdit;

/// <summary>Adds a place or changes one.</summary>
public sealed record SetPlace(string Id, string Name, LocationType Kind, double CableMetres) : CircuitEdit;

/// <summary>Runs a wire from terminal to terminal in this order.</summary>
public sealed record RouteChained(string Wire, ImmutableArray<string> Terminals) : CircuitEdit;

/// <summary>Brings every end of a wire to a clamp of a strip.</summary>
public sealed record RouteOverStrip(string Wire, string Strip) : CircuitEdit;

/// <summary>Lands one end of a conductor where it is in the panel.</summary>
/// <param name="Conductor">Its id.</param>
/// <param name="From">The end that the description calls "from"; otherwise the other.</param>
/// <param name="Terminal">Where it is landed.</param>
public sealed record MoveEnd(string Conductor, bool From, string Terminal) : CircuitEdit;

public sealed record DescribeCircuit(string Tag, string Title, string Area, string Enclosure, string Drawing, string Notes) : CircuitEdit;
