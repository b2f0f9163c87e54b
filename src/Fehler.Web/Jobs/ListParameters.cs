using Fehler.Core.Circuits;
using Fehler.Data;
using Microsoft.AspNetCore.Mvc;

namespace Fehler.Web.Jobs;

/// <summary>Which page of a list, from the address.</summary>
internal sealed record ListParameters(
    [FromQuery(Name = "search")] string? Search,
    [FromQuery(Name = "sort")] string? Sort,
    [FromQuery(Name = "descending")] bool? Descending,
    [FromQuery(Name = "skip")] int? Skip,
    [FromQuery(Name = "take")] int? Take
)
{
    private const int LongestSearch = 200;

    public ListQuery ToQuery() =>
        Search is { Length: > LongestSearch }
            ? throw new RefusedException($"Search for at most {LongestSearch} characters.")
            : new ListQuery(Search ?? "", Sort ?? "", Descending ?? false, Skip ?? 0, Take ?? ListQuery.UsualTake).Sound();
}
