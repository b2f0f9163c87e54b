using System.Globalization;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.Print;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Upkeep;

internal static class InsightEndpoints
{
    public static void MapInsight(this IEndpointRouteBuilder routes)
    {
        var insight = routes.MapGroup("/api/insight").WithTags("Insight");
        insight
            .MapGet(
                "",
                (string? from, string? until, string? area, InsightReader reader, CancellationToken cancellation) =>
                    Read(from, until, area, reader, cancellation)
            )
            .WithName("getInsight")
            .WithSummary("Where the time goes, what comes back, how the diagnosis did")
            .WithDescription("'from' and 'until' are days like 2026-11-26; 'area' narrows it.")
            .ProducesProblem(422);
        insight
            .MapGet("insight.csv", Csv)
            .WithName("exportInsight")
            .WithSummary("The bars as CSV")
            .Produces<string>(200, CsvText.Type)
            .ProducesProblem(422);
    }

    private static Task<Insight> Read(string? from, string? until, string? area, InsightReader reader, CancellationToken cancellation) =>
        reader.OfAsync(Days.Read(from), Days.Read(until), string.IsNullOrEmpty(area) ? null : area, cancellation);

    private static async Task<FileContentHttpResult> Csv(
        string? from,
        string? until,
        string? area,
        InsightReader reader,
        CancellationToken cancellation
    )
    {
        var insight = await Read(from, until, area, reader, cancellation);
        IEnumerable<string[]> Rows(string by, IEnumerable<InsightBar> bars) =>
            bars.Select(b =>
                new[]
                {
                    by,
                    b.Name,
                    b.Jobs.ToString(CultureInfo.InvariantCulture),
                    b.MinutesDown.ToString("0", CultureInfo.InvariantCulture),
                }
            );
        return CsvText.File(
            "insight.csv",
            ["by", "name", "jobs", "minutes down"],
            [
                .. Rows("circuit", insight.Circuits),
                .. Rows("device", insight.Devices),
                .. Rows("cause", insight.Causes),
                .. Rows("area", insight.Areas),
                .. Rows("month", insight.Months),
            ]
        );
    }
}
