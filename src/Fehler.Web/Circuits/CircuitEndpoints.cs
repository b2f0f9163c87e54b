using System.Collections.Immutable;
using System.Net.Mime;
using System.Text;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Circuits;

/// <summary>A fault mode of a circuit, by the id that the netlist takes.</summary>
/// <param name="IsDifference">A mistake in the wiring that is thought of only when nothing else fits.</param>
public sealed record FaultView(string Id, string Variant, string Unit, string Title, string Remedy, bool IsDifference);

/// <summary>How a circuit was left; nothing when it was left as it should be.</summary>
public sealed record LeftBehind(HandedOver? HandedOver);

/// <summary>A twin of a circuit.</summary>
/// <param name="Tag">Its designation.</param>
/// <param name="Title">Its title; that of the circuit it is copied from when empty.</param>
public sealed record CopyCircuit(string Tag, string? Title);

internal static class CircuitEndpoints
{
    public static void MapCircuits(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits").WithTags("Circuits");
        circuits
            .MapGet(
                "",
                (
                    [AsParameters] ListParameters list,
                    string? show,
                    string? area,
                    string? enclosure,
                    CircuitStore store,
                    CancellationToken cancellation
                ) =>
                    store.ListAsync(
                        list.ToQuery(),
                        new CircuitFilter
                        {
                            Show = Shown(show),
                            Area = area,
                            Enclosure = enclosure,
                        },
                        cancellation
                    )
            )
            .WithName("listCircuits")
            .WithSummary("The register, page by page")
            .WithDescription(
                "'search' words all have to occur; 'sort' is area (default), tag, openJob, jobs, recentJobs or lastFault; 'take' at most 200. "
                    + "'show' is all, notInOrder (an open job, or handed over) or comingBack (several jobs within a year)."
            );
        circuits
            .MapGet("choices", (CircuitStore store, CancellationToken cancellation) => store.ChoicesAsync(cancellation))
            .WithName("listCircuitChoices")
            .WithSummary("What the register can be narrowed to");
        circuits
            .MapPost("{id:guid}/copies", Copy)
            .Accepts<CopyCircuit>(MediaTypeNames.Application.Json)
            .WithName("copyCircuit")
            .Needs(Rights.Jobs | Rights.Planning)
            .WithSummary("Takes the newest version of a circuit in again under another designation, as the start of its twin")
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        circuits
            .MapPost("", Import)
            .WithName("importCircuit")
            .RequireRateLimiting(RateLimits.TakingIn)
            .Needs(Rights.Jobs | Rights.Planning)
            .WithSummary("Takes in a circuit file (docs/formats/circuit.schema.json) or a wiring list (docs/formats/wiring-list.md)")
            .WithDescription(
                "'from' is the name of the file; a wiring list that does not say its designation gets it from there. With 'isNew' a "
                    + "designation that is in the register already is refused instead of becoming its next version."
            )
            .Accepts<object>("application/json", "text/csv")
            .ProducesProblem(409)
            .ProducesProblem(422);
        circuits
            .MapGet(
                "{id:guid}/plate-check",
                async Task<Results<Ok<ImmutableArray<PlateRow>>, ProblemHttpResult>> (
                    Guid id,
                    CircuitStore store,
                    CancellationToken cancellation
                ) =>
                    await store.FindAsync(id, cancellation) is { } found
                        ? TypedResults.Ok(await Task.Run(() => PlateCheck.Of(found.Compiled), cancellation))
                        : NotHere.Circuit()
            )
            .WithName("getPlateCheck")
            .WithSummary("Plates and settings against motor and supply: what fits, what does not, and why")
            .ProducesProblem(404);
        circuits
            .MapPost(
                "{id:guid}/edits",
                async Task<Results<Ok<Imported>, ProblemHttpResult>> (
                    Guid id,
                    Body<CircuitEdit> edit,
                    CircuitStore store,
                    CancellationToken cancellation
                ) =>
                    await store.ChangeAsync(id, circuit => CircuitEditor.Apply(circuit, edit.Value), cancellation) is { } changed
                        ? TypedResults.Ok(changed)
                        : NotHere.Circuit()
            )
            .Accepts<CircuitEdit>(MediaTypeNames.Application.Json)
            .WithName("editCircuit")
            .Needs(Rights.Planning)
            .WithSummary("Changes a circuit by one edit: it gets a new version; open jobs stay with theirs")
            .ProducesProblem(404)
            .ProducesProblem(422);
        circuits.MapRegisterList();
        circuits.MapInQuestion();
        circuits
            .MapGet("schema", () => TypedResults.Content(CircuitSchema.Read().ToJsonString(), "application/schema+json"))
            .WithName("getCircuitSchema")
            .WithSummary("JSON Schema of the circuit file");
        circuits
            .MapGet("{id:guid}", Get)
            .WithName("getCircuit")
            .WithSummary("A circuit with its drawing: the newest version, or that of 'version'")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/file", File)
            .WithName("downloadCircuit")
            .WithSummary("The circuit file, complete with conductors and electrical parameters")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/wiring-list", List)
            .WithName("downloadWiringList")
            .WithSummary("Places, devices and wires as tables (docs/formats/wiring-list.md)")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/reading-sheet", Sheet)
            .WithName("getReadingSheet")
            .WithSummary("What a good circuit shows, state by state")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/function-test", Test)
            .WithName("getFunctionTest")
            .WithSummary("The function test of this circuit")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/faults", Faults)
            .WithName("listFaults")
            .WithSummary("Every fault mode of this circuit")
            .ProducesProblem(404);
        circuits
            .MapGet("{id:guid}/call", Call)
            .WithName("getCall")
            .WithSummary("What can be reported of this circuit, in its own words")
            .ProducesProblem(404);
        circuits
            .MapGet(
                "{id:guid}/handed-over",
                async (Guid id, JobStore jobs, CancellationToken cancellation) =>
                    TypedResults.Ok(new LeftBehind(await jobs.HandedOverAsync(id, cancellation)))
            )
            .WithName("getHandedOver")
            .WithSummary("How the last job left this circuit, when something was left behind");
        circuits.MapNetlist();
        circuits
            .MapGet(
                "{id:guid}/jobs",
                (Guid id, [AsParameters] ListParameters list, JobStore jobs, CancellationToken cancellation) =>
                    jobs.ListAsync(list.ToQuery(), new JobFilter { Circuit = id }, cancellation)
            )
            .WithName("listCircuitJobs")
            .WithSummary("The jobs on this circuit, page by page");
    }

