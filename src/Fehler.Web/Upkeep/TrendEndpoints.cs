using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Trade;
using Fehler.Core.Upkeep;
using Fehler.Data;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Upkeep;

/// <summary>A value of a series, in the unit that it is shown in.</summary>
public sealed record TrendPoint(DateTimeOffset At, double Value);

/// <summary>The last value of a twin: the same part on another circuit.</summary>
public sealed record TwinView(Guid Circuit, string Tag, string Device, DateTimeOffset At, double Value);

/// <summary>A followed value over the years, as it is plotted; numbers are in <paramref name="Unit"/>.</summary>
/// <param name="Name">What is followed.</param>
/// <param name="Where">Device and points.</param>
/// <param name="State">In which state it was measured; may be empty.</param>
/// <param name="Replaced">When the device was replaced last.</param>
/// <param name="Limit">The limit in words; empty for none.</param>
/// <param name="Line">The line through the values, from its first to its last and on to the limit; empty where they carry none.</param>
/// <param name="Says">What it amounts to, in a sentence.</param>
/// <param name="IsBeyond">The last value has passed the limit.</param>
/// <param name="IsHeading">It will reach its limit.</param>
public sealed record TrendView(
    Followed What,
    string Name,
    string Where,
    string State,
    string Unit,
    ImmutableArray<TrendPoint> Points,
    DateTimeOffset? Replaced,
    double? Least,
    double? Most,
    string Limit,
    ImmutableArray<TrendPoint> Line,
    ImmutableArray<TwinView> Twins,
    string Says,
    bool IsBeyond,
    bool IsHeading
);

internal static class TrendEndpoints
{
    public static void MapTrends(this IEndpointRouteBuilder routes)
    {
        var circuits = routes.MapGroup("/api/circuits/{id:guid}").WithTags("Upkeep");
        circuits
            .MapGet("trends", Trends)
            .WithName("listTrends")
            .WithSummary("Values of a circuit over the years, each with its limit, its line and its twins")
            .ProducesProblem(404);
        circuits
            .MapGet("trends.csv", Csv)
            .WithName("exportTrends")
            .WithSummary("The same values as CSV")
            .Produces<string>(200, CsvText.Type)
            .ProducesProblem(404);
    }

    private static async Task<Results<Ok<List<TrendView>>, ProblemHttpResult>> Trends(
        Guid id,
        FollowedValues followed,
        CancellationToken cancellation
    ) => await followed.OfAsync(id, cancellation) is { } series ? TypedResults.Ok(series.Select(View).ToList()) : NotHere.Circuit();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Csv(
        Guid id,
        FollowedValues followed,
        CancellationToken cancellation
    ) =>
        await followed.OfAsync(id, cancellation) is { } series
            ? CsvText.File(
                "trends.csv",
                ["what", "device", "points", "state", "time", "value", "unit"],
                series
                    .SelectMany(s => s.Series.Values)
                    .Select(v =>
                        new[]
                        {
                            v.Key.What.Name(),
                            v.Key.Device,
                            v.Key.Points,
                            v.Key.State,
                            v.At.ToString("O", CultureInfo.InvariantCulture),
                            (v.Value * v.Key.What.Scale()).ToString("G6", CultureInfo.InvariantCulture),
                            v.Key.What.Unit(),
                        }
                    )
            )
            : NotHere.Circuit();

    private static TrendView View(SeriesWithTwins given)
    {
        var (series, key, scale) = (given.Series, given.Series.Key, given.Series.Key.What.Scale());
        return new TrendView(
            key.What,
            key.What.Name(),
            $"{key.Device} {key.Points}".Trim(),
            key.State,
            key.What.Unit(),
            [.. series.Values.Select(v => new TrendPoint(v.At, v.Value * scale))],
            series.Replaced,
            series.Limit?.Least * scale,
            series.Limit?.Most * scale,
            series.LimitShown,
            [.. Line(series).Select(at => new TrendPoint(at, series.Trend!.At(at) * scale))],
            [.. given.Twins.Select(t => new TwinView(t.Circuit, t.Tag, t.Device, t.At, t.Value * scale))],
            series.Says,
            series.IsBeyond,
            series.Reaches is not null
        );
    }

    /// <summary>Moments at which the line is drawn: bent only where it changes by factors, so some between are needed.</summary>
    private static IEnumerable<DateTimeOffset> Line(Series series)
    {
        if (series.Trend is not { IsSure: true })
        {
            yield break;
        }

        const int pieces = 12;
        var (from, to) = (series.First.At, series.Reaches?.About ?? series.Last.At);
        for (var i = 0; i <= pieces; i++)
        {
            yield return from + (to - from) * i / pieces;
        }
    }
}
