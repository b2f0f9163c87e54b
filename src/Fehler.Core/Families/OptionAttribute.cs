namespace Fehler.Core.Families;

/// <summary>Marks a property of a family as something a person chooses, with its label and the group it is shown in.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class OptionAttribute(string group, string label) : Attribute
{
    public string Group { get; } = group;
    public string Label { get; } = label;

    /// <summary>Unit of a number; empty otherwise.</summary>
    public string Unit { get; init; } = "";

    public double Minimum { get; init; }
    public double Maximum { get; init; } = 100000;

    /// <summary>Why practitioners choose one or the other; may be empty.</summary>
    public string Help { get; init; } = "";
}

/// <summary>What a choice is called.</summary>
[AttributeUsage(AttributeTargets.Field)]
public sealed class WordAttribute(string text) : Attribute
{
    public string Text { get; } = text;
}

/// <summary>Names a family for people.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class FamilyAttribute(string id, string name, string description) : Attribute
{
    public string Id { get; } = id;
    public string Name { get; } = name;
    public string Description { get; } = description;
}
