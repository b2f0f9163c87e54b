using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Circuits;
using Fehler.Web.Operation;
using Fehler.Web.People;
using Fehler.Web.Problems;

namespace Fehler.Web.Setup;

/// <summary>A device kind that can be inserted, with the contact it usually has.</summary>
public sealed record KindView(string Id, string Term, string UsualContact, ImmutableArray<string> UsualTerminals);

/// <summary>
/// Setting a circuit up. Nothing is kept here: the client sends the circuit file along, so that undo is going back to an earlier file.
/// </summary>
internal static class SetupEndpoints
{
    public static void MapSetup(this IEndpointRouteBuilder routes)
    {
        var setup = routes.MapGroup("/api/setup").WithTags("Set-up");
        setup.MapGet("families", () => FamilyCatalogue.All).WithName("listFamilies").WithSummary("Families of starters with their options");
        setup.MapGet("kinds", Kinds).WithName("listKinds").WithSummary("Two-terminal devices that can be inserted in a path");
        setup
            .MapGet("sorts", () => PanelSort.All)
            .WithName("listPanelSorts")
            .WithSummary("What can be counted in a panel without knowing its circuit");
        setup
            .MapPost(
                "counted",
                (Body<CountedInPanel> body, CancellationToken cancellation) => Task.Run(() => Found(body.Value, cancellation), cancellation)
            )
            .Accepts<CountedInPanel>(Json)
            .WithName("findByCount")
            .Needs(Rights.None)
            .WithSummary("Families with options whose circuits have what was counted in a panel")
            .WithDescription("The likeliest first, each with its drawing and what it has otherwise; and what to count next.")
            .ProducesProblem(422);
        setup.MapTerminalFinding();
        setup
            .MapPost(
                "families/{family}",
                (string family, Body<JsonDocument> options, CancellationToken cancellation) =>
                    ViewAsync(() => FamilyCatalogue.Build(family, options.Value.RootElement), cancellation)
            )
            .Accepts<JsonElement>(Json)
            .WithName("buildFamily")
            .Needs(Rights.None)
            .WithSummary("The circuit of a family with these options")
            .ProducesProblem(422);
        setup
            .MapPost("open", (Body<SetupFile> body, CancellationToken cancellation) => ViewAsync(() => Read(body.Value.File), cancellation))
            .Accepts<SetupFile>(Json)
            .WithName("openSetup")
            .Needs(Rights.None)
            .WithSummary("A circuit file, drawn and checked")
            .ProducesProblem(422);
        setup
            .MapPost(
                "edit",
                (Body<SetupEdit> body, CancellationToken cancellation) =>
                    ViewAsync(() => CircuitEditor.Apply(Read(body.Value.File), body.Value.Edit), cancellation)
            )
            .Accepts<SetupEdit>(Json)
            .WithName("editSetup")
            .Needs(Rights.None)
            .WithSummary("A circuit file after an edit")
            .ProducesProblem(422);
        setup
            .MapPost(
                "operate",
                (Body<SetupOperation> body, CancellationToken cancellation) =>
                    Task.Run(
                        () => OperationMapping.Operate(Read(body.Value.File).Compile(), body.Value.Steps.IsDefault ? [] : body.Value.Steps),
                        cancellation
                    )
            )
            .Accepts<SetupOperation>(Json)
            .WithName("operateSetup")
            .Needs(Rights.None)
            .WithSummary("What the circuit of a file does")
            .ProducesProblem(422);
    }

    private const string Json = System.Net.Mime.MediaTypeNames.Application.Json;

    private static Task<SetupView> ViewAsync(Func<Circuit> circuit, CancellationToken cancellation) =>
        Task.Run(() => View(circuit()), cancellation);

    private static CountedView Found(CountedInPanel counted, CancellationToken cancellation)
    {
        var (matches, tellsApart) = PanelSearch.Find(
            new PanelCount(counted.Counts ?? ImmutableSortedDictionary<string, int>.Empty, counted.CoilVolts),
            "NEW-1",
            "New starter",
            cancellation
        );
        return new CountedView(
            [
                .. matches.Select(m => new CountedMatch(
                    m.Family.Id,
                    m.Family.Name,
                    m.Family.Description,
                    m.Options.Deserialize<JsonElement>(),
                    m.Circuit.Compile().ToView(Guid.Empty, 0),
                    m.Differs
                )),
            ],
            tellsApart
        );
    }

    private static Circuit Read(JsonElement file) =>
        file.ValueKind == JsonValueKind.Undefined
            ? throw new CircuitException("file", "is missing; send the circuit file along.")
            : CircuitFile.Read(file.GetRawText());

    private static SetupView View(Circuit circuit)
    {
        var compiled = circuit.Compile();
        CircuitAcceptance.Try(compiled);
        using var file = JsonDocument.Parse(CircuitFile.Write(circuit));
        return new SetupView(file.RootElement.Clone(), compiled.ToView(Guid.Empty, 0), PlateCheck.Proposals(compiled));
    }

    private static IEnumerable<KindView> Kinds() =>
        from kind in DeviceKinds.All
        let device = kind.WithDefaults(new Device("X", kind, "", Device.NoParameters))
        let elements = kind.Elements(device)
        where kind.IsSupply is false && elements.Length > 0
        let first = elements.FirstOrDefault(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed or ElementRole.Load)
        where first is not null && first.A[0] != '~' && first.B[0] != '~'
        select new KindView(kind.Id, kind.Name.ToString(), first.Name, kind.Terminals(device));
}
