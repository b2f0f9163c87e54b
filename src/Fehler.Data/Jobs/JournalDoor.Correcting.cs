using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <content>A job goes on with a corrected circuit.</content>
public sealed partial class JournalDoor
{
    /// <summary>
    /// The panel differs from its description: the circuit is corrected as a new version, and the job goes on with that, if everything it has
    /// recorded still fits.
    /// </summary>
    /// <param name="jobId">The job.</param>
    /// <param name="correct">Makes the corrected circuit of the job's.</param>
    /// <param name="what">What differs, in words.</param>
    /// <param name="who">Who found it.</param>
    /// <param name="cancellation">Cancels it.</param>
    /// <exception cref="RefusedException">The correction makes no circuit.</exception>
    public Task<DoorAnswer> CorrectAsync(
        Guid jobId,
        Func<Circuit, Circuit> correct,
        string what,
        string who,
        CancellationToken cancellation
    ) => turns.InTurnAsync(TurnOf(jobId), () => CorrectInTurnAsync(jobId, correct, what, who, cancellation), cancellation);

    private async Task<DoorAnswer> CorrectInTurnAsync(
        Guid jobId,
        Func<Circuit, Circuit> correct,
        string what,
        string who,
        CancellationToken cancellation
    )
    {
        if (await jobs.FindAsync(jobId, cancellation) is not { } job)
        {
            return new DoorAnswer.NoSuchJob();
        }

        if (job.Exercise is not null)
        {
            return new DoorAnswer.Refused(
                "This is an exercise: the drawing of the real panel is not changed from it. Note what differs.",
                false
            );
        }

        if (await circuits.FindAsync(job.Row.CircuitId, cancellation) is not { } newest || newest.VersionId != job.Row.CircuitVersionId)
        {
            return new DoorAnswer.Refused(
                "The circuit was changed since this job was opened: correct it on its own page, the next job begins with that.",
                true
            );
        }

        var file = await Task.Run(() => CircuitFile.Write(correct(job.Circuit)), cancellation);
        if (CircuitFile.Read(file).Tag != job.Circuit.Tag)
        {
            return new DoorAnswer.Refused("The designation of a circuit is changed on its own page.", false);
        }

        if (Correction.Refuse(job.State, await Task.Run(() => CircuitAcceptance.Read(file), cancellation)) is { } reason)
        {
            return new DoorAnswer.Refused(reason, job.State.Closing is not null);
        }

        var taken = await circuits.ImportAsync(file, cancellation);
        if (!taken.IsNew)
        {
            return new DoorAnswer.Refused("That is how the circuit is described already; nothing has changed.", false);
        }

        var corrected = (await circuits.FindAsync(job.Row.CircuitId, cancellation))!;
        var row = await db.Jobs.IgnoreQueryFilters().FirstAsync(j => j.Id == jobId, cancellation);
        row.CircuitVersionId = corrected.VersionId;
        var now = time.GetUtcNow();
        var entry = new CircuitCorrected(job.CircuitVersion, corrected.Number, what)
        {
            Id = Guid.CreateVersion7(),
            Sequence = NextSequence(job),
            At = now,
            Received = now,
            Who = who,
            MadeOn = maker.Device,
        };
        var after = JobState.Of(corrected.Compiled, job.State.Entries.Append(entry));
        db.Journal.Add(ToRow(jobId, entry));
        Project(row, after, entry.Sequence);
        await SaveAsync(row, after, true, cancellation);
        news.Tell(jobId, row.EntryCount);
        return new DoorAnswer.Recorded((await jobs.FindAsync(jobId, cancellation))!, entry.Sequence, false);
    }
}
