using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Language;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Diagnosis;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Fehler.Web.Service;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Jobs;

internal static class JobEndpoints
{
    /// <summary>
    /// How long the answer to an entry waits for the diagnosis: what is recorded is acknowledged soon, and a first diagnosis of a large
    /// circuit
    /// takes seconds.
    /// </summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(1);

    public static void MapJobs(this IEndpointRouteBuilder routes)
    {
        var jobs = routes.MapGroup("/api/jobs").WithTags("Jobs");
        jobs.MapGet("", List)
            .WithName("listJobs")
            .WithSummary("The logbook, page by page")
            .WithDescription(
                "'search' words all have to occur; 'sort' is openedAt (default, newest first), circuitTag, title, foundText, "
                    + "outcome or entries; 'take' at most 200. "
                    + JobFilterParameters.Described
            );
        jobs.MapGet("choices", (JobStore store, CancellationToken cancellation) => store.ChoicesAsync(cancellation))
            .WithName("listJobChoices")
            .WithSummary("What the logbook can be narrowed to");
        jobs.MapGet("parts", (string? unit, JobStore store, CancellationToken cancellation) => store.PartsAsync(unit ?? "", cancellation))
            .WithName("listParts")
            .WithSummary("Parts that repairs used here, for units like this one first");
        jobs.MapPost("", Open)
            .WithName("openJob")
            .Needs(Rights.Jobs)
            .WithSummary("Opens a job on a circuit")
            .Accepts<OpenJob>(MediaTypeNames.Application.Json)
            .ProducesProblem(404)
            .ProducesProblem(422);
        jobs.MapGet("{id:guid}", Get)
            .WithName("getJob")
            .WithSummary("A job with its journal and its state")
            .ProducesProblem(404)
            .ProducesProblem(409);
        jobs.MapGet("{id:guid}/screen", Screen)
            .WithName("getJobScreen")
            .RequireRateLimiting(RateLimits.Diagnosis)
            .WithSummary("A job with its diagnosis: all that its screen shows")
            .WithDescription(DiagnosisEndpoints.Description)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        jobs.MapGet("{id:guid}/sequence", Sequence)
            .WithName("getSequence")
            .WithSummary("Number of journal entries, to notice what another screen recorded")
            .ProducesProblem(404);
        jobs.MapPost("{id:guid}/entries", Append)
            .WithName("addEntry")
            .Needs(Rights.Jobs)
            .WithSummary("Records a journal entry; answered once it is on disk, with what follows from it")
            .WithDescription(
                "Give the entry an id of your own: sent again after a lost answer, it is recorded once. "
                    + "'wait=false' answers as soon as it is on disk, without the diagnosis. "
                    + DiagnosisEndpoints.Description
            )
            .Accepts<JournalEntry>(MediaTypeNames.Application.Json)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
    }

    private static Task<Page<JobListItem>> List(
        [AsParameters] ListParameters list,
        [AsParameters] JobFilterParameters filter,
        JobStore store,
        CancellationToken cancellation
    ) => store.ListAsync(list.ToQuery(), filter.ToFilter(), cancellation);

