namespace Fehler.Data;

/// <summary>A line of the register.</summary>
/// <param name="RecentJobs">Jobs opened on it within a year.</param>
/// <param name="IsHandedOver">The last job on it was left to somebody else.</param>
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
    DateTimeOffset? LastJobAt,
    int RecentJobs,
    bool IsHandedOver
);
