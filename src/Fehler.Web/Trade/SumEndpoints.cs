using System.Text.Json;
using Fehler.Core.Trade;
using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;

namespace Fehler.Web.Trade;

internal static class SumEndpoints
{
    public static void MapSums(this IEndpointRouteBuilder routes)
    {
        var sums = routes.MapGroup("/api/sums").WithTags("Sums");
        sums.MapGet("", () => SumCatalogue.All)
            .WithName("listSums")
            .WithSummary("The trade's sums with what each asks for and where its rule comes from");
        sums.MapPost("{sum}", (string sum, Body<JsonDocument> given) => SumCatalogue.Work(sum, given.Value.RootElement))
            .Accepts<JsonElement>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("workSum")
            .Needs(Rights.None)
            .WithSummary("Works a sum out; what is left out has its default")
            .ProducesProblem(422);
    }
}
