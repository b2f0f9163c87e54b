using Fehler.Data;
using Fehler.Desk;

namespace Fehler.Web.Jobs;

/// <summary>Jobs of the database as they are shown.</summary>
internal static class OpenedJobs
{
    public static ShownJob Shown(this OpenedJob job) =>
        new(
            job.Row.Id,
            job.Row.CircuitId,
            job.CircuitVersion,
            job.Row.Title,
            job.Row.OpenedAt,
            job.Row.EntryCount,
            job.Row.Origin,
            job.State,
            job.SetAside,
            job.Exercise
        );

    public static JobView ToView(this OpenedJob job) => job.Shown().ToView();
}
