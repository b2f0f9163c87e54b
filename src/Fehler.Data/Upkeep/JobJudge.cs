using Fehler.Core.Bench;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>
/// Works out, once a job is closed and proved, how the diagnosis did on it: what it named before any reading and what before the finding,
/// and how many readings following every proposal takes for that fault. What was learned since does not count.
/// </summary>
public sealed class JobJudge(FehlerDb db, JobStore jobs)
{
    /// <summary>Older jobs say little about what the program does now.</summary>
    private static readonly TimeSpan MostAge = TimeSpan.FromDays(800);

    /// <summary>Judges the newest job that is not judged; false when there is none left.</summary>
    /// <param name="setAside">Jobs that are left aside.</param>
    /// <param name="begins">Told which job it is.</param>
    /// <param name="quietly">Does what takes seconds of a processor, where that is in nobody's way.</param>
    /// <param name="cancellation">Ends it.</param>
    public async Task<bool> CatchUpAsync(
        IReadOnlySet<Guid> setAside,
        Action<Guid> begins,
        Func<Action, CancellationToken, Task> quietly,
        CancellationToken cancellation
    )
    {
        var (proved, since) = (nameof(CloseOutcome.RepairedAndProved), DateTimeOffset.UtcNow - MostAge);
        var row = await db
            .Jobs.Where(j =>
                j.Outcome == proved
                && j.FirstNamed == null
                && j.FoundFault != null
                && j.FoundFault != ""
                && j.OpenedAt >= since
                && !setAside.Contains(j.Id)
            )
            .OrderByDescending(j => j.OpenedAt)
            .FirstOrDefaultAsync(cancellation);
        if (row is null)
        {
            return false;
        }

        begins(row.Id);
        var job = (await jobs.FindAsync(row.Id, cancellation))!;
        await quietly(() => Judge(row, job.State, cancellation), cancellation);
        await db.SaveChangesAsync(cancellation);
        return true;
    }

    private static void Judge(JobRow row, JobState job, CancellationToken cancellation)
    {
        var session = new DiagnosisSession(job.Compiled);
        (string Unit, double Share) Named(IEnumerable<JournalEntry> entries)
        {
            var units = session.Diagnose(JobState.Of(job.Compiled, entries), cancellation: cancellation).Units;
            return units.FirstOrDefault(u => u.Unit.Length > 0) is { } first ? (first.Unit, first.Probability) : ("", 0);
        }

        var before = job.Valid.TakeWhile(e => e is not Finding).ToList();
        (row.FirstNamed, row.FirstShare) = Named(before.TakeWhile(e => e is not Reading));
        (row.LastNamed, row.LastShare) = Named(before);
        if (job.Compiled.Faults.Find(row.FoundFault!) is { } fault)
        {
            row.Par = GuidedRun.On(job.Compiled, fault).Readings;
        }
    }
}
