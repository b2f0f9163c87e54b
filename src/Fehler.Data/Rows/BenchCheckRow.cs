namespace Fehler.Data;

/// <summary>A bench check that was made on a circuit; never changed once recorded.</summary>
public sealed class BenchCheckRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }
    public Guid CircuitVersionId { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Who { get; set; }
    public int Passed { get; set; }
    public int Failed { get; set; }

    /// <summary>Item by item: id, what was read, good or not.</summary>
    public required string Json { get; set; }
}
