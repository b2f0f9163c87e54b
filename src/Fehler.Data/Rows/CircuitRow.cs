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

    /// <summary>What lists over many circuits need of its newest version, as JSON, and by which version of the drawing of it; 0: not yet.</summary>
    public string Outline { get; set; } = "";

    /// <inheritdoc cref="Outline"/>
    public int OutlineVersion { get; set; }

    /// <summary>What its jobs and followed values ask for before its interval is over, as JSON.</summary>
    public string Conditions { get; set; } = "[]";

    /// <summary>What it is found by, in small letters.</summary>
    public string SearchText { get; set; } = "";
}
