using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>Which circuits of the register.</summary>
public enum CircuitsShown
{
    All,

    /// <summary>Worked on now, or left to somebody else by the last job.</summary>
    NotInOrder,

    /// <summary>Several jobs within a year.</summary>
    ComingBack,
}

/// <summary>Which circuits of the register are meant; what is left out does not narrow it.</summary>
public sealed record CircuitFilter
{
    /// <summary>From this many jobs within a year on a circuit keeps coming back (common practice: a second one is a question).</summary>
    public const int ComesBackFrom = 2;

    public CircuitsShown Show { get; init; }

    public string? Area { get; init; }

    public string? Enclosure { get; init; }

    internal static readonly string HandedOver = nameof(CloseOutcome.HandedOver);

    internal IQueryable<CircuitRow> Of(IQueryable<CircuitRow> rows, IQueryable<JobRow> jobs, DateTimeOffset aYearAgo)
    {
        rows = string.IsNullOrEmpty(Area) ? rows : rows.Where(c => c.Area == Area);
        rows = string.IsNullOrEmpty(Enclosure) ? rows : rows.Where(c => c.Enclosure == Enclosure);
        return Show switch
        {
            CircuitsShown.NotInOrder => rows.Where(c =>
                c.OpenJobId != null
                || jobs.Where(j => j.CircuitId == c.Id).OrderByDescending(j => j.OpenedAt).Select(j => j.Outcome).FirstOrDefault()
                    == HandedOver
            ),
            CircuitsShown.ComingBack => rows.Where(c => jobs.Count(j => j.CircuitId == c.Id && j.OpenedAt >= aYearAgo) >= ComesBackFrom),
            _ => rows,
        };
    }
}

/// <summary>What the register can be narrowed to.</summary>
public sealed record CircuitChoices(IReadOnlyList<string> Areas, IReadOnlyList<string> Enclosures);
