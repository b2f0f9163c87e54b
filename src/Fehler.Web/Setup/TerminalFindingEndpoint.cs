using System.Collections.Immutable;
using Fehler.Core.Procedures;
using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;

namespace Fehler.Web.Setup;

/// <summary>An unmarked device with what was measured at it so far.</summary>
/// <param name="Device">What it is.</param>
/// <param name="Top">Terminals in the upper row.</param>
/// <param name="Bottom">Terminals in the lower row.</param>
/// <param name="Readings">Readings so far; of one pair in one state the last counts.</param>
public sealed record UnmarkedTerminals(UnmarkedDevice Device, int Top, int Bottom, ImmutableArray<UnmarkedReading> Readings);

/// <summary>What is found so far, and what to measure next.</summary>
/// <param name="Next">Null when everything that can be is found.</param>
/// <param name="Found">Pairs with their marks.</param>
/// <param name="Free">Terminals that belong to nothing found.</param>
public sealed record TerminalFindingView(UnmarkedStep? Next, ImmutableArray<UnmarkedFound> Found, ImmutableArray<string> Free);

internal static class TerminalFindingEndpoint
{
    public static void MapTerminalFinding(this IEndpointRouteBuilder setup) =>
        setup
            .MapPost("terminals", (Body<UnmarkedTerminals> body) => Of(body.Value))
            .Accepts<UnmarkedTerminals>(System.Net.Mime.MediaTypeNames.Application.Json)
            .WithName("findTerminals")
            .Needs(Rights.None)
            .WithSummary("What the terminals of an unmarked contactor, relay or overload are, by beeping them out")
            .WithDescription(
                "Send along what was measured so far; the answer says what to measure next. T1 is the first of the upper row, B1 of the lower."
            )
            .ProducesProblem(422);

    private static TerminalFindingView Of(UnmarkedTerminals asked)
    {
        var finding = new TerminalFinding(asked.Device, asked.Top, asked.Bottom, asked.Readings.IsDefault ? [] : asked.Readings);
        return new TerminalFindingView(finding.Next, finding.Found, finding.Free);
    }
}
