using Fehler.Core.Operation;

namespace Fehler.Data;

/// <summary>A line of the logbook.</summary>
public sealed record JobListItem(
    Guid Id,
    Guid CircuitId,
    string CircuitTag,
    string CircuitTitle,
    string Area,
    string Title,
    DateTimeOffset OpenedAt,
    DateTimeOffset? ClosedAt,
    string? Outcome,
    string? FoundUnit,
    string? FoundText,
    int Entries,
    string Origin
);
