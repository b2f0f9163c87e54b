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

    /// <summary>Its elements, once its kind has been asked for them; default before. Asked for at every step of a simulation.</summary>
    internal ImmutableArray<Element> KnownElements;

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

    /// <summary>A terminal by the name that is printed at it.</summary>
    public TerminalId Terminal(string name) => new(Tag, name);

    /// <summary>A terminal by the name that the device's kind has for it.</summary>
    public TerminalId At(string name) => new(Tag, Printed(name));

    internal bool HasOwnNames => Parameters.ContainsKey(DeviceKind.TerminalNames.Name);

    /// <summary>What is printed at the terminal that the kind calls so.</summary>
    public string Printed(string name) => Names.FirstOrDefault(n => n.Own == name).Printed ?? name;

    /// <summary>What the kind calls the terminal that is printed so.</summary>
    internal string Own(string printed) => Names.FirstOrDefault(n => n.Printed == printed).Own ?? printed;

    private IEnumerable<(string Own, string Printed)> Names =>
        Parameters.TryGetValue(DeviceKind.TerminalNames.Name, out var names)
            ? names.Words!.Value.Select(n => n.Split('=')).Select(n => (n[0], n[1]))
            : [];

    public bool Equals(Device? other) =>
        other is not null
        && Tag == other.Tag
        && Kind == other.Kind
        && Location == other.Location
        && Function == other.Function
        && Parameters.SequenceEqual(other.Parameters);

    public override int GetHashCode() => HashCode.Combine(Tag, Kind.Id, Location);
}
