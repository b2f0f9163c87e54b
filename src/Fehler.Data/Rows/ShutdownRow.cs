namespace Fehler.Data;

/// <summary>A shutdown list as it was drawn up.</summary>
public sealed class ShutdownRow
{
    public Guid Id { get; set; }
    public required string Title { get; set; }

    /// <summary>When the window begins.</summary>
    public DateTimeOffset Begins { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public required string Who { get; set; }

    /// <summary>What was wished and what was packed.</summary>
    public required string Json { get; set; }
}
