namespace Fehler.Data;

/// <summary>Something that is known about this file as a whole, e.g. that the demo plant has been brought in.</summary>
public sealed class FactRow
{
    public required string Name { get; set; }
    public required string Value { get; set; }
}
