using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Data;

/// <summary>
/// A job on a circuit. What it amounts to is in its journal; what lists and learning need is copied here with each entry.
/// </summary>
public sealed class JobRow
{
    public Guid Id { get; set; }
    public Guid CircuitId { get; set; }
    public Guid CircuitVersionId { get; set; }
    public required string Title { get; set; }
    public DateTimeOffset OpenedAt { get; set; }

    /// <summary>Where it comes from when it was carried in; empty for a job that was opened here.</summary>
    public string Origin { get; set; } = "";

    /// <summary>From the closing entry.</summary>
    public DateTimeOffset? ClosedAt { get; set; }
    public string? Outcome { get; set; }

    /// <summary>From the last finding: unit, title, fault mode and its kind over all circuits.</summary>
    public string? FoundUnit { get; set; }
    public string? FoundText { get; set; }
    public string? FoundFault { get; set; }
    public string? FoundKind { get; set; }

    /// <summary>Entries of the journal.</summary>
    public int EntryCount { get; set; }

    /// <summary>What its good coils and windings measured, pair by pair as JSON; filled when it is closed as repaired and proved.</summary>
    public string? OwnOhms { get; set; }

    /// <summary>What it is found by, in small letters.</summary>
    public string SearchText { get; set; } = "";
    public CircuitRow? Circuit { get; set; }
    public CircuitVersionRow? CircuitVersion { get; set; }
    public List<JournalRow> Journal { get; } = [];
}
