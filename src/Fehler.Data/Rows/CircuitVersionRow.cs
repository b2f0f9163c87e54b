namespace Fehler.Data;

/// <summary>One state of a circuit's description; never changed once written. A job keeps the version it was made on.</summary>
public sealed class CircuitVersionRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }
    public int Number { get; set; }

    /// <summary>The circuit file.</summary>
    public required string Json { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
}
