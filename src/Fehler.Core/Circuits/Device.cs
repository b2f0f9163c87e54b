using System.Collections.Immutable;
using Fehler.Core.Diagnosis;

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
    string Function = ""
)
{
    /// <summary>What its kind has worked out from the parameters; no part of the description, so a copy begins without it.</summary>
    private object? _workedOut;

    private Device(Device other)
    {
        (Tag, Kind, Location, Parameters, Function) = (other.Tag, other.Kind, other.Location, other.Parameters, other.Function);
    }

    /// <summary>What the kind works out from this device's parameters, once. Two threads may both do it: they find the same.</summary>
    internal T WorkedOut<T>(Func<Device, T> workOut)
        where T : class => (T)(_workedOut ??= workOut(this));

    /// <summary>
    /// No parameters yet. Names are compared as they are written: comparing them by the rules of a language, the default, is what
    /// simulation would spend its time on.
    /// </summary>
    public static ImmutableSortedDictionary<string, ParameterValue> NoParameters { get; } =
        ImmutableSortedDictionary.Create<string, ParameterValue>(StringComparer.Ordinal);

    /// <summary>The number that this parameter has here, or its kind's default.</summary>
    public double this[NumberSpec spec] => Given(spec.Name).Number!.Value;

    /// <summary>The word that this parameter has here, or its kind's default.</summary>
    public string this[WordSpec spec] => Given(spec.Name).Word!;

    /// <summary>The contacts that this parameter lists here, or its kind's default.</summary>
    public ImmutableArray<string> this[ContactsSpec spec] => Given(spec.Name).Words!.Value;

    /// <summary>A parameter by its name in the circuit file, or the kind's default.</summary>
    /// <exception cref="InvalidOperationException">The kind has no such parameter.</exception>
    public ParameterValue Given(string name) => Parameters.TryGetValue(name, out var value) ? value : Kind.Parameter(name).Default;

    public Device With(string name, ParameterValue value) => this with { Parameters = Parameters.SetItem(name, value) };

    public TerminalId Terminal(string name) => new(Tag, name);

    public bool Equals(Device? other) =>
        other is not null
        && Tag == other.Tag
        && Kind == other.Kind
        && Location == other.Location
        && Function == other.Function
        && Parameters.SequenceEqual(other.Parameters);

    public override int GetHashCode() => HashCode.Combine(Tag, Kind.Id, Location);
}
