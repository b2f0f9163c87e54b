using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Web.Circuits;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Print;

/// <summary>What is printed or opened in a spreadsheet: reading sheet and terminal plan.</summary>
internal static class PrintEndpoints
{
    public static void MapPrint(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits/{id:guid}").WithTags("Print");
        circuits
            .MapGet(
                "reading-sheet.csv",
                (Guid id, CircuitStore store, CancellationToken cancellation) =>
                    With(id, store, c => Text(c.Circuit, "reading-sheet", ReadingSheetRows(c)), cancellation)
            )
            .WithName("readingSheetCsv")
            .WithSummary("Reading sheet as CSV")
            .ProducesProblem(404);
        circuits
            .MapGet(
                "reading-sheet.pdf",
                (Guid id, string? paper, CircuitStore store, CancellationToken cancellation) =>
                    With(id, store, c => Pdf(c, paper), cancellation)
            )
            .WithName("readingSheetPdf")
            .WithSummary("Reading sheet as a page for the panel door; paper=letter for Letter, otherwise A4")
            .ProducesProblem(404);
        circuits
            .MapGet(
                "terminal-plan.csv",
                (Guid id, CircuitStore store, CancellationToken cancellation) =>
                    With(id, store, c => Text(c.Circuit, "terminal-plan", TerminalPlanRows(c.Circuit)), cancellation)
            )
            .WithName("terminalPlanCsv")
            .WithSummary("Connection list as CSV")
            .ProducesProblem(404);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> With(
        Guid id,
        CircuitStore store,
        Func<CompiledCircuit, FileContentHttpResult> print,
        CancellationToken cancellation
    ) => await store.FindAsync(id, cancellation) is { } found ? print(found.Compiled) : NotHere.Circuit();

    private static IEnumerable<string[]> ReadingSheetRows(CompiledCircuit compiled) =>
        compiled
            .ReadingSheet.Rows.Select(r =>
                new[] { r.What, r.From.ToString(), r.To.ToString(), r.Wires, r.AtRest, r.StartHeld, r.Running, r.Released, r.Pressed }
            )
            .Prepend(["Across", "From", "To", "Wires", "At rest", "Start held", "Running", "Isolated", "Isolated, armature pressed"]);

    private static IEnumerable<string[]> TerminalPlanRows(Circuit circuit) =>
        circuit
            .Conductors.Select(c =>
                new[]
                {
                    c.Wire,
                    c.From.ToString(),
                    circuit.LocationOf(c.From).Name,
                    c.To.ToString(),
                    circuit.LocationOf(c.To).Name,
                    c.Metres.ToString("0.#", CultureInfo.InvariantCulture),
                    c.SquareMillimetres.ToString("0.##", CultureInfo.InvariantCulture),
                }
            )
            .Prepend(["Wire", "From", "Place", "To", "Place", "Length (m)", "Section (mm²)"]);

    private static FileContentHttpResult Text(Circuit circuit, string name, IEnumerable<string[]> rows) =>
        TypedResults.File([.. CsvText.Mark, .. CsvText.Of(rows)], CsvText.Type, $"{circuit.Tag}-{name}.csv");

    private static FileContentHttpResult Pdf(CompiledCircuit compiled, string? paper)
    {
        var circuit = compiled.Circuit;
        using var pdf = new TablePdf(
            $"{circuit.Tag} {circuit.Title}: reading sheet",
            $"{circuit.Area} · {circuit.Enclosure} · {circuit.Drawing} · return {circuit.Reference}. Volts ±10 % with the "
                + "supply, coils and windings differ by make, up to twofold; stray: nothing holds the point.",
            "Expected of the healthy circuit, by simulation. Live work only by competent persons under local codes; ohms only "
                + "isolated and proved dead.",
            [
                ("Across", 0.19),
                ("Leads", 0.19),
                ("Wires", 0.12),
                ("At rest", 0.09),
                ("Start held", 0.09),
                ("Running", 0.09),
                ("Isolated", 0.11),
                ("Armature pressed", 0.12),
            ],
            paper.ToPaper()
        );
        foreach (var group in compiled.ReadingSheet.Rows.GroupBy(r => r.From.Device))
        {
            pdf.Group($"{group.Key}  {circuit.Device(group.Key).Function}");
            foreach (var row in group)
            {
                pdf.Row(row.What, $"{row.From} – {row.To}", row.Wires, row.AtRest, row.StartHeld, row.Running, row.Released, row.Pressed);
            }
        }

        return TypedResults.File(pdf.Save(), "application/pdf", $"{circuit.Tag}-reading-sheet.pdf");
    }
}