    private static async Task<Results<Created<JobView>, ProblemHttpResult>> Open(
        Body<OpenJob> body,
        Caller caller,
        CircuitStore circuits,
        JournalDoor door,
        HistoryReader history,
        DiagnosisDesk desk,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        var request = body.Value;
        if (await circuits.FindAsync(request.CircuitId, cancellation) is not { } circuit)
        {
            return NotHere.Circuit();
        }

        var opening = JobOpening.Of(circuit.Compiled, request);
        if (
            await door.OpenAsync(
                request.CircuitId,
                opening.Complaint,
                opening.Reported,
                caller.Named(request.Who),
                request.Id ?? Guid.CreateVersion7(),
                request.At ?? time.GetUtcNow(),
                cancellation
            )
            is not { } job
        )
        {
            return NotHere.Circuit();
        }

        // The suspects are worked out while the first entries are typed.
        await desk.DiagnoseAsync(
            job,
            DiagnosisWish.Usual,
            () => history.OfAsync(job, CancellationToken.None),
            TimeSpan.Zero,
            CancellationToken.None
        );
        return TypedResults.Created($"/api/jobs/{job.Row.Id}", job.ToView());
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> Get(Guid id, JobStore store, CancellationToken cancellation) =>
        await store.FindAsync(id, cancellation) is { } job ? TypedResults.Ok(job.ToView()) : NotHere.Job();

    private static async Task<Results<Ok<int>, ProblemHttpResult>> Sequence(Guid id, JobStore store, CancellationToken cancellation) =>
        await store.SequenceAsync(id, cancellation) is { } sequence ? TypedResults.Ok(sequence) : NotHere.Job();

    private static async Task<Results<Ok<JobScreen>, ProblemHttpResult>> Screen(
        Guid id,
        string? strategy,
        string? without,
        bool? learn,
        string? words,
        JobStore store,
        HistoryReader history,
        DiagnosisDesk desk,
        CancellationToken cancellation
    )
    {
        var wish = DiagnosisWish.Parse(strategy, without, learn, words);
        return await store.FindAsync(id, cancellation) is { } job
            ? TypedResults.Ok(new JobScreen(job.ToView(), await DiagnosisAsync(job, wish, history, desk, cancellation)))
            : NotHere.Job();
    }

    private static async Task<Results<Ok<Recorded>, ProblemHttpResult>> Append(
        Guid id,
        Body<JournalEntry> entry,
        Caller caller,
        SecondPersons seconds,
        Figures figures,
        string? strategy,
        string? without,
        bool? learn,
        string? words,
        bool? wait,
        JournalDoor door,
        JobStore jobs,
        HistoryReader history,
        DiagnosisDesk desk,
        CancellationToken cancellation
    )
    {
        var wish = DiagnosisWish.Parse(strategy, without, learn, words);
        // Once it has come this far it is written, whether the answer still finds anybody or not.
        var second = seconds.Of(id, entry.Value.Id);
        if (
            caller.NeedsSecond
            && second is null
            && EntryRules.WantsSecondPerson(entry.Value)
            && !await jobs.IsExerciseAsync(id, cancellation)
        )
        {
            return TypedResults.Problem(
                "This needs a second person who may work alone: let them give their name and PIN or password.",
                statusCode: 422,
                title: SecondPersons.Title
            );
        }

        switch (await door.AppendAsync(id, caller.Made(entry.Value, second), CancellationToken.None))
        {
            case DoorAnswer.Refused refused:
                return TypedResults.Problem(refused.Reason, statusCode: refused.IsConflict ? 409 : 422, title: "Not recorded");
            case DoorAnswer.Recorded recorded:
                figures.Recorded();
                var diagnosis = wait == false ? null : await DiagnosisAsync(recorded.Job, wish, history, desk, cancellation);
                return TypedResults.Ok(new Recorded(recorded.Sequence, recorded.WasKnown, recorded.Job.ToView(), diagnosis));
            default:
                return NotHere.Job();
        }
    }

    /// <summary>A diagnosis that fails takes nothing away from what was recorded: it is logged, and asked for again by itself.</summary>
    private static async Task<DiagnosisView?> DiagnosisAsync(
        OpenedJob job,
        DiagnosisWish wish,
        HistoryReader history,
        DiagnosisDesk desk,
        CancellationToken cancellation
    )
    {
        try
        {
            var result = await desk.DiagnoseAsync(job, wish, () => history.OfAsync(job, CancellationToken.None), Patience, cancellation);
            return result is null ? null : new DiagnosisMapping(job.State, wish.Dialect).ToView(result).For(job.Shown());
        }
        catch (Exception e) when (e is not OperationCanceledException || !cancellation.IsCancellationRequested)
        {
            return null;
        }
    }
}
