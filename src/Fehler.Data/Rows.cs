using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Data;

/// <summary>A circuit of the register. Its description lives in its versions.</summary>
public sealed class CircuitRow
{
    public Guid Id { get; set; }
    public required string Tag { get; set; }
    public required string Title { get; set; }
    public required string Area { get; set; }
    public required string Enclosure { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public List<CircuitVersionRow> Versions { get; } = [];
}

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

/// <summary>A job on a circuit. What it amounts to is in its journal.</summary>
public sealed class JobRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }
    public Guid CircuitVersionId { get; set; }
    public required string Title { get; set; }
    public DateTimeOffset OpenedAt { get; set; }

    /// <summary>Copied from the closing entry for the lists.</summary>
    public DateTimeOffset? ClosedAt { get; set; }
    public string? Outcome { get; set; }

    /// <summary>Unit and title of the last finding, for the lists.</summary>
    public string? FoundUnit { get; set; }
    public string? FoundText { get; set; }
    public CircuitRow? Circuit { get; set; }
    public CircuitVersionRow? CircuitVersion { get; set; }
    public List<JournalRow> Journal { get; } = [];
}

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

/// <summary>A journal entry as recorded; rows are only ever added.</summary>
public sealed class JournalRow
{
    public Guid Id { get; set; }
    public Guid JobId { get; set; }
    public int Sequence { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Who { get; set; }
    public required string Kind { get; set; }
    public required string Json { get; set; }
}
