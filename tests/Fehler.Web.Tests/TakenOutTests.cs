using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using PdfSharp.Pdf.IO;

namespace Fehler.Web.Tests;

/// <summary>What is read afterwards and elsewhere: reports, tables of jobs and readings, labels; and the register narrowed, and a twin.</summary>
public sealed class TakenOutTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task A_closed_job_has_a_report_on_screen_and_on_paper()
    {
        var job = (await Jobs("?search=night storm"))[0].GetProperty("id").GetString();
        var report = await Json($"/api/jobs/{job}/report");
        report.GetProperty("story").GetProperty("outcome")[0].GetString()!.ShouldContain("Coil of KM1 is open");
        report.GetProperty("story").GetProperty("leftovers").GetArrayLength().ShouldBe(0);
        var pdf = await _client.GetByteArrayAsync($"/api/jobs/{job}/report.pdf?paper=letter", Host.Cancellation);
        using var read = PdfReader.Open(new MemoryStream(pdf), PdfDocumentOpenMode.Import);
        read.PageCount.ShouldBeGreaterThan(0);
        // Letter is 11 inches long, 72 points each.
        Math.Max(read.Pages[0].Width.Point, read.Pages[0].Height.Point).ShouldBe(792, 0.5);
        (await _client.GetAsync($"/api/jobs/{Guid.NewGuid()}/report", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>RFC 4180: a record a line, fields by commas; and every reading of the journals stands in it once.</summary>
    [Fact]
    public async Task Jobs_and_readings_are_tables()
    {
        var jobs = await Table("/api/jobs/jobs.csv?show=closed");
        jobs[0].ShouldStartWith("Circuit,Title,Area,Complaint");
        (jobs.Count - 1).ShouldBe((await Jobs("?show=closed&take=200")).GetArrayLength());
        var readings = await Table("/api/jobs/readings.csv?search=night storm");
        var id = (await Jobs("?search=night storm"))[0].GetProperty("id").GetString();
        var journal = (await Json($"/api/jobs/{id}")).GetProperty("entries");
        var recorded = journal.EnumerateArray().Count(e => e.GetProperty("entry").GetProperty("type").GetString() == "reading");
        (readings.Count - 1).ShouldBe(recorded);
        readings[1].ShouldContain(",231 V,231,");
        (await _client.GetAsync("/api/jobs/jobs.csv?from=yesterday", Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
    }

    [Fact]
    public async Task Labels_are_printed_for_an_enclosure_and_its_circuits()
    {
        var all = await _client.GetByteArrayAsync("/api/labels.pdf", Host.Cancellation);
        var few = await _client.GetByteArrayAsync("/api/labels.pdf?enclosure=Pump house panel", Host.Cancellation);
        using var many = PdfReader.Open(new MemoryStream(all), PdfDocumentOpenMode.Import);
        using var one = PdfReader.Open(new MemoryStream(few), PdfDocumentOpenMode.Import);
        one.PageCount.ShouldBe(1);
        many.PageCount.ShouldBeGreaterThan(1);
        var id = await Host.CircuitAsync(_client, "WP-301");
        (await _client.GetStringAsync($"/api/circuits/{id}/label.svg", Host.Cancellation)).ShouldStartWith("<svg");
    }

    [Fact]
    public async Task The_register_shows_what_is_not_in_order_and_what_comes_back()
    {
        var open = (await Json("/api/circuits?show=notInOrder&take=200")).GetProperty("items");
        open.EnumerateArray()
            .ShouldAllBe(c => c.GetProperty("openJob").ValueKind != JsonValueKind.Null || c.GetProperty("isHandedOver").GetBoolean());
        open.GetArrayLength().ShouldBeGreaterThan(0);
        var area = (await Json("/api/circuits?area=Log yard water&take=200")).GetProperty("items");
        area.EnumerateArray().ShouldAllBe(c => c.GetProperty("area").GetString() == "Log yard water");
        area.GetArrayLength().ShouldBeGreaterThan(1);
        var back = (await Json("/api/circuits?show=comingBack&sort=recentJobs&descending=true&take=200")).GetProperty("items");
        var counts = back.EnumerateArray().Select(c => c.GetProperty("recentJobs").GetInt32()).ToList();
        counts.ShouldAllBe(n => n >= 2);
        counts.ShouldBe(counts.OrderDescending());
        (await _client.GetAsync("/api/circuits?show=broken", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_twin_is_the_same_circuit_under_a_designation_of_its_own()
    {
        var id = await Host.CircuitAsync(_client, "WP-302");
        var made = await Copy(id, "WP-399", "Sprinkler pump 9");
        made.EnsureSuccessStatusCode();
        var twin = (await made.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("id").GetString();
        var (file, original) = (
            await _client.GetStringAsync($"/api/circuits/{twin}/file", Host.Cancellation),
            await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation)
        );
        file.Replace("WP-399", "WP-302").Replace("Sprinkler pump 9", "Sprinkler pump 2").ShouldBe(original);
        (await Copy(id, "WP-399", "")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Copy(id, " ", "")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    /// <summary>What was fitted into a contactor before is offered for the next one first; for a fuse it is not.</summary>
    [Fact]
    public async Task Parts_that_were_used_are_offered_for_units_like_theirs()
    {
        async Task<List<string?>> For(string unit) =>
            [.. (await Json($"/api/jobs/parts?unit={unit}")).EnumerateArray().Select(p => p.GetString())];
        (await For("KM7")).Take(2).Order().ShouldBe(["auxiliary contact block 13-14", "coil 230 V"]);
        (await For("S9")).Take(2).Order().ShouldBe(["contact block NC", "push-button, sealed"]);
        var all = await For("");
        all.ShouldBe(all.Distinct());
        (await For("S1")).ShouldBe(await For("S9"));
    }

    private Task<HttpResponseMessage> Copy(string id, string tag, string title) =>
        _client.PostAsJsonAsync($"/api/circuits/{id}/copies", new { tag, title }, Host.Cancellation);

    private Task<JsonElement> Json(string path) => _client.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    private async Task<JsonElement> Jobs(string query) => (await Json($"/api/jobs{query}")).GetProperty("items");

    private async Task<List<string>> Table(string path)
    {
        var bytes = await _client.GetByteArrayAsync(path, Host.Cancellation);
        bytes[..3].ShouldBe(Encoding.UTF8.GetPreamble());
        return [.. Encoding.UTF8.GetString(bytes[3..]).Split('\n', StringSplitOptions.RemoveEmptyEntries)];
    }
}
