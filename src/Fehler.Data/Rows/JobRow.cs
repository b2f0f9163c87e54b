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

    /// <summary>What is hidden in the panel, as JSON, of an exercise; null for a job. Exercises are in no list of jobs.</summary>
    public string? Exercise { get; set; }

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

    /// <summary>What failed, whatever it was on and at which terminals: "winding-open".</summary>
    public string? FoundCause { get; set; }

    /// <summary>When the last finding was made, minutes down by the closing entry, and readings that were taken.</summary>
    public DateTimeOffset? FoundAt { get; set; }

    /// <inheritdoc cref="FoundAt"/>
    public double MinutesDown { get; set; }

    /// <inheritdoc cref="FoundAt"/>
    public int ReadingCount { get; set; }

    /// <summary>Circumstances that were told, by name and parted by commas.</summary>
    public string Told { get; set; } = "";

    /// <summary>What was found only tripped or blew because of something else.</summary>
    public bool Tripped { get; set; }

    /// <summary>Which version of the program drew its followed values; 0: not yet.</summary>
    public int DrawnVersion { get; set; }

    /// <summary>
    /// What the diagnosis said of it, worked out once it was closed: the unit it named first, with which probability, and which it named
    /// last before the finding; null: not yet.
    /// </summary>
    public string? FirstNamed { get; set; }

    /// <inheritdoc cref="FirstNamed"/>
    public double FirstShare { get; set; }

    /// <inheritdoc cref="FirstNamed"/>
    public string? LastNamed { get; set; }

    /// <inheritdoc cref="FirstNamed"/>
    public double LastShare { get; set; }

    /// <summary>Readings that following every proposal takes for this fault; null: not worked out.</summary>
    public int? Par { get; set; }

    /// <summary>What it is found by, in small letters.</summary>
    public string SearchText { get; set; } = "";
    public CircuitRow? Circuit { get; set; }
    public CircuitVersionRow? CircuitVersion { get; set; }
    public List<JournalRow> Journal { get; } = [];
}
