using System.Globalization;
using System.Net.Mime;
using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;
using Fehler.Data;
using Fehler.Web.Jobs;
using Fehler.Web.People;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Calendar = Ical.Net.Calendar;

namespace Fehler.Web.Upkeep;

/// <summary>What narrows the plan, as it stands in an address.</summary>
internal sealed record PlanParameters(
    [FromQuery(Name = "area")] string? Area,
    [FromQuery(Name = "enclosure")] string? Enclosure,
    [FromQuery(Name = "circuit")] Guid? Circuit,
    [FromQuery(Name = "until")] string? Until,
    [FromQuery(Name = "kind")] string? Kind,
    [FromQuery(Name = "state")] string? State
)
{
    /// <exception cref="RefusedException">A word or a day that is none.</exception>
    public PlanFilter ToFilter() =>
        new(
            string.IsNullOrEmpty(Area) ? null : Area,
            string.IsNullOrEmpty(Enclosure) ? null : [Enclosure],
            Circuit,
            Days.Read(Until),
            Known<PlanKind>(Kind, "A line is upkeep, followUp or watch."),
            Known<UpkeepState>(State, "Work is dead or live.")
        );

    private static T? Known<T>(string? word, string otherwise)
        where T : struct, Enum =>
        string.IsNullOrEmpty(word) ? null
        : Enum.TryParse<T>(word, ignoreCase: true, out var known) && Enum.IsDefined(known) ? known
        : throw new RefusedException(otherwise);
}

/// <summary>An interval to be set; without months what held before holds again.</summary>
public sealed record SetInterval(string? Rule, Guid? Circuit = null, int? Months = null);

/// <summary>A window to be packed.</summary>
public sealed record PackShutdown(ShutdownWish? Wish, string? Who = null);

internal static class PlanEndpoints
{
    /// <summary>A calendar holds what is due within a year.</summary>
    private const int CalendarDays = 365;

    public static void MapPlan(this IEndpointRouteBuilder routes)
    {
        var plan = routes.MapGroup("/api/plan").WithTags("Plan");
        plan.MapGet("", List)
            .WithName("listPlan")
            .WithSummary("What is due on all circuits, soonest first: upkeep, follow-ups, what to watch")
            .WithDescription(
                "'area', 'enclosure', 'circuit', 'until' (a day), 'kind' and 'state' narrow it; 'sort' is due, circuitTag, area, title or minutes."
            )
            .ProducesProblem(422);
        plan.MapGet("calendar.ics", Calendar)
            .WithName("planCalendar")
            .WithSummary("What is due within a year as an iCalendar file (RFC 5545)")
            .Produces<string>(200, "text/calendar")
            .ProducesProblem(422);
        plan.MapGet("rules", (PlanStore store, CancellationToken cancellation) => store.PlantRulesAsync(cancellation))
            .WithName("listPlantRules")
            .WithSummary("The rules of all circuits, with the plant's own intervals and times");
        plan.MapPut("intervals", Interval)
            .Accepts<SetInterval>(MediaTypeNames.Application.Json)
            .WithName("setInterval")
            .Needs(Rights.Planning)
            .WithSummary("Sets the time between two for the plant or one circuit; 0 months: never")
            .ProducesProblem(422);

        var shutdowns = routes.MapGroup("/api/shutdowns").WithTags("Plan");
        shutdowns
            .MapGet(
                "",
                (ShutdownStore store, [AsParameters] ListParameters list, CancellationToken cancellation) =>
                    store.ListAsync(list.ToQuery(), cancellation)
            )
            .WithName("listShutdowns")
            .WithSummary("Shutdown lists that were drawn up, the latest first");
        shutdowns
            .MapPost("", Pack)
            .Accepts<PackShutdown>(MediaTypeNames.Application.Json)
            .WithName("packShutdown")
            .Needs(Rights.Planning)
            .WithSummary("Packs what is due into a window, and keeps the list")
            .ProducesProblem(422);
        shutdowns
            .MapGet("{id:guid}", Shutdown)
            .WithName("getShutdown")
            .WithSummary("A shutdown list with what has been done of it")
            .ProducesProblem(404);
        shutdowns
            .MapGet("{id:guid}/print", Print)
            .WithName("printShutdown")
            .WithSummary("A shutdown list as PDF")
            .WithDescription("'paper' is a4 or letter.")
            .Produces<byte[]>(200, MediaTypeNames.Application.Pdf)
            .ProducesProblem(404);
    }

    private static Task<Page<PlanItem>> List(
        [AsParameters] ListParameters list,
        [AsParameters] PlanParameters filter,
        PlanStore store,
        CancellationToken cancellation
    ) => store.ListAsync(list.ToQuery(), filter.ToFilter(), cancellation);

