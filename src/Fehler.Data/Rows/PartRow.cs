namespace Fehler.Data;

/// <summary>What the store knows of a part.</summary>
public sealed class PartRow
{
    /// <summary>The part's name, as <c>InstalledPart.Name</c> has it.</summary>
    public required string Name { get; set; }

    /// <summary>From ordering to having it, weeks.</summary>
    public double LeadWeeks { get; set; }
    public int Stock { get; set; }
    public string Note { get; set; } = "";
}
