using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>Whether what a job has recorded so far still makes sense on a circuit that was corrected meanwhile.</summary>
public static class Correction
{
    /// <summary>
    /// The journal is gone through again on the corrected circuit: an entry that could not be recorded there names something that would be
    /// gone.
    /// </summary>
    /// <param name="job">The job on the circuit as it was described.</param>
    /// <param name="corrected">The circuit as it is.</param>
    /// <returns>Why the job cannot go on with it, in words that say what to do; null when it can.</returns>
    public static string? Refuse(JobState job, CompiledCircuit corrected)
    {
        if (job.Closing is not null)
        {
            return "The job is closed; change the circuit on its own page.";
        }

        var state = JobState.Of(corrected, []);
        foreach (var entry in job.Valid)
        {
            if (state.Refuse(entry) is { } reason)
            {
                return $"Entry {entry.Sequence}, “{EntryWords.Of(job, entry)}”, would no longer fit: {reason} Strike it out, or change "
                    + $"the circuit once the job "
                    + "is closed.";
            }

            state = state.With(entry);
        }

        return null;
    }
}
