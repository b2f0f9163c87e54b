using System.Globalization;
using System.Net.Mime;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Upkeep;

/// <summary>What the store knows of a part.</summary>
public sealed record SetPart(string? Part, double LeadWeeks, int Stock, string? Note = null);

internal static class SpareEndpoints
{
    public static void MapSpares(this IEndpointRouteBuilder routes)
    {
        var spares = routes.MapGroup("/api/spares").WithTags("Spares");
        spares
            .MapGet(
                "",
                ([AsParameters] ListParameters list, SpareStore store, CancellationToken cancellation, bool missing = false) =>
                    store.ListAsync(list.ToQuery(), missing, cancellation)
            )
            .WithName("listSpares")
            .WithSummary("Parts that are fitted, with what to hold of each")
            .WithDescription(
                "'missing' lists those of which there are too few; 'sort' is short, part, installed, failures, hold or chance."
            )
            .ProducesProblem(422);
        spares
            .MapPut("", Set)
            .Accepts<SetPart>(MediaTypeNames.Application.Json)
            .WithName("setSpare")
            .Needs(Rights.Planning)
            .WithSummary("How long a part takes to come, and how many are on the shelf")
            .ProducesProblem(422);
        spares.MapGet("spares.csv", Csv).WithName("exportSpares").WithSummary("The parts as CSV").Produces<string>(200, CsvText.Type);
    }

    private static async Task<NoContent> Set(Body<SetPart> body, SpareStore store, CancellationToken cancellation)
    {
        var given = body.Value;
        await store.SetAsync(given.Part ?? "", given.LeadWeeks, given.Stock, given.Note ?? "", cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<FileContentHttpResult> Csv(SpareStore store, CancellationToken cancellation)
    {
        static string N(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);
        var parts = await store.AllAsync(cancellation);
        return CsvText.File(
            "spares.csv",
            ["part", "installed", "failures", "failures a year", "lead weeks", "hold", "on the shelf", "circuits", "note"],
            parts.Select(p =>
                new[]
                {
                    p.Part,
                    N(p.Installed),
                    N(p.Failures),
                    N(p.Advice.FailuresAYear),
                    N(p.LeadWeeks),
                    N(p.Advice.Hold),
                    N(p.Stock),
                    string.Join(' ', p.Where.Select(w => w.Tag).Distinct()),
                    p.Note,
                }
            )
        );
    }
}
