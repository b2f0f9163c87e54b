using Fehler.Core.Upkeep;

namespace Fehler.Data;

/// <summary>A value that is followed over the years, copied out of a closed job, a bench check or a round.</summary>
public sealed class MeasuredRow
{
    public long Id { get; set; }
    public Guid CircuitId { get; set; }

    /// <summary>Job, bench check or round that it comes from.</summary>
    public Guid Source { get; set; }
    public DateTimeOffset At { get; set; }
    public Followed What { get; set; }
    public required string Device { get; set; }
    public required string Points { get; set; }
    public required string State { get; set; }
    public double Value { get; set; }

    /// <summary>Part that the device is: what others of the same part measure is its twin. Empty where no part is meant.</summary>
    public string Part { get; set; } = "";
}