    private static CircuitsShown Shown(string? show) =>
        show switch
        {
            null or "" or "all" => CircuitsShown.All,
            "notInOrder" => CircuitsShown.NotInOrder,
            "comingBack" => CircuitsShown.ComingBack,
            _ => throw new RefusedException("Show all, notInOrder or comingBack."),
        };

    private static async Task<Results<Ok<Imported>, ProblemHttpResult>> Copy(
        Guid id,
        Body<CopyCircuit> body,
        CircuitStore store,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Circuit();
        }

        var (tag, title) = (body.Value.Tag?.Trim() ?? "", body.Value.Title?.Trim() ?? "");
        if (tag.Length == 0)
        {
            return TypedResults.Problem("Give the twin a designation of its own.", statusCode: 422);
        }

        var copy = found.Compiled.Circuit with { Tag = tag, Title = title.Length > 0 ? title : found.Compiled.Circuit.Title };
        return TypedResults.Ok(await store.ImportAsync(CircuitFile.Write(copy), cancellation, isNew: true));
    }

    private static async Task<Ok<Imported>> Import(
        HttpRequest request,
        Caller caller,
        CircuitStore store,
        CancellationToken cancellation,
        string? from = null,
        bool isNew = false
    )
    {
        using var reader = new StreamReader(request.Body, new UTF8Encoding(false, throwOnInvalidBytes: false));
        var text = await reader.ReadToEndAsync(cancellation);
        if (WiringList.IsOne(text))
        {
            var name = Path.GetFileNameWithoutExtension(from) is { Length: > 0 } given ? given : "List";
            text = CircuitFile.Write(await Task.Run(() => WiringList.Read(text, name), cancellation));
        }

        // An electrician takes down what stands in front of them; what is in the register is changed by planners, or from a job.
        return TypedResults.Ok(await store.ImportAsync(text, cancellation, isNew || !caller.Rights.HasFlag(Rights.Planning)));
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> List(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.File(Encoding.UTF8.GetBytes(WiringList.Write(found.Compiled.Circuit)), "text/csv", $"{found.Row.Tag}.wiring.csv")
            : NotHere.Circuit();

    private static async Task<Results<Ok<CircuitView>, ProblemHttpResult>> Get(
        Guid id,
        int? version,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        (version is { } number ? await store.FindAsync(id, number, cancellation) : await store.FindAsync(id, cancellation)) is { } found
            ? TypedResults.Ok(found.Compiled.ToView(id, found.Number))
            : NotHere.Circuit();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> File(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(await store.JsonAsync(found.VersionId, cancellation)),
                "application/json",
                $"{found.Row.Tag}.circuit.json"
            )
            : NotHere.Circuit();

    private static async Task<Results<Ok<ImmutableArray<ReadingSheetRow>>, ProblemHttpResult>> Sheet(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) => await store.FindAsync(id, cancellation) is { } found ? TypedResults.Ok(found.Compiled.ReadingSheet.Rows) : NotHere.Circuit();

    private static async Task<Results<Ok<ImmutableArray<FunctionTestStep>>, ProblemHttpResult>> Test(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) => await store.FindAsync(id, cancellation) is { } found ? TypedResults.Ok(found.Compiled.FunctionTest.Steps) : NotHere.Circuit();

    private static async Task<Results<Ok<List<FaultView>>, ProblemHttpResult>> Faults(
        Guid id,
        CircuitStore store,
        CancellationToken cancellation
    ) =>
        await store.FindAsync(id, cancellation) is { } found
            ? TypedResults.Ok(
                found
                    .Compiled.Faults.Select(f => View(f, isDifference: false))
                    .Concat(found.Compiled.Faults.Differences.Select(f => View(f, isDifference: true)))
                    .ToList()
            )
            : NotHere.Circuit();

    private static async Task<Results<Ok<CallView>, ProblemHttpResult>> Call(Guid id, CircuitStore store, CancellationToken cancellation) =>
        await store.FindAsync(id, cancellation) is { } found ? TypedResults.Ok(found.Compiled.ToCallView()) : NotHere.Circuit();

    private static FaultView View(FaultMode f, bool isDifference) =>
        new(f.Id, f.Variant, f.Unit, $"{f.Title}", $"{f.Remedy}", isDifference);
}
