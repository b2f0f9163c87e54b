using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Web.Circuits;
using Fehler.Web.Operation;

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
        setup.MapPost("families/{family}", (string family, JsonElement options) => View(FamilyCatalogue.Build(family, options)))
            .WithName("buildFamily").WithSummary("The circuit of a family with these options").ProducesProblem(422);
        setup.MapPost("open", (SetupFile request) => View(Read(request.File))).WithName("openSetup").WithSummary("A circuit file, drawn and checked").ProducesProblem(422);
        setup.MapPost("edit", (SetupEdit request) => View(CircuitEditor.Apply(Read(request.File), request.Edit))).WithName("editSetup").WithSummary("A circuit file after an edit").ProducesProblem(422);
        setup.MapPost("operate", (SetupOperation request) => OperationMapping.Operate(Read(request.File).Compile(), request.Steps.IsDefault ? [] : request.Steps))
            .WithName("operateSetup").WithSummary("What the circuit of a file does").ProducesProblem(422);
    }

    private static Circuit Read(JsonElement file) => CircuitFile.Read(file.GetRawText());

    private static SetupView View(Circuit circuit) => View(circuit, circuit.Compile());

    private static SetupView View(Circuit circuit, CompiledCircuit compiled) =>
        new(JsonDocument.Parse(CircuitFile.Write(circuit)).RootElement, compiled.ToView(Guid.Empty, 0), Proposals.Of(compiled));

    private static IEnumerable<KindView> Kinds() =>
        from kind in DeviceKinds.All
        let device = kind.WithDefaults(new Device("X", kind, "", Device.NoParameters))
        let elements = kind.Elements(device)
        where kind.IsSupply is false && elements.Length > 0
        let first = elements.FirstOrDefault(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed or ElementRole.Load)
        where first is not null && first.A[0] != '~' && first.B[0] != '~'
        select new KindView(kind.Id, kind.Term, first.Name, kind.Terminals(device));
}
