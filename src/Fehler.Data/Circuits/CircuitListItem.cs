namespace Fehler.Data;

/// <summary>A line of the register.</summary>
public sealed record CircuitListItem(
    Guid Id,
    string Tag,
    string Title,
    string Area,
    string Enclosure,
    int Version,
    int Jobs,
    Guid? OpenJob,
    string? LastFault,
    DateTimeOffset? LastJobAt
);
