using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using PdfSharp.Pdf.IO;

namespace Fehler.Web.Tests;

/// <summary>What leaves the application: pages, spreadsheets, bundles; and bench checks that stay.</summary>
public class PrintAndCarryTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Theory]
    [InlineData("", 842, 595)]
    [InlineData("?paper=letter", 792, 612)]
    public async Task The_reading_sheet_is_a_PDF_on_the_paper_asked_for(string query, double width, double height)
    {
        var id = await Host.CircuitAsync(_client, "GC-501");
        var bytes = await _client.GetByteArrayAsync($"/api/circuits/{id}/reading-sheet.pdf{query}", Host.Cancellation);
        using var pdf = PdfReader.Open(new MemoryStream(bytes), PdfDocumentOpenMode.Import);
        pdf.PageCount.ShouldBeGreaterThan(1);
        (pdf.Pages[0].Width.Point, pdf.Pages[0].Height.Point).ShouldBe((width, height), "points of 1/72 inch: ISO 216 and ANSI Y14.1, from memory");
    }

    [Fact]
    public async Task Reading_sheet_and_terminal_plan_open_in_a_spreadsheet()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        var sheet = await _client.GetStringAsync($"/api/circuits/{id}/reading-sheet.csv", Host.Cancellation);
        sheet.TrimStart('\uFEFF').Split('\n')[0].Trim().ShouldStartWith("Across,From,To,Wires,At rest");
        var plan = (await _client.GetStringAsync($"/api/circuits/{id}/terminal-plan.csv", Host.Cancellation)).TrimStart('\uFEFF').Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var circuit = await _client.GetFromJsonAsync<JsonNode>($"/api/circuits/{id}", Host.Cancellation);
        plan.Length.ShouldBe(circuit!["conductors"]!.AsArray().Count + 1);
    }

    [Fact]
    public async Task A_bundle_taken_in_where_it_came_from_changes_nothing()
    {
        var bundle = await _client.GetByteArrayAsync("/api/bundle", Host.Cancellation);
        var before = await Everything();
        var result = await Import(bundle);
        new[] { "circuits", "versions", "jobs", "entries", "benchChecks" }.ShouldAllBe(n => result.GetProperty(n).GetInt32() == 0);
        (await Everything()).ShouldBe(before);
    }

    [Fact]
    public async Task A_bundle_brings_circuits_with_their_history_to_another_installation_once()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        (await Record(id, "KM1/A1-A2@0", "560")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var bundle = await _client.GetByteArrayAsync($"/api/bundle?circuit={id}", Host.Cancellation);
        using var elsewhere = new EmptyHost();
        using var other = elsewhere.CreateClient();
        foreach (var expected in new[] { 1, 0 })
        {
            var answer = await other.PostAsync("/api/bundle", Zip(bundle), Host.Cancellation);
            answer.EnsureSuccessStatusCode();
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("circuits").GetInt32().ShouldBe(expected);
        }

        var there = await Host.CircuitAsync(other, "IN-101");
        (await other.GetStringAsync($"/api/circuits/{there}/file", Host.Cancellation)).ShouldBe(await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation));
        var jobs = await other.GetFromJsonAsync<JsonElement>($"/api/circuits/{there}/jobs", Host.Cancellation);
        jobs.ToString().ShouldBe((await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/jobs", Host.Cancellation)).ToString());
        (await other.GetFromJsonAsync<JsonElement>($"/api/circuits/{there}/bench-checks", Host.Cancellation)).GetArrayLength().ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_damaged_bundle_is_refused_by_name_and_nothing_of_it_stays()
    {
        var bundle = await _client.GetByteArrayAsync("/api/bundle", Host.Cancellation);
        (await Refusal(bundle[..(bundle.Length / 2)])).ShouldContain("not a zip");
        (await Refusal(Changed(bundle, "bundle.json", _ => null))).ShouldContain("bundle.json");
        var before = await Everything();
        (await Refusal(Changed(bundle, "jobs/", text => text[..(text.Length / 2)]))).ShouldContain("jobs/");
        (await Refusal(Changed(bundle, "circuits/", text => text.Replace("\"contactor\"", "\"contractor\"", StringComparison.Ordinal)))).ShouldContain("kind");
        (await Everything()).ShouldBe(before);
    }

    [Fact]
    public async Task A_bench_check_is_judged_and_kept_with_the_circuit()
    {
        var id = await Host.CircuitAsync(_client, "LD-102");
        var items = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/bench-check", Host.Cancellation);
        items.GetArrayLength().ShouldBeGreaterThan(30);
        var good = await (await Record(id, "F2/95-96@0", "0.2")).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        (good.GetProperty("passed").GetInt32(), good.GetProperty("failed").GetInt32()).ShouldBe((1, 0));
        var bad = await (await Record(id, "F2/95-96@0", "OL")).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        bad.GetProperty("failed").GetInt32().ShouldBe(1);
        (await Record(id, "F2/95-96@0", "fine")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Record(id, "F9/1-2@0", "1")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var kept = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/bench-checks", Host.Cancellation);
        kept.GetArrayLength().ShouldBe(2);
        kept[0].GetProperty("who").GetString().ShouldBe("tester");
    }

    private Task<HttpResponseMessage> Record(string id, string item, string reading) => _client.PostAsJsonAsync(
        $"/api/circuits/{id}/bench-checks", new { who = "tester", items = new[] { new { id = item, reading, good = (bool?)null } } }, Host.Cancellation);

    private async Task<string> Everything() =>
        await _client.GetStringAsync("/api/circuits", Host.Cancellation) + await _client.GetStringAsync("/api/jobs", Host.Cancellation);

    private async Task<JsonElement> Import(byte[] bundle)
    {
        var answer = await _client.PostAsync("/api/bundle", Zip(bundle), Host.Cancellation);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }

    private async Task<string> Refusal(byte[] bundle)
    {
        var answer = await _client.PostAsync("/api/bundle", Zip(bundle), Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!;
    }

    private static ByteArrayContent Zip(byte[] bytes) => new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/zip") } };

    /// <summary>The bundle with the first file of a name changed, or taken out.</summary>
    private static byte[] Changed(byte[] bundle, string name, Func<string, string?> change)
    {
        var memory = new MemoryStream();
        memory.Write(bundle);
        using (var zip = new ZipArchive(memory, ZipArchiveMode.Update, leaveOpen: true))
        {
            var entry = zip.Entries.First(e => e.FullName.StartsWith(name, StringComparison.Ordinal));
            string text;
            using (var reader = new StreamReader(entry.Open(), Encoding.UTF8))
            {
                text = reader.ReadToEnd();
            }

            var (full, changed) = (entry.FullName, change(text));
            entry.Delete();
            if (changed is not null)
            {
                using var writer = new StreamWriter(zip.CreateEntry(full).Open(), new UTF8Encoding(false));
                writer.Write(changed);
            }
        }

        return memory.ToArray();
    }
}
