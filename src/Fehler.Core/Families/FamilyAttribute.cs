namespace Fehler.Core.Families;

/// <summary>Names a family for people.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class FamilyAttribute(string id, string name, string description) : Attribute
{
    public string Id { get; } = id;
    public string Name { get; } = name;
    public string Description { get; } = description;
}
