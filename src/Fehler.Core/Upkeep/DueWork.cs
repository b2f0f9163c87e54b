using System.Collections.Immutable;
using Fehler.Core.Jobs;

namespace Fehler.Core.Upkeep;

/// <summary>A job of the past, as far as upkeep asks.</summary>
/// <param name="OpenedAt">When it began.</param>
/// <param name="FoundFault">Id of the fault that was found; null for none.</param>
/// <param name="FoundText">What was found, in words.</param>
/// <param name="Tripped">What was found only tripped or blew because of something else, or something stood tripped.</param>
/// <param name="Told">What was told of it.</param>
public sealed record PastJob(
    DateTimeOffset OpenedAt,
    string? FoundFault,
    string? FoundText,
    bool Tripped,
    ImmutableArray<Circumstance> Told
);

/// <summary>Something that makes a rule due sooner than its interval.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="Since">What was done after this has answered it; what was measured at this very moment has brought it up.</param>
/// <param name="Due">The day by which.</param>
/// <param name="Why">What made it so, in words.</param>
public sealed record Condition(string Rule, DateTimeOffset Since, DateOnly Due, string Why)
{
    /// <summary>Two trips within this time are no chance.</summary>
    private static readonly TimeSpan OneMonth = TimeSpan.FromDays(31);

    /// <summary>What jobs and values of a circuit ask for.</summary>
    /// <param name="rules">The circuit's rules.</param>
    /// <param name="jobs">Its jobs in any order.</param>
    /// <param name="series">Its followed values.</param>
    public static ImmutableArray<Condition> Of(UpkeepRules rules, IEnumerable<PastJob> jobs, IEnumerable<Series> series)
    {
        var past = jobs.OrderBy(j => j.OpenedAt).ToList();
        var twice = past.Where(j => j.Tripped)
            .Zip(past.Where(j => j.Tripped).Skip(1))
            .LastOrDefault(p => p.Second.OpenedAt - p.First.OpenedAt <= OneMonth);
        var found = new List<Condition>();
        foreach (var rule in rules.All.Select(r => r.Rule))
        {
            foreach (
                var job in past.Where(j =>
                    j.FoundFault is { } fault && rule.AfterFaults.Any(w => KindOf(fault).Contains(w, StringComparison.Ordinal))
                )
            )
            {
                found.Add(Soon(rule, job.OpenedAt, $"“{job.FoundText ?? job.FoundFault}” on {Day(job.OpenedAt):yyyy-MM-dd}"));
            }

            foreach (var (job, told) in past.SelectMany(j => j.Told.Intersect(rule.AfterTold).Select(t => (j, t))))
            {
                found.Add(
                    AtOnce(
                        rule,
                        job.OpenedAt,
                        $"{(told == Circumstance.Water ? "water was told of" : "what was told")} on {Day(job.OpenedAt):yyyy-MM-dd}"
                    )
                );
            }

            if (rule.AfterTrips && twice != default)
            {
                found.Add(
                    AtOnce(rule, twice.Second.OpenedAt, $"the second trip within a month on {Day(twice.Second.OpenedAt):yyyy-MM-dd}")
                );
            }

            foreach (var one in series.Where(s => rule.Follows.Contains(s.Key.What)))
            {
                var name =
                    $"{one.Key.What.Name().ToLowerInvariant()} of {one.Key.Device}{(one.Key.Points.Length > 0 ? $" {one.Key.Points}" : "")}";
                if (one.IsBeyond)
                {
                    found.Add(AtOnce(rule, one.Last.At, $"{name}: {one.Says}"));
                }
                else if (one.Reaches is { } reaches)
                {
                    // Half way to the earliest day: early enough to see whether it goes on so.
                    var half = one.Last.At + (reaches.Earliest - one.Last.At) / 2;
                    found.Add(new Condition(rule.Id, one.Last.At, Day(half), $"{name}: {one.Says}"));
                }
            }
        }

        // The soonest of each rule and moment is what counts.
        return [.. found.GroupBy(c => (c.Rule, c.Since)).Select(g => g.MinBy(c => c.Due)!)];
    }

    private static string KindOf(string fault) => fault[(fault.IndexOf('/', StringComparison.Ordinal) + 1)..];

    /// <summary>What was found was put right; what is beside it is looked at within a month.</summary>
    private static Condition Soon(UpkeepRule rule, DateTimeOffset when, string why) => new(rule.Id, when, Day(when + OneMonth), why);

    private static Condition AtOnce(UpkeepRule rule, DateTimeOffset when, string why) => new(rule.Id, when, Day(when), why);

    private static DateOnly Day(DateTimeOffset when) => DateOnly.FromDateTime(when.UtcDateTime);
}

/// <summary>When a rule is due on a circuit.</summary>
/// <param name="Due">The day by which.</param>
/// <param name="Why">What moved it; empty where only the interval speaks.</param>
public sealed record DueDay(DateOnly Due, string Why)
{
    /// <summary>The day by which something is due.</summary>
    /// <param name="rule">The rule's name.</param>
    /// <param name="months">The interval that holds here.</param>
    /// <param name="last">When it was done last; null when it never was.</param>
    /// <param name="begin">From when it is counted where it never was: when the circuit came into the register.</param>
    /// <param name="conditions">What jobs and values ask for.</param>
    public static DueDay Of(string rule, int months, DateTimeOffset? last, DateTimeOffset begin, IEnumerable<Condition> conditions)
    {
        var usual = DateOnly.FromDateTime((last ?? begin).UtcDateTime).AddMonths(months);
        var sooner = conditions.Where(c => c.Rule == rule && (last is null || c.Since >= last)).MinBy(c => c.Due);
        return sooner is not null && sooner.Due < usual ? new DueDay(sooner.Due, sooner.Why) : new DueDay(usual, "");
    }
}
