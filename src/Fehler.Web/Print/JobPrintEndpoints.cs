using System.Globalization;
using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.Jobs;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Print;

internal static class JobPrintEndpoints
{
    private const int PageSize = 200;

    public static void MapJobPrint(this IEndpointRouteBuilder routes)
    {
        var jobs = routes.MapGroup("/api/jobs").WithTags("Print");
        jobs.MapGet("{id:guid}/report", Report)
            .WithName("getJobReport")
            .WithSummary("A job as somebody reads it who was not there")
            .ProducesProblem(404);
        jobs.MapGet("{id:guid}/report.pdf", Pdf)
            .WithName("jobReportPdf")
            .WithSummary("The report as pages; paper=letter for Letter, otherwise A4")
            .ProducesProblem(404);
        jobs.MapGet("jobs.csv", Jobs)
            .WithName("jobsCsv")
            .WithSummary("The logbook as CSV, narrowed as the list is")
            .WithDescription(JobFilterParameters.Described)
            .ProducesProblem(422);
        jobs.MapGet("readings.csv", Readings)
            .WithName("readingsCsv")
            .WithSummary("Every reading of the jobs that the filters leave, as CSV")
            .WithDescription(JobFilterParameters.Described)
            .ProducesProblem(422);
    }

    private static async Task<Results<Ok<JobReport>, ProblemHttpResult>> Report(Guid id, JobStore store, CancellationToken cancellation) =>
        await store.FindAsync(id, cancellation) is { } job ? TypedResults.Ok(job.Shown().Report()) : NotHere.Job();

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Pdf(
        Guid id,
        string? paper,
        JobStore store,
        PhotoStore photos,
        CancellationToken cancellation
    )
    {
        if (await store.FindAsync(id, cancellation) is not { } job)
        {
            return NotHere.Job();
        }

        var report = job.Shown().Report();
        using var pdf = new TablePdf(
            $"{report.CircuitTag} {report.CircuitTitle}: {report.Title}",
            $"{report.Area} · {report.Enclosure} · version {report.CircuitVersion} · opened {Minute(report.OpenedAt)}"
                + $"{(report.ClosedAt is { } closed ? $" · closed {Minute(closed)}" : " · open")}",
            "Times are UTC. What is struck out stays visible and does not count.",
            [("No.", 0.05), ("When", 0.12), ("Who", 0.13), ("What", 0.7)],
            paper.ToPaper()
        );
        pdf.Group("What came of it");
        foreach (var sentence in report.Story.Outcome)
        {
            pdf.Paragraph("", "", "", sentence);
        }

        if (!report.Story.Leftovers.IsEmpty)
        {
            pdf.Group("LEFT BEHIND");
            foreach (var sentence in report.Story.Leftovers)
            {
                pdf.Paragraph("", "", "", sentence);
            }
        }

        foreach (var chapter in report.Story.Chapters)
        {
            pdf.Group(chapter.Title);
            foreach (var line in chapter.Lines)
            {
                pdf.Paragraph(
                    line.Sequence.ToString(CultureInfo.InvariantCulture),
                    Minute(line.At),
                    line.Who,
                    line.Struck.Length > 0 ? $"STRUCK OUT ({line.Struck}): {line.Text}" : line.Text
                );
            }
        }

        var taken = report.Story.Chapters.SelectMany(c => c.Lines).Where(l => l.Picture is not null && l.Struck.Length == 0).ToList();
        if (taken.Count > 0)
        {
            var pictures = await photos.OfAsync(id, cancellation);
            pdf.Group("Photos");
            foreach (var line in taken.Where(l => pictures.ContainsKey(l.Picture!.Value)))
            {
                pdf.Picture(pictures[line.Picture!.Value].Bytes, $"{line.Sequence}. {line.Text}");
            }
        }

        return TypedResults.File(pdf.Save(), "application/pdf", $"{report.CircuitTag}-{report.OpenedAt.UtcDateTime:yyyy-MM-dd}-report.pdf");
    }

    private static PushStreamHttpResult Jobs(
        string? search,
        [AsParameters] JobFilterParameters parameters,
        JobStore store,
        CancellationToken cancellation
    )
    {
        var filter = parameters.ToFilter();
        return Table(
            "jobs",
            ["Circuit", "Title", "Area", "Complaint", "Opened (UTC)", "Closed (UTC)", "Outcome", "Found in", "Found", "Entries", "Job"],
            Rows(),
            cancellation
        );

        async IAsyncEnumerable<string[]> Rows()
        {
            for (var first = 0; ; first += PageSize)
            {
                var page = await store.ListAsync(
                    new ListParameters(search, "openedAt", false, first, PageSize).ToQuery(),
                    filter,
                    cancellation
                );
                foreach (var j in page.Items)
                {
                    yield return
                    [
                        j.CircuitTag,
                        j.CircuitTitle,
                        j.Area,
                        j.Title,
                        Minute(j.OpenedAt),
                        j.ClosedAt is { } closed ? Minute(closed) : "",
                        j.Outcome ?? "open",
                        j.FoundUnit ?? "",
                        j.FoundText ?? "",
                        j.Entries.ToString(CultureInfo.InvariantCulture),
                        j.Id.ToString(),
                    ];
                }

                if (page.Items.Count < PageSize)
                {
                    yield break;
                }
            }
        }
    }

    private static PushStreamHttpResult Readings(
        string? search,
        [AsParameters] JobFilterParameters parameters,
        JobStore store,
        CancellationToken cancellation
    )
    {
        var filter = parameters.ToFilter();
        return Table(
            "readings",
            [
                "Circuit",
                "Complaint",
                "When (UTC)",
                "Who",
                "Quantity",
                "From",
                "To",
                "Held",
                "Shown",
                "Number",
                "Taken as",
                "Struck out",
                "Job",
            ],
            Rows(),
            cancellation
        );

        async IAsyncEnumerable<string[]> Rows()
        {
            await foreach (
                var line in store.ReadingsAsync(new ListParameters(search, null, null, null, null).ToQuery(), filter, cancellation)
            )
            {
                var reading = line.Reading;
                yield return
                [
                    line.Circuit,
                    line.Title,
                    Minute(reading.At),
                    reading.Who,
                    reading.Quantity.ToString(),
                    reading.From.ToString(),
                    reading.To.ToString(),
                    string.Join(", ", reading.Held),
                    ReadingText.Show(reading.Value, reading.Quantity),
                    reading.Value.Kind == ReadingKind.Number ? reading.Value.Number.ToString(CultureInfo.InvariantCulture) : "",
                    reading.Alone ? "by itself"
                    : reading.FreeEnd.Length > 0 ? $"free end of {reading.FreeEnd}"
                    : reading.LowImpedance ? "low impedance"
                    : "",
                    line.IsStruck ? "struck out" : "",
                    line.Job.ToString(),
                ];
            }
        }
    }

    /// <summary>Written out as it is read: twenty thousand jobs are never held at once.</summary>
    private static PushStreamHttpResult Table(
        string name,
        string[] head,
        IAsyncEnumerable<string[]> rows,
        CancellationToken cancellation
    ) =>
        TypedResults.Stream(
            async stream =>
            {
                await stream.WriteAsync(CsvText.Mark, cancellation);
                await stream.WriteAsync(CsvText.Of([head]), cancellation);
                await foreach (var page in rows.Chunk(PageSize).WithCancellation(cancellation))
                {
                    await stream.WriteAsync(CsvText.Of(page), cancellation);
                }
            },
            CsvText.Type,
            $"{name}.csv"
        );

    private static string Minute(DateTimeOffset at) => at.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture);
}
