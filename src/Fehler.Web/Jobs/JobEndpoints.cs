using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Web.Circuits;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Jobs;

internal static class JobEndpoints
{
    public static void MapJobs(this IEndpointRouteBuilder routes)
    {
        var jobs = routes.MapGroup("/api/jobs").WithTags("Jobs");
        jobs.MapGet("", (JobStore store, CancellationToken cancellation) => store.ListAsync(null, cancellation)).WithName("listJobs").WithSummary("The logbook");
        jobs.MapPost("", Open).WithName("openJob").WithSummary("Opens a job on a circuit").ProducesProblem(404).ProducesProblem(422);
        jobs.MapGet("{id:guid}", Get).WithName("getJob").WithSummary("A job with its journal and its state").ProducesProblem(404);
        jobs.MapGet("{id:guid}/sequence", Sequence).WithName("getSequence").WithSummary("Number of journal entries, to notice what another screen recorded").ProducesProblem(404);
        jobs.MapPost("{id:guid}/entries", Append).WithName("addEntry").WithSummary("Records a journal entry; answered once it is on disk")
            .WithDescription("Give the entry an id of your own: sent again after a lost answer, it is recorded once.").ProducesProblem(404).ProducesProblem(409).ProducesProblem(422);
    }

    private static async Task<Results<Created<JobView>, ProblemHttpResult>> Open(OpenJob request, CircuitStore circuits, JobStore store, JobSessions sessions, CancellationToken cancellation)
    {
        if (string.IsNullOrWhiteSpace(request.Complaint))
        {
            return TypedResults.Problem("Say what the circuit does wrong, in a few words.", statusCode: 422);
        }

        if (await circuits.FindAsync(request.CircuitId, cancellation) is not { } found)
        {
            return TypedResults.Problem("There is no such circuit in the register.", statusCode: 404);
        }

        var id = await store.OpenAsync(request.CircuitId, found.Version.Id, request.Complaint.Trim(), request.Who, null, cancellation);
        var job = (await store.FindAsync(id, cancellation))!;
        // The suspects are worked out while the first entries are typed.
        var session = sessions.Of(id, job.Compiled);
        _ = session.DiagnoseAsync(job.State, Strategy.MostTelling, Without.None, await session.HistoryAsync(() => store.HistoryAsync(job.Row, cancellation)), CancellationToken.None);
        return TypedResults.Created($"/api/jobs/{id}", job.ToView());
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> Get(Guid id, JobStore store, CancellationToken cancellation) =>
        await store.FindAsync(id, cancellation) is { } job ? TypedResults.Ok(job.ToView()) : NoJob();

    private static async Task<Results<Ok<int>, ProblemHttpResult>> Sequence(Guid id, JobStore store, CancellationToken cancellation) =>
        await store.SequenceAsync(id, cancellation) is { } sequence ? TypedResults.Ok(sequence) : NoJob();

    private static async Task<Results<Ok<Recorded>, ProblemHttpResult>> Append(Guid id, JournalEntry entry, JobStore store, JobSessions sessions, CancellationToken cancellation)
    {
        if (await store.FindAsync(id, cancellation) is not { } first)
        {
            return NoJob();
        }

        return await sessions.Of(id, first.Compiled).InTurnAsync<Results<Ok<Recorded>, ProblemHttpResult>>(async () =>
        {
            if (entry.Id != Guid.Empty && await store.KnownAsync(id, entry.Id, cancellation) is { } known)
            {
                return TypedResults.Ok(new Recorded(known, true));
            }

            // Read again in turn: another screen may have recorded something meanwhile.
            var job = (await store.FindAsync(id, cancellation))!;
            if (Incomplete(entry) is { } missing)
            {
                return TypedResults.Problem(missing, statusCode: 422, title: "Not recorded");
            }

            if (job.State.Refuse(entry) is { } reason)
            {
                return TypedResults.Problem(reason, statusCode: job.State.Closing is null ? 422 : 409, title: "Not recorded");
            }

            var stamped = await store.AppendAsync(job, entry, cancellation);
            return TypedResults.Ok(new Recorded(stamped.Sequence, false));
        }, cancellation);
    }

    /// <summary>What JSON may leave out of an entry although it cannot do without.</summary>
    private static string? Incomplete(JournalEntry entry) => entry switch
    {
        OperationSeen { Steps.IsDefaultOrEmpty: true } => "An operation has at least one step.",
        Isolated { Points.IsDefault: true } => "Name the isolating devices that were opened.",
        Reading { Held.IsDefault: true } => "Say what was held during the reading; an empty list for nothing.",
        Repair { Parts.IsDefault: true } => "Say which parts were used; an empty list for none.",
        _ => null,
    };

    private static ProblemHttpResult NoJob() => TypedResults.Problem("There is no such job.", statusCode: 404);
}
