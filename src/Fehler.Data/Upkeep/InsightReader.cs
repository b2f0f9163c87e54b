using System.Globalization;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A bar of a chart: something with its jobs.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Jobs">Jobs.</param>
/// <param name="MinutesDown">Minutes down in them.</param>
/// <param name="Search">Words that find these jobs in the logbook; empty where something else does.</param>
/// <param name="Found">Part of the kind of what was found, by which the logbook finds them; empty otherwise.</param>
/// <param name="Circuit">The circuit, where it is one.</param>
public sealed record InsightBar(string Name, int Jobs, double MinutesDown, string Search, string Found, Guid? Circuit);

/// <summary>The same unit of the same circuit again.</summary>
public sealed record RepeatFault(Guid Circuit, string Tag, string Unit, string Fault, int Times, DateTimeOffset Last);

/// <summary>How often a probability held.</summary>
/// <param name="From">From this probability,</param>
/// <param name="To">to this one.</param>
/// <param name="Jobs">Jobs in which the last one named had it.</param>
/// <param name="Mean">Mean probability of them.</param>
/// <param name="Right">In how many of them it was what was found.</param>
public sealed record CalibrationBin(double From, double To, int Jobs, double Mean, int Right);

/// <summary>How the diagnosis did on the plant's own closed jobs.</summary>
/// <param name="Judged">Jobs that were worked out again.</param>
/// <param name="FirstRight">In how many what it named first, before any reading, was what was found.</param>
/// <param name="LastRight">In how many what it named last, before the finding, was.</param>
/// <param name="Readings">Mean readings taken.</param>
/// <param name="Par">Mean readings by following every proposal, on those for which it was worked out.</param>
/// <param name="ReadingsOfPar">Mean readings taken on those.</param>
public sealed record DiagnosisRecord(
    int Judged,
    int FirstRight,
    int LastRight,
    double Readings,
    double? Par,
    double? ReadingsOfPar,
    IReadOnlyList<CalibrationBin> Calibration
);

/// <summary>Where the time went, in a period.</summary>
/// <param name="Jobs">Jobs that were opened in it.</param>
/// <param name="Repaired">Closed as repaired and proved.</param>
/// <param name="NothingFound">Closed with nothing found.</param>
/// <param name="MinutesDown">Minutes down in all of them.</param>
/// <param name="MinutesToFind">Median minutes from opening to the finding.</param>
/// <param name="HeldRepairs">Repairs after which the same unit did not fail again in ninety days.</param>
/// <param name="CameBack">Repairs after which it did.</param>
public sealed record Insight(
    int Jobs,
    int Repaired,
    int NothingFound,
    double MinutesDown,
    double? MinutesToFind,
    int HeldRepairs,
    int CameBack,
    IReadOnlyList<InsightBar> Circuits,
    IReadOnlyList<InsightBar> Devices,
    IReadOnlyList<InsightBar> Causes,
    IReadOnlyList<InsightBar> Areas,
    IReadOnlyList<InsightBar> Months,
    IReadOnlyList<RepeatFault> Repeats,
    DiagnosisRecord Diagnosis
);

/// <summary>Reads where the time goes from what was copied out of the journals; about machines, never about people.</summary>
public sealed class InsightReader(FehlerDb db)
{
    private const int MostBars = 12,
        MostMonths = 600;

    /// <summary>The same unit again within this time: the repair did not hold.</summary>
    private const int HeldDays = 90;

    private static readonly (double From, double To)[] Bins = [(0, 0.5), (0.5, 0.8), (0.8, 0.95), (0.95, 0.99), (0.99, 1.0001)];

