namespace Fehler.Core.Circuits;

/// <summary>
/// A parameter that a device kind understands. A kind keeps its own as fields, so that none is asked for by a name that may be mistyped.
/// </summary>
/// <param name="Name">Name in the circuit file.</param>
/// <param name="Description">What it is, in the words of the nameplate or data sheet.</param>
/// <param name="Default">Value when the description says nothing.</param>
public abstract record ParameterSpec(string Name, string Description, ParameterValue Default)
{
    /// <summary>Where a person looks for it.</summary>
    public PlateGroup Group { get; init; }

    /// <summary>Unit of a number; empty otherwise.</summary>
    public virtual string Unit => "";

    /// <param name="name">Name in the circuit file.</param>
    /// <param name="description">What it is.</param>
    /// <param name="unit">Its unit; empty for a plain number.</param>
    /// <param name="default">Value when the description says nothing.</param>
    /// <param name="minimum">Least number that makes sense.</param>
    /// <param name="maximum">Greatest number that makes sense.</param>
    public static NumberSpec Number(string name, string description, string unit, double @default, double minimum, double maximum) =>
        new(name, description, unit, @default, minimum, maximum);

    /// <param name="name">Name in the circuit file.</param>
    /// <param name="description">What it is.</param>
    /// <param name="default">Value when the description says nothing.</param>
    /// <param name="choices">Words that are allowed; none when any is.</param>
    public static WordSpec Word(string name, string description, string @default, params string[] choices) =>
        new(name, description, @default, choices);

    /// <param name="name">Name in the circuit file.</param>
    /// <param name="description">What it is.</param>
    /// <param name="default">Terminal pairs when the description says nothing.</param>
    public static ContactsSpec Contacts(string name, string description, params string[] @default) =>
        new(name, description, ParameterValue.FromWords(@default));
}

/// <summary>A parameter that is a number in a unit.</summary>
public sealed record NumberSpec(string Name, string Description, string In, ParameterValue Default, double Minimum, double Maximum)
    : ParameterSpec(Name, Description, Default)
{
    public override string Unit => In;
}

/// <summary>A parameter that is a word.</summary>
public sealed record WordSpec(string Name, string Description, ParameterValue Default, params string[] Choices)
    : ParameterSpec(Name, Description, Default);

/// <summary>A parameter that lists other names, like <c>1=L1</c>.</summary>
public sealed record NamesSpec(string Name, string Description, ParameterValue Default) : ParameterSpec(Name, Description, Default);

/// <summary>
/// A parameter that lists contacts as pairs of terminals, with what they do where their digits do not say so: <c>13-14</c>, <c>3-5 nc</c>,
/// <c>7-8 no delayed</c>, <c>1-2 left right</c>.
/// </summary>
public sealed record ContactsSpec : ParameterSpec
{
    /// <summary>A parameter that lists contacts.</summary>
    public ContactsSpec(string name, string description, ParameterValue @default)
        : base(name, description, @default) => Group = PlateGroup.Contacts;
}

/// <summary>Where a person looks for a value of a device, in the order in which a plate is read.</summary>
public enum PlateGroup
{
    /// <summary>Printed on the plate: volts, amperes, power, poles.</summary>
    Rating,

    /// <summary>On the coil's own label.</summary>
    Coil,

    /// <summary>How its contacts are made up.</summary>
    Contacts,

    /// <summary>What is set by hand: a dial, a mode, a time.</summary>
    Setting,

    /// <summary>On no plate: what the sums take where nobody has measured it.</summary>
    Expert,
}
