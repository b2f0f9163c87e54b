using System.Collections.Immutable;
using System.Net.Mime;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Practice;

/// <summary>What an exercise is begun with.</summary>
/// <param name="Circuit">The circuit whose panel is simulated.</param>
/// <param name="Difficulty">What kind of fault is hidden.</param>
/// <param name="Code">The same word gives everybody the same fault on the same circuit; chance when absent.</param>
/// <param name="WithAdvice">Suspects and next tests are shown while it goes on.</param>
/// <param name="Lesson">Lesson of the path; sets what is hidden.</param>
/// <param name="Faults">Faults set by the instructor, by their ids; drawn when absent.</param>
public sealed record BeginExercise(
    Guid Circuit,
    Difficulty Difficulty = Difficulty.Single,
    string? Code = null,
    bool WithAdvice = false,
    string? Who = null,
    ImmutableArray<string>? Faults = null,
    string? Lesson = null
);

/// <summary>Who ends it.</summary>
public sealed record GiveUp(string? Who);

internal static class ExerciseEndpoints
{
    private const int MostFaults = 2,
        LongestCode = 40;

    public static void MapExercises(this IEndpointRouteBuilder routes)
    {
        var exercises = routes.MapGroup("/api/exercises").WithTags("Practice");
        exercises
            .MapPost("", Begin)
            .Accepts<BeginExercise>(MediaTypeNames.Application.Json)
            .WithName("beginExercise")
            .Needs(Rights.Jobs)
            .WithSummary("Hides a fault in a simulated panel and opens an exercise on it")
            .WithDescription(
                "The answer is a job. Its entries go to /api/jobs/{id}/entries like those of any: what they say was seen or measured is replaced "
                    + "by what the simulated panel shows. An act that would hurt somebody ends it, answered with 409."
            )
            .ProducesProblem(404)
            .ProducesProblem(422);
        exercises
            .MapGet("lessons", () => Lesson.Path)
            .WithName("listLessons")
            .WithSummary("The lessons of the practice path, in the order of the work");
        exercises
            .MapGet("", List)
            .WithName("listExercises")
            .WithSummary("Exercises, the newest first")
            .WithDescription("'who' and 'code' narrow it.");
        exercises
            .MapGet("exercises.csv", Csv)
            .WithName("exportExercises")
            .WithSummary("The newest exercises as CSV, for an instructor")
            .Produces<string>(200, CsvText.Type);
        exercises
            .MapPost("{id:guid}/give-up", End)
            .Accepts<GiveUp>(MediaTypeNames.Application.Json)
            .WithName("giveUpExercise")
            .Needs(Rights.Jobs)
            .WithSummary("Ends an exercise that nobody goes on with")
            .ProducesProblem(404);
        exercises
            .MapGet("{id:guid}/debrief", Debriefed)
            .WithName("getDebrief")
            .WithSummary("What was hidden, what each step told, and par; once the exercise has ended")
            .ProducesProblem(404)
            .ProducesProblem(422);
    }

    private static async Task<Results<Created<JobView>, ProblemHttpResult>> Begin(
        Body<BeginExercise> body,
        Caller caller,
        JournalDoor door,
        CancellationToken cancellation
    )
    {
        var given = body.Value;
        var code = given.Code?.Trim() ?? "";
        if ((CircuitLimits.Refuse(code, LongestCode) ?? CircuitLimits.Refuse(given.Who ?? "", 60)) is { } wrong)
        {
            throw new RefusedException($"The code {wrong}");
        }

        if (!Enum.IsDefined(given.Difficulty))
        {
            throw new RefusedException("A fault is single, two, wiring, supply, setting, intermittent or consequence.");
        }

        var job = await door.PractiseAsync(given.Circuit, c => Hidden(c, given, code), caller.Named(given.Who), cancellation);
        return job is null ? NotHere.Circuit() : TypedResults.Created($"/api/jobs/{job.Row.Id}", job.ToView());
    }

    private static Exercise Hidden(CompiledCircuit compiled, BeginExercise given, string code)
    {
        if (!string.IsNullOrEmpty(given.Lesson))
        {
            var lesson = Lesson.Find(given.Lesson) ?? throw new RefusedException("There is no such lesson.");
            var taught =
                lesson.On(compiled)
                ?? throw new RefusedException($"This circuit has nothing for the lesson “{lesson.Title}”; choose another circuit.");
            return taught with { WithAdvice = given.WithAdvice };
        }

        if (given.Faults is not { IsDefaultOrEmpty: false } ids)
        {
            return Exercise.Hide(compiled, given.Difficulty, code, given.WithAdvice);
        }

        if (ids.Length > MostFaults || ids.Any(id => id is null || HiddenFault.Named(compiled, id) is null))
        {
            throw new RefusedException($"Set one or {MostFaults} faults by the ids that this circuit's catalogue has.");
        }

        return new Exercise(
            [.. ids.Select(id => HiddenFault.Named(compiled, id)!)],
            Random.Shared.Next(),
            given.Difficulty,
            code,
            given.WithAdvice
        );
    }

    private static Task<Page<ExerciseItem>> List(
        [AsParameters] ListParameters list,
        string? who,
        string? code,
        ExerciseStore store,
        CancellationToken cancellation
    ) => store.ListAsync(list.ToQuery(), who, code, cancellation);

    private static async Task<FileContentHttpResult> Csv(string? code, ExerciseStore store, CancellationToken cancellation)
    {
        var page = await store.ListAsync(new ListQuery(Take: ListQuery.MostTake), null, code, cancellation);
        return CsvText.File(
            "exercises.csv",
            ["who", "opened", "circuit", "kind", "code", "advice", "ended", "readings", "mistakes"],
            page.Items.Select(e =>
                new[]
                {
                    e.Who,
                    e.OpenedAt.ToString("O", System.Globalization.CultureInfo.InvariantCulture),
                    e.CircuitTag,
                    e.Difficulty.ToString(),
                    e.Code,
                    e.WithAdvice ? "yes" : "no",
                    e.Stopped.Length > 0 ? e.Stopped
                    : e.Found == true ? "found and proved"
                    : e.Found == false ? "closed, not found"
                    : "goes on",
                    e.Readings.ToString(System.Globalization.CultureInfo.InvariantCulture),
                    e.Mistakes.ToString(System.Globalization.CultureInfo.InvariantCulture),
                }
            )
        );
    }

    private static async Task<Results<Ok<JobView>, ProblemHttpResult>> End(
        Guid id,
        Body<GiveUp> body,
        Caller caller,
        JournalDoor door,
        CancellationToken cancellation
    ) =>
        await door.GiveUpAsync(id, caller.Named(body.Value.Who), cancellation) is { } job
            ? TypedResults.Ok(job.ToView())
            : NotHere.Exercise();

    private static async Task<Results<Ok<Debrief>, ProblemHttpResult>> Debriefed(Guid id, JobStore jobs, CancellationToken cancellation)
    {
        if (await jobs.FindAsync(id, cancellation) is not { Exercise: { } exercise } job)
        {
            return NotHere.Exercise();
        }

        return exercise.Stopped.Length == 0 && job.State.Closing is null
            ? throw new RefusedException("The exercise goes on: close it, or give it up, then look at it.")
            : TypedResults.Ok(await Task.Run(() => Debrief.Of(job.State, exercise, cancellation), cancellation));
    }
}
