namespace Fehler.Data;

/// <summary>Upkeep that was done on a circuit; never changed once recorded.</summary>
public sealed class WorkRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }

    /// <summary>Name of the rule that it answers.</summary>
    public required string Rule { get; set; }
    public required string Title { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Who { get; set; }

    /// <summary>What was found; may be empty.</summary>
    public string Text { get; set; } = "";

    /// <summary>What it took; 0 where nobody wrote it down.</summary>
    public double Minutes { get; set; }

    /// <summary>What ran while it was measured; empty for dead work.</summary>
    public string Working { get; set; } = "";

    /// <summary>What was measured, as journal entries.</summary>
    public string Json { get; set; } = "[]";
}
