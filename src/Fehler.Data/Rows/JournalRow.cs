namespace Fehler.Data;

/// <summary>A journal entry as recorded; rows are only ever added.</summary>
public sealed class JournalRow
{
    public Guid Id { get; set; }
    public Guid JobId { get; set; }
    public int Sequence { get; set; }

    /// <summary>When it was made, and when it arrived here.</summary>
    public DateTimeOffset At { get; set; }
    public DateTimeOffset Received { get; set; }
    public required string Who { get; set; }
    public required string Kind { get; set; }
    public required string Json { get; set; }
}
