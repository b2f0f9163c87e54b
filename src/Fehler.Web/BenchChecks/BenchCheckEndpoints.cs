using System.Collections.Immutable;
using System.Net.Mime;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Web.Circuits;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.BenchChecks;

/// <summary>What was found at one item: a reading in ohm as it was written down, or whether it looked good.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Reading">The reading ("0.3", "4.7k", "OL"); empty for a look.</param>
/// <param name="Good">What a person judged a look to be; a reading is judged here.</param>
public sealed record BenchCheckEntry(string Id, string Reading, bool? Good);

/// <summary>A bench check to be recorded; items that were not done are left out.</summary>
public sealed record RecordBenchCheck(string Who, ImmutableArray<BenchCheckEntry> Items)
{
    /// <summary>Open job whose journal takes the readings as evidence too: each of a device by itself; none when absent.</summary>
    public Guid? Job { get; init; }
}

/// <summary>A recorded bench check.</summary>
public sealed record BenchCheckView(
    Guid Id,
    DateTimeOffset At,
    string Who,
    int Version,
    int Passed,
    int Failed,
    ImmutableArray<BenchCheckResult> Items
)
{
    /// <summary>Why readings were left out of the job's journal, each reason once; empty when all went in, and for a check read back.</summary>
    public ImmutableArray<string> NotInJob { get; init; } = [];
}

internal static class BenchCheckEndpoints
{
    private const int MostItems = 2_000;

    public static void MapBenchChecks(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits/{id:guid}").WithTags("Bench check");
        circuits
            .MapGet("bench-check", Items)
            .WithName("getBenchCheck")
            .WithSummary("The component test of this circuit")
            .ProducesProblem(404);
        circuits
            .MapGet("bench-checks", List)
            .WithName("listBenchChecks")
            .WithSummary("Bench checks that were made on this circuit")
            .ProducesProblem(404);
        circuits
            .MapPost("bench-check/judged", Judge)
            .Accepts<RecordBenchCheck>(MediaTypeNames.Application.Json)
            .WithName("judgeBenchCheck")
            .Needs(Rights.None)
            .WithSummary("Judges readings of a bench check without recording them")
            .ProducesProblem(404)
            .ProducesProblem(422);
        circuits
            .MapPost("bench-checks", Record)
            .Accepts<RecordBenchCheck>(MediaTypeNames.Application.Json)
            .WithName("recordBenchCheck")
            .Needs(Rights.Jobs)
            .WithSummary("Records a bench check; readings are judged against what a good component shows")
            .WithDescription(
                "With 'job' the readings are entries of its journal too; what its journal refuses is left out and told; when it "
                    + "refuses all, nothing is recorded."
            )
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static async Task<Results<Ok<ImmutableArray<BenchCheckItem>>, ProblemHttpResult>> Items(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) => await store.FindAsync(id, cancellation) is { } found ? TypedResults.Ok(found.Compiled.BenchCheck.Items) : NotHere.Circuit();

    private static async Task<Results<Ok<List<BenchCheckView>>, ProblemHttpResult>> List(
        Guid id,
        CircuitStore store,
        FehlerDb db,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is null)
        {
            return NotHere.Circuit();
        }

        var versions = await db
            .CircuitVersions.AsNoTracking()
            .Where(v => v.CircuitId == id)
            .ToDictionaryAsync(v => v.Id, v => v.Number, cancellation);
        var rows = await db.BenchChecks.AsNoTracking().Where(b => b.CircuitId == id).OrderByDescending(b => b.At).ToListAsync(cancellation);
        return TypedResults.Ok(rows.Select(r => View(r, versions[r.CircuitVersionId])).ToList());
    }

