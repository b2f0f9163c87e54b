namespace Fehler.Data;

/// <summary>Something that is to be done on a circuit by a day: what a job left for later.</summary>
public sealed class FollowUpRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }
    public CircuitRow? Circuit { get; set; }

    /// <summary>The job that it follows from; null for one that was written down by itself.</summary>
    public Guid? JobId { get; set; }
    public required string Text { get; set; }

    /// <summary>The day by which it is to be done, at the plant.</summary>
    public DateOnly Due { get; set; }
    public required string Who { get; set; }
    public DateTimeOffset CreatedAt { get; set; }

    /// <summary>Null while it is open.</summary>
    public DateTimeOffset? DoneAt { get; set; }
    public string DoneBy { get; set; } = "";
}