    /// <summary>A period, in an area or in all.</summary>
    public async Task<Insight> OfAsync(DateOnly? from, DateOnly? until, string? area, CancellationToken cancellation)
    {
        var filter = new JobFilter
        {
            From = from,
            Until = until,
            Area = area,
        };
        var jobs = await filter
            .Of(db.Jobs.AsNoTracking())
            .Select(j => new Told(
                j.CircuitId,
                j.Circuit!.Tag,
                j.Circuit.Title,
                j.Circuit.Area,
                j.OpenedAt,
                j.Outcome,
                j.FoundUnit,
                j.FoundText,
                j.FoundFault,
                j.FoundKind,
                j.FoundCause,
                j.FoundAt,
                j.MinutesDown,
                j.ReadingCount,
                j.FirstNamed,
                j.LastNamed,
                j.LastShare,
                j.Par
            ))
            .ToListAsync(cancellation);
        var found = jobs.Where(j => !string.IsNullOrEmpty(j.FoundUnit)).ToList();
        var repaired = found.Where(j => j.Outcome == nameof(CloseOutcome.RepairedAndProved)).ToList();
        var toFind = found.Where(j => j.FoundAt > j.OpenedAt).Select(j => (j.FoundAt!.Value - j.OpenedAt).TotalMinutes).Order().ToList();
        var again = found
            .GroupBy(f => (f.CircuitId, f.FoundUnit))
            .ToDictionary(g => g.Key, g => g.Select(f => f.OpenedAt).Order().ToList());
        var cameBack = repaired.Count(r =>
            again[(r.CircuitId, r.FoundUnit)].Find(at => at > r.OpenedAt) is var next
            && next != default
            && next < r.OpenedAt.AddDays(HeldDays)
        );
        return new Insight(
            jobs.Count,
            repaired.Count,
            jobs.Count(j => j.Outcome == nameof(CloseOutcome.NothingFound)),
            jobs.Sum(j => j.MinutesDown),
            toFind.Count == 0 ? null : toFind[toFind.Count / 2],
            repaired.Count - cameBack,
            cameBack,
            Bars(jobs, j => $"{j.Tag} {j.Title}", (j, _) => (j.Tag, ""), circuit: j => j.CircuitId),
            Bars(found, j => DeviceOf(j.FoundKind), (_, name) => ("", $"{name}/")),
            Bars(found, j => j.FoundCause ?? "", (_, name) => ("", name)),
            Bars(jobs, j => j.Area, (_, name) => (name, "")),
            [.. Bars(jobs, MonthOf, (_, name) => (name, ""), MostMonths).OrderBy(b => b.Name, StringComparer.Ordinal)],
            [
                .. found
                    .GroupBy(j => (j.CircuitId, j.FoundUnit))
                    .Where(g => g.Count() > 1)
                    .Select(g => new RepeatFault(
                        g.Key.CircuitId,
                        g.First().Tag,
                        g.Key.FoundUnit!,
                        g.MaxBy(j => j.OpenedAt)!.FoundText ?? "",
                        g.Count(),
                        g.Max(j => j.OpenedAt)
                    ))
                    .OrderByDescending(r => r.Times)
                    .ThenByDescending(r => r.Last)
                    .Take(MostBars),
            ],
            RecordOf([.. found.Where(j => j.FirstNamed is not null)])
        );
    }

    private static DiagnosisRecord RecordOf(List<Told> judged)
    {
        var withPar = judged.Where(j => j.Par is not null).ToList();
        return new DiagnosisRecord(
            judged.Count,
            judged.Count(j => j.FirstNamed == j.FoundUnit),
            judged.Count(j => j.LastNamed == j.FoundUnit),
            judged.Count == 0 ? 0 : judged.Average(j => j.ReadingCount),
            withPar.Count == 0 ? null : withPar.Average(j => j.Par!.Value),
            withPar.Count == 0 ? null : withPar.Average(j => j.ReadingCount),
            [
                .. Bins.Select(b => (Bin: b, Jobs: judged.Where(j => j.LastShare >= b.From && j.LastShare < b.To).ToList()))
                    .Where(x => x.Jobs.Count > 0)
                    .Select(x => new CalibrationBin(
                        x.Bin.From,
                        Math.Min(1, x.Bin.To),
                        x.Jobs.Count,
                        x.Jobs.Average(j => j.LastShare),
                        x.Jobs.Count(j => j.LastNamed == j.FoundUnit)
                    )),
            ]
        );
    }

    private static List<InsightBar> Bars(
        List<Told> jobs,
        Func<Told, string> name,
        Func<Told, string, (string Search, string Found)> find,
        int most = MostBars,
        Func<Told, Guid>? circuit = null
    ) =>
        [
            .. jobs.GroupBy(name)
                .Where(g => g.Key.Length > 0)
                .Select(g => new InsightBar(
                    g.Key,
                    g.Count(),
                    g.Sum(j => j.MinutesDown),
                    find(g.First(), g.Key).Search,
                    find(g.First(), g.Key).Found,
                    circuit?.Invoke(g.First())
                ))
                .OrderByDescending(b => b.MinutesDown)
                .ThenByDescending(b => b.Jobs)
                .ThenBy(b => b.Name, StringComparer.Ordinal)
                .Take(most),
        ];

    /// <summary>A fault's kind over all circuits is "device kind/what failed".</summary>
    private static string DeviceOf(string? kind) => kind?.Split('/')[0] ?? "";

    private static string MonthOf(Told job) => job.OpenedAt.ToString("yyyy-MM", CultureInfo.InvariantCulture);

    private sealed record Told(
        Guid CircuitId,
        string Tag,
        string Title,
        string Area,
        DateTimeOffset OpenedAt,
        string? Outcome,
        string? FoundUnit,
        string? FoundText,
        string? FoundFault,
        string? FoundKind,
        string? FoundCause,
        DateTimeOffset? FoundAt,
        double MinutesDown,
        int ReadingCount,
        string? FirstNamed,
        string? LastNamed,
        double LastShare,
        int? Par
    );
}
