using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>Which jobs of the logbook.</summary>
public enum JobsShown
{
    All,
    Open,
    Closed,
}

/// <summary>Which jobs of the logbook are meant; what is left out does not narrow it.</summary>
public sealed record JobFilter
{
    public JobsShown Show { get; init; }

    /// <summary>The jobs of one circuit.</summary>
    public Guid? Circuit { get; init; }

    /// <summary>Area of the circuit.</summary>
    public string? Area { get; init; }

    /// <summary>How they ended.</summary>
    public CloseOutcome? Outcome { get; init; }

    /// <summary>Somebody who made an entry.</summary>
    public string? Who { get; init; }

    /// <summary>What was found, over all circuits: a kind of device with a stroke, "contactor/", or what failed, "winding-open".</summary>
    public string? Found { get; init; }

    /// <summary>Opened on this day or later; days of the service's own clock.</summary>
    public DateOnly? From { get; init; }

    /// <summary>Opened on this day or earlier.</summary>
    public DateOnly? Until { get; init; }

    internal IQueryable<JobRow> Of(IQueryable<JobRow> rows)
    {
        rows = Circuit is { } id ? rows.Where(j => j.CircuitId == id) : rows;
        rows = Show switch
        {
            JobsShown.Open => rows.Where(j => j.Outcome == null),
            JobsShown.Closed => rows.Where(j => j.Outcome != null),
            _ => rows,
        };
        rows = string.IsNullOrEmpty(Area) ? rows : rows.Where(j => j.Circuit!.Area == Area);
        rows = Outcome?.ToString() is { } outcome ? rows.Where(j => j.Outcome == outcome) : rows;
        rows = string.IsNullOrEmpty(Who) ? rows : rows.Where(j => j.Journal.Any(r => r.Who == Who));
        rows =
            string.IsNullOrEmpty(Found) ? rows
            : Found.EndsWith('/') ? rows.Where(j => j.FoundKind != null && j.FoundKind.StartsWith(Found))
            : rows.Where(j => j.FoundCause == Found);
        rows = From is { } from && Begins(from) is var first ? rows.Where(j => j.OpenedAt >= first) : rows;
        return Until is { } until && Begins(until.AddDays(1)) is var after ? rows.Where(j => j.OpenedAt < after) : rows;
    }

    private static DateTimeOffset Begins(DateOnly day) => new(day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Local));
}

/// <summary>What the logbook can be narrowed to.</summary>
/// <param name="Areas">Areas that have jobs.</param>
/// <param name="People">People who made entries.</param>
public sealed record JobChoices(IReadOnlyList<string> Areas, IReadOnlyList<string> People);
