using System.Text.Json;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <content>An exercise is a job whose panel is simulated: what is seen and measured comes from there.</content>
public sealed partial class JournalDoor
{
    /// <summary>Opens an exercise: a job with a hidden fault, its complaint as an operator would say it.</summary>
    /// <returns>Null when there is no such circuit.</returns>
    /// <exception cref="RefusedException">The circuit has no such fault.</exception>
    public async Task<OpenedJob?> PractiseAsync(
        Guid circuitId,
        Func<CompiledCircuit, Exercise> hide,
        string who,
        CancellationToken cancellation
    )
    {
        if (await circuits.FindAsync(circuitId, cancellation) is not { } found)
        {
            return null;
        }

        var (exercise, complaint) = await Task.Run(
            () =>
            {
                var hidden = hide(found.Compiled);
                var said = PanelTrial.Of(found.Compiled, [.. hidden.Faults.Select(f => f.In(found.Compiled)!)]).Complaint;
                return (hidden, hidden.Difficulty == Difficulty.Intermittent ? $"{said}, now and then" : said);
            },
            cancellation
        );
        var job = new JobRow
        {
            Id = Guid.CreateVersion7(),
            CircuitId = circuitId,
            CircuitVersionId = found.VersionId,
            Title = complaint,
            OpenedAt = time.GetUtcNow(),
            Exercise = Written(exercise),
        };
        await BeginAsync(job, found.Compiled, [new Complaint(complaint)], new Stamp(job.OpenedAt, who.Trim()), cancellation);
        return await jobs.FindAsync(job.Id, cancellation);
    }

    /// <summary>Ends an exercise that nobody goes on with, so that it can be looked at.</summary>
    /// <returns>Null when there is no such exercise.</returns>
    public Task<OpenedJob?> GiveUpAsync(Guid jobId, string who, CancellationToken cancellation) =>
        turns.InTurnAsync(
            TurnOf(jobId),
            async () =>
            {
                if (await jobs.FindAsync(jobId, cancellation) is not { Exercise: { } exercise } job)
                {
                    return null;
                }

                if (exercise.Stopped.Length == 0 && job.State.Closing is null)
                {
                    await StopAsync(job, exercise, "Given up.", who, cancellation);
                }

                return await jobs.FindAsync(jobId, cancellation);
            },
            cancellation
        );

    /// <summary>What comes of an entry on the panel of an exercise; nothing for a job.</summary>
    private static ((Exercise Exercise, PanelAnswer Answer)? Exercise, DoorAnswer.Refused? Ended) Practised(
        OpenedJob job,
        JournalEntry entry
    )
    {
        if (job.Exercise is not { } exercise || job.State.Closing is not null)
        {
            return (null, null);
        }

        if (exercise.Stopped.Length > 0)
        {
            return (
                null,
                new DoorAnswer.Refused($"This exercise has ended. {exercise.Stopped} Look at the debrief, then begin another.", true)
            );
        }

        if (EntryRules.RefuseIncomplete(entry) is { } wrong)
        {
            return (null, new DoorAnswer.Refused(wrong, false));
        }

        return ((exercise, new ExercisePanel(job.Compiled, exercise, job.State.Entries).Answer(entry, job.State)), null);
    }

    private async Task StopAsync(OpenedJob job, Exercise exercise, string why, string who, CancellationToken cancellation)
    {
        var now = time.GetUtcNow();
        var row = await db.Jobs.IgnoreQueryFilters().FirstAsync(j => j.Id == job.Row.Id, cancellation);
        var note = new Note($"Stopped: {why}")
        {
            Id = Guid.CreateVersion7(),
            Sequence = NextSequence(job),
            At = now,
            Received = now,
            Who = who,
        };
        var after = job.State.With(note);
        db.Journal.Add(ToRow(row.Id, note));
        Project(row, after, note.Sequence);
        row.Exercise = Written(exercise with { Stopped = why });
        await SaveAsync(row, after, false, cancellation);
        news.Tell(row.Id, row.EntryCount);
    }

    private static string Written(Exercise exercise) => JsonSerializer.Serialize(exercise, JournalJson.Options);
}
