namespace Fehler.Data;

/// <summary>A circuit of the register. Its description lives in its versions; what the lists show is copied here when it changes.</summary>
public sealed class CircuitRow
{
    public Guid Id { get; set; }
    public required string Tag { get; set; }
    public required string Title { get; set; }
    public required string Area { get; set; }
    public required string Enclosure { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public List<CircuitVersionRow> Versions { get; } = [];

    /// <summary>The newest version.</summary>
    public Guid LatestVersionId { get; set; }
    public int LatestNumber { get; set; }

    /// <summary>Jobs on it, the newest open one, when the last one was opened and what was found last.</summary>
    public int JobCount { get; set; }
    public Guid? OpenJobId { get; set; }
    public DateTimeOffset? LastJobAt { get; set; }
    public string? LastFound { get; set; }

    /// <summary>What it is found by, in small letters.</summary>
    public string SearchText { get; set; } = "";
}
