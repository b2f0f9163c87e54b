using System.Globalization;
using Fehler.Core.Jobs;

namespace Fehler.Core.Upkeep;

/// <summary>
/// Currents beside those of another way of running, forward and reverse, lifting and lowering: motor and cable are the same, so what differs
/// is this way's load, contactor or joints (common practice).
/// </summary>
public static class OtherWay
{
    /// <summary>Further apart than this is to be looked into; a clamp and a load are not steadier.</summary>
    private const double AlikeShare = 0.1;

    /// <summary>What three currents say beside those that were taken at the same place while something else ran.</summary>
    /// <param name="job">The job as it stands now.</param>
    /// <param name="place">Id of the place, as <c>ThreeLines</c> has it.</param>
    /// <param name="amps">The three currents.</param>
    /// <returns>Null where nothing was taken the other way, or nobody has seen what runs now.</returns>
    public static string? Says(JobState job, string place, IReadOnlyCollection<double> amps)
    {
        var series = job.Compiled.SeriesValues;
        var now = series.WorkingAtTheEnd(job);
        var other = series
            .Of(job)
            .Where(v => v.Key.What == Followed.RunningAmps && v.Key.Device == place && v.Key.State != now)
            .GroupBy(v => v.Key.State)
            .LastOrDefault();
        if (now.Length == 0 || other is null)
        {
            return null;
        }

        // Of each line what was read last.
        var mean = other.GroupBy(v => v.Key.Points).Average(g => g.Last().Value);
        if (mean <= 0)
        {
            return null;
        }

        var share = amps.Average() / mean - 1;
        var shown = mean.ToString("0.##", CultureInfo.InvariantCulture);
        return Math.Abs(share) <= AlikeShare
            ? $"As while {other.Key} ({shown} A): motor and cable are the same, and so is what they draw."
            : $"While {other.Key} it drew {shown} A; now {(Math.Abs(share) * 100).ToString("0", CultureInfo.InvariantCulture)} % "
                + $"{(share > 0 ? "more" : "less")}. Motor and cable are the same both ways: look at this way's load, its "
                + $"contactor's poles and joints.";
    }
}
