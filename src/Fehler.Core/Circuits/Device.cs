using System.Collections.Immutable;
using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>
/// One device of a circuit: a tag, what kind of thing it is, where it sits and its parameters. What terminals
/// it has and how it behaves is the business of its <see cref="DeviceKind"/>.
/// </summary>
/// <param name="Tag">Designation, unique in the circuit, e.g. <c>KM1</c>.</param>
/// <param name="Kind">The device kind.</param>
/// <param name="Location">Id of the <see cref="Location"/> it is mounted in.</param>
/// <param name="Parameters">Only what differs from the kind's defaults needs to be given.</param>
/// <param name="Function">What it does here in words, e.g. "Stop at the infeed desk"; may be empty.</param>
public sealed record Device(
    string Tag,
    DeviceKind Kind,
    string Location,
    ImmutableSortedDictionary<string, ParameterValue> Parameters,
    string Function = "")
{
    /// <summary>
    /// No parameters yet. Names are compared as they are written: comparing them by the rules of a language, the default, is what
    /// simulation would spend its time on.
    /// </summary>
    public static ImmutableSortedDictionary<string, ParameterValue> NoParameters { get; } = ImmutableSortedDictionary.Create<string, ParameterValue>(StringComparer.Ordinal);

    /// <summary>The number a parameter has here, or the kind's default.</summary>
    public double Number(string name) =>
        Parameters.TryGetValue(name, out var value) && value.Number is { } given ? given : Kind.Parameter(name).Default!.Number!.Value;

    /// <summary>The word a parameter has here, or the kind's default.</summary>
    public string Word(string name) =>
        Parameters.TryGetValue(name, out var value) && value.Word is { } given ? given : Kind.Parameter(name).Default!.Word!;

    /// <summary>The list of words a parameter has here, or the kind's default.</summary>
    public ImmutableArray<string> Words(string name) =>
        Parameters.TryGetValue(name, out var value) && value.Words is { } given ? given : Kind.Parameter(name).Default!.Words!.Value;

    public Device With(string name, ParameterValue value) => this with { Parameters = Parameters.SetItem(name, value) };

    public TerminalId Terminal(string name) => new(Tag, name);

    public bool Equals(Device? other) =>
        other is not null && Tag == other.Tag && Kind == other.Kind && Location == other.Location
        && Function == other.Function && Parameters.SequenceEqual(other.Parameters);

    public override int GetHashCode() => HashCode.Combine(Tag, Kind.Id, Location);
}