    private static async Task<Results<Ok<ImmutableArray<BenchCheckResult>>, ProblemHttpResult>> Judge(
        Guid id,
        Body<RecordBenchCheck> body,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(Compared(found.Compiled, [.. Checked(body.Value).Items.Select(e => Judged(found.Compiled, e))]))
            : NotHere.Circuit();

    /// <exception cref="RefusedException">It is not a bench check.</exception>
    private static RecordBenchCheck Checked(RecordBenchCheck request) =>
        request.Items.IsDefaultOrEmpty ? throw new RefusedException("Nothing was checked yet: write down at least one reading or look.")
        : request.Items.Length > MostItems || request.Items.Any(e => e?.Id is null) || request.Who is null or { Length: > 60 }
            ? throw new RefusedException(
                $"A bench check has at most {MostItems} items, each with the id of its item, and a name of at most 60 characters."
            )
        : request;

    private static async Task<Results<Ok<BenchCheckView>, ProblemHttpResult>> Record(
        Guid id,
        Body<RecordBenchCheck> body,
        Caller caller,
        CircuitStore store,
        JobStore jobs,
        JournalDoor door,
        FehlerDb db,
        FollowedValues followed,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var request = Checked(body.Value);
        request = request with { Who = caller.Named(request.Who) };
        var results = Compared(found.Compiled, [.. request.Items.Select(e => Judged(found.Compiled, e))]);
        ImmutableArray<string> leftOut = request.Job is { } job ? await IntoJobAsync(job, id, request, jobs, door, cancellation) : [];

        var row = new BenchCheckRow
        {
            Id = Guid.CreateVersion7(),
            CircuitId = id,
            CircuitVersionId = found.VersionId,
            At = time.GetUtcNow(),
            Who = request.Who,
            Passed = results.Count(r => r.Good),
            Failed = results.Count(r => !r.Good),
            Json = JsonSerializer.Serialize(results),
        };
        db.BenchChecks.Add(row);
        await db.SaveChangesAsync(cancellation);
        await followed.OfBenchCheckAsync(row, found.Compiled, results, cancellation);
        return TypedResults.Ok(View(row, found.Number) with { NotInJob = leftOut });
    }

    /// <summary>The readings into the journal of a job on this circuit; why some were left out of it, each reason once.</summary>
    /// <exception cref="RefusedException">There is no such job, or its journal takes none of them.</exception>
    private static async Task<ImmutableArray<string>> IntoJobAsync(
        Guid jobId,
        Guid circuitId,
        RecordBenchCheck request,
        JobStore jobs,
        JournalDoor door,
        CancellationToken cancellation
    )
    {
        if (await jobs.FindAsync(jobId, cancellation) is not { } job || job.Row.CircuitId != circuitId)
        {
            throw new RefusedException("There is no such job on this circuit.");
        }

        // The job keeps the version of the circuit that it was opened on.
        var entries = request
            .Items.Select(e => (Item: job.Compiled.BenchCheck.Find(e.Id), e.Reading))
            .Where(e => e.Item is { IsMeasured: true })
            .Select(e => e.Item!.AsEntry(e.Reading) with { Who = request.Who })
            .Select(e => (Entry: e, Reason: job.State.Refuse(e)))
            .ToList();
        if (entries.Count > 0 && entries.TrueForAll(e => e.Reason is not null))
        {
            throw new RefusedException($"Not taken into the job: {entries[0].Reason}");
        }

        var leftOut = entries.Select(e => e.Reason).OfType<string>().ToHashSet();
        foreach (var (entry, _) in entries.Where(e => e.Reason is null))
        {
            if (await door.AppendAsync(jobId, entry, cancellation) is DoorAnswer.Refused refused)
            {
                leftOut.Add(refused.Reason);
            }
        }

        return [.. leftOut];
    }

    /// <summary>Each reading is judged by itself first, then windings beside their twins.</summary>
    private static ImmutableArray<BenchCheckResult> Compared(CompiledCircuit compiled, ImmutableArray<BenchCheckResult> results)
    {
        var check = compiled.BenchCheck;
        var unlike = check.UnlikeTwins(
            results
                .Where(r => r.Good && check.Find(r.Id) is { IsMeasured: true })
                .DistinctBy(r => r.Id)
                .ToDictionary(r => r.Id, r => ReadingText.ParseOhms(r.Reading))
        );
        return [.. results.Select(r => unlike.TryGetValue(r.Id, out var why) ? r with { Reading = why, Good = false } : r)];
    }

    private static BenchCheckResult Judged(CompiledCircuit compiled, BenchCheckEntry entry)
    {
        var item =
            compiled.BenchCheck.Find(entry.Id)
            ?? throw new RefusedException($"The bench check has no item '{entry.Id[..Math.Min(60, entry.Id.Length)]}'.");
        if (!item.IsMeasured)
        {
            return new BenchCheckResult(
                item.Id,
                item.Device,
                item.What,
                "",
                entry.Good ?? throw new RefusedException($"Say whether '{item.What}' of {item.Device} is good.")
            );
        }

        try
        {
            return new BenchCheckResult(
                item.Id,
                item.Device,
                item.What,
                entry.Reading?.Trim() ?? "",
                item.IsGood(ReadingText.ParseOhms(entry.Reading ?? ""))
            );
        }
        catch (RefusedException e)
        {
            throw new RefusedException($"{item.Device}, {item.What}: {e.Message}", e);
        }
    }

    private static BenchCheckView View(BenchCheckRow row, int version) =>
        new(row.Id, row.At, row.Who, version, row.Passed, row.Failed, BenchCheckResult.Read(row.Json));
}
