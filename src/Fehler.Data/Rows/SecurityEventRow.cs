namespace Fehler.Data;

/// <summary>Something that matters for security, as it happened.</summary>
public sealed class SecurityEventRow
{
    public Guid Id { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Kind { get; set; }

    /// <summary>Whom it is about, and who did it where that is somebody else.</summary>
    public required string Who { get; set; }
    public required string By { get; set; }
    public required string Device { get; set; }
    public required string Address { get; set; }
    public required string Detail { get; set; }
}
