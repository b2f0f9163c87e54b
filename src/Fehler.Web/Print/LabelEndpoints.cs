using Fehler.Data;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;
using QRCoder;

namespace Fehler.Web.Print;

/// <summary>Labels for panel doors: a code that opens the circuit, or the enclosure's part of the register, on whatever reads it.</summary>
internal static class LabelEndpoints
{
    /// <summary>More labels than anybody sticks on in a day; narrow the register for the rest.</summary>
    private const int Most = 400;

    public static void MapLabels(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/circuits/{id:guid}/label.svg", Svg)
            .WithTags("Print")
            .WithName("circuitLabelSvg")
            .WithSummary("A QR code that opens this circuit")
            .ProducesProblem(404);
        routes
            .MapGet("/api/labels.pdf", Sheet)
            .WithTags("Print")
            .WithName("labelSheetPdf")
            .WithSummary("A sheet of labels: each enclosure, then its circuits")
            .WithDescription("'area' and 'enclosure' narrow it; paper=letter for Letter, otherwise A4. At most 400 circuits.");
    }

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> Svg(
        Guid id,
        HttpRequest request,
        CircuitStore store,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is null)
        {
            return NotHere.Circuit();
        }

        using var code = new SvgQRCode(Code(CircuitAddress(request, id)));
        return TypedResults.Content(code.GetGraphic(8), "image/svg+xml");
    }

    private static async Task<FileContentHttpResult> Sheet(
        string? area,
        string? enclosure,
        string? paper,
        HttpRequest request,
        CircuitStore store,
        CancellationToken cancellation
    )
    {
        var filter = new CircuitFilter { Area = area, Enclosure = enclosure };
        var circuits = new List<CircuitListItem>();
        while (circuits.Count < Most)
        {
            var page = await store.ListAsync(new ListQuery("", "area", false, circuits.Count, ListQuery.MostTake), filter, cancellation);
            circuits.AddRange(page.Items);
            if (page.Items.Count < ListQuery.MostTake)
            {
                break;
            }
        }

        using var sheet = new LabelSheet(paper.ToPaper());
        foreach (var place in circuits.Take(Most).GroupBy(c => (c.Area, c.Enclosure)))
        {
            if (place.Key.Enclosure.Length > 0)
            {
                sheet.Add(Code(EnclosureAddress(request, place.Key.Enclosure)), place.Key.Enclosure, "all circuits in it", place.Key.Area);
            }

            foreach (var circuit in place)
            {
                sheet.Add(Code(CircuitAddress(request, circuit.Id)), circuit.Tag, circuit.Title, circuit.Enclosure);
            }
        }

        return TypedResults.File(sheet.Save(), "application/pdf", "labels.pdf");
    }

    private static QRCodeData Code(string address) => QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);

    private static string CircuitAddress(HttpRequest request, Guid id) => $"{Base(request)}/circuits/{id}";

    private static string EnclosureAddress(HttpRequest request, string enclosure) =>
        $"{Base(request)}/?enclosure={Uri.EscapeDataString(enclosure)}";

    /// <summary>As the service was reached for the sheet: a label printed over the plant's network opens over the plant's network.</summary>
    private static string Base(HttpRequest request) => $"{request.Scheme}://{request.Host}{request.PathBase}";
}
