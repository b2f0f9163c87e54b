namespace Fehler.Data;

/// <summary>A time between two pieces of upkeep that is not the usual one: the plant's own, or one circuit's.</summary>
public sealed class IntervalRow
{
    public required string Rule { get; set; }

    /// <summary>The circuit that it holds for; empty for the whole plant.</summary>
    public Guid CircuitId { get; set; }

    /// <summary>Months between two; 0 where it is not done.</summary>
    public int Months { get; set; }
}