    private static async Task<FileContentHttpResult> Calendar(
        [AsParameters] PlanParameters filter,
        PlanStore store,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        var today = DateOnly.FromDateTime(time.GetLocalNow().DateTime);
        var meant = filter.ToFilter();
        var due = await store.AllAsync(meant with { Until = meant.Until ?? today.AddDays(CalendarDays) }, cancellation);
        var calendar = new Calendar { ProductId = "-//Fehler//Plan//EN" };
        foreach (var item in due.OrderBy(i => i.Due).ThenBy(i => i.CircuitTag, StringComparer.Ordinal))
        {
            // What is overdue stands on today.
            var day = item.Due < today ? today : item.Due;
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = $"{item.Id}@fehler",
                    Summary = $"{item.CircuitTag} {item.Title}",
                    Description =
                        $"{item.CircuitTitle}. By {item.Due:yyyy-MM-dd}{(item.Why.Length > 0 ? $": {item.Why}" : "")}. {item.Minutes:0} min.",
                    Location = $"{item.Area}, {item.Enclosure}",
                    Start = new CalDateTime(day.Year, day.Month, day.Day),
                }
            );
        }

        return TypedResults.Bytes(
            System.Text.Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar) ?? ""),
            "text/calendar",
            "plan.ics"
        );
    }

    private static async Task<NoContent> Interval(Body<SetInterval> body, PlanStore store, CancellationToken cancellation)
    {
        await store.SetIntervalAsync(body.Value.Rule ?? "", body.Value.Circuit, body.Value.Months, cancellation);
        return TypedResults.NoContent();
    }

    private static Task<PackedShutdown> Pack(Body<PackShutdown> body, Caller caller, ShutdownStore store, CancellationToken cancellation) =>
        body.Value.Wish is { Title: not null } wish
            ? store.PackAsync(wish, caller.Named(body.Value.Who), cancellation)
            : throw new RefusedException("Say when the shutdown begins, how long it is and how many people there are.");

    private static async Task<Results<Ok<PackedShutdown>, ProblemHttpResult>> Shutdown(
        Guid id,
        ShutdownStore store,
        CancellationToken cancellation
    ) => await store.FindAsync(id, cancellation) is { } found ? TypedResults.Ok(found) : NotHere.Shutdown();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Print(
        Guid id,
        string? paper,
        ShutdownStore store,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } packed)
        {
            return NotHere.Shutdown();
        }

        var begins = packed.Wish.Begins.LocalDateTime;
        using var pdf = new TablePdf(
            packed.Wish.Title,
            $"{begins.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)}, {packed.Wish.Hours:0.#} h, {packed.Wish.People} people",
            "Isolate, lock, prove dead at the point of work. Local codes and site rules come first.",
            [("From", 0.07), ("Circuit", 0.1), ("State", 0.16), ("What", 0.42), ("min", 0.05), ("Done", 0.08), ("Found", 0.12)],
            paper.ToPaper()
        );
        var items = packed.Items.GroupBy(i => i.Id).ToDictionary(g => g.Key, g => g.First());
        foreach (var person in packed.List.People)
        {
            foreach (var enclosure in person.Visits.GroupBy(v => v.Enclosure))
            {
                pdf.Group($"Person {person.Number}: {enclosure.Key}");
                foreach (var visit in enclosure)
                {
                    var from = begins.AddMinutes(visit.StartMinute).ToString("HH:mm", CultureInfo.InvariantCulture);
                    foreach (var (piece, i) in visit.Dead.Concat(visit.Live).Select((p, i) => (p, i)))
                    {
                        var what = items[piece.Id];
                        pdf.Paragraph(
                            i == 0 ? from : "",
                            i == 0 ? visit.Circuit : "",
                            piece.State == UpkeepState.Dead ? $"dead: {visit.Isolation} off" : "live",
                            $"{piece.Title}{(what.Devices.IsEmpty ? "" : $" ({string.Join(", ", what.Devices)})")}",
                            piece.Minutes.ToString("0", CultureInfo.InvariantCulture),
                            packed.Done.Contains(piece.Id) ? "done" : "",
                            ""
                        );
                    }

                    if (!visit.Dead.IsEmpty)
                    {
                        pdf.Paragraph("", "", "on again", "Function test", "", "", "");
                    }
                }
            }
        }

        if (!packed.Parts.IsEmpty)
        {
            pdf.Group("Fitted in what is worked on, to be brought where it may be needed");
            foreach (var part in packed.Parts)
            {
                pdf.Paragraph("", $"{part.Count} ×", "", part.Part, "", "", "");
            }
        }

        if (!packed.List.LeftOut.IsEmpty)
        {
            pdf.Group("Left out");
            foreach (var left in packed.List.LeftOut)
            {
                pdf.Paragraph("", left.Piece.Circuit, "", $"{left.Piece.Title}: {left.Why}", "", "", "");
            }
        }

        return TypedResults.Bytes(pdf.Save(), MediaTypeNames.Application.Pdf, "shutdown.pdf");
    }
}
