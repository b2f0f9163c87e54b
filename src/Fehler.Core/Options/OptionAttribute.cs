namespace Fehler.Core.Options;

/// <summary>Marks a property as something a person gives or chooses, with its label and the group it is shown in.</summary>
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
