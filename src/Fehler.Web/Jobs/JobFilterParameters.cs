using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Data;
using Microsoft.AspNetCore.Mvc;

namespace Fehler.Web.Jobs;

/// <summary>What narrows the logbook, as it stands in an address: for the list and for what is taken out of it alike.</summary>
/// <param name="Show">All, open or closed; all when absent.</param>
/// <param name="Area">Area of the circuit.</param>
/// <param name="Outcome">How it ended.</param>
/// <param name="Who">Somebody who made an entry.</param>
/// <param name="From">Opened on this day or later.</param>
/// <param name="Until">Opened on this day or earlier.</param>
/// <param name="Found">What was found: a kind of device like contactor/, or what failed, like winding-open.</param>
internal sealed record JobFilterParameters(
    [FromQuery(Name = "show")] string? Show,
    [FromQuery(Name = "area")] string? Area,
    [FromQuery(Name = "outcome")] string? Outcome,
    [FromQuery(Name = "who")] string? Who,
    [FromQuery(Name = "from")] string? From,
    [FromQuery(Name = "until")] string? Until,
    [FromQuery(Name = "found")] string? Found
)
{
    /// <summary>What each of them means, for the description of the interface.</summary>
    public const string Described =
        "'show' is all, open or closed; 'area' that of the circuit; 'outcome' repairedAndProved, nothingFound or handedOver; 'who' somebody who "
        + "made an entry; 'from' and 'until' the days that it was opened between, like 2026-11-26; 'found' what "
        + "was found, a kind of device like contactor/ or what failed like winding-open.";

    /// <exception cref="RefusedException">A word or a day that is none.</exception>
    public JobFilter ToFilter() =>
        new()
        {
            Show = Shown(Show),
            Area = Area,
            Outcome = Ended(Outcome),
            Who = Who,
            From = Days.Read(From),
            Found = Found,
            Until = Days.Read(Until),
        };

    private static CloseOutcome? Ended(string? outcome) =>
        string.IsNullOrEmpty(outcome) ? null
        : Enum.TryParse<CloseOutcome>(outcome, ignoreCase: true, out var known) && Enum.IsDefined(known) ? known
        : throw new RefusedException("A job ends repairedAndProved, nothingFound or handedOver.");

    private static JobsShown Shown(string? show) =>
        show switch
        {
            null or "" or "all" => JobsShown.All,
            "open" => JobsShown.Open,
            "closed" => JobsShown.Closed,
            _ => throw new RefusedException("Show all, open or closed jobs."),
        };
}
