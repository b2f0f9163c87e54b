using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Operation;
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
        (pdf.Pages[0].Width.Point, pdf.Pages[0].Height.Point).ShouldBe(
            (width, height),
            "points of 1/72 inch: ISO 216 and ANSI Y14.1, from memory"
        );
    }

    [Fact]
    public async Task Reading_sheet_and_terminal_plan_open_in_a_spreadsheet()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        var sheet = await _client.GetStringAsync($"/api/circuits/{id}/reading-sheet.csv", Host.Cancellation);
        sheet.TrimStart('\uFEFF').Split('\n')[0].Trim().ShouldStartWith("Across,From,To,Wires,At rest");
        var plan = (await _client.GetStringAsync($"/api/circuits/{id}/terminal-plan.csv", Host.Cancellation))
            .TrimStart('\uFEFF')
            .Split('\n', StringSplitOptions.RemoveEmptyEntries);
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
        var round = await _client.PostAsJsonAsync(
            $"/api/circuits/{id}/work",
            new
            {
                rule = "currents",
                who = "tester",
                working = "M1 runs",
                readings = new[]
                {
                    new
                    {
                        type = "readingAsTyped",
                        quantity = "amps",
                        from = "F2:2",
                        to = "F2:2",
                        held = Array.Empty<object>(),
                        typed = "6.1",
                    },
                },
            },
            Host.Cancellation
        );
        round.StatusCode.ShouldBe(HttpStatusCode.OK);
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
        (await other.GetStringAsync($"/api/circuits/{there}/file", Host.Cancellation)).ShouldBe(
            await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation)
        );
        var jobs = await other.GetFromJsonAsync<JsonElement>($"/api/circuits/{there}/jobs", Host.Cancellation);
        jobs.GetProperty("items")
            .EnumerateArray()
            .ShouldAllBe(j => j.GetProperty("origin").GetString()!.StartsWith("a bundle taken in on "));
        Without(jobs, "origin")
            .ShouldBe(Without(await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/jobs", Host.Cancellation), "origin"));
        (await other.GetFromJsonAsync<JsonElement>($"/api/circuits/{there}/bench-checks", Host.Cancellation))
            .GetArrayLength()
            .ShouldBeGreaterThan(0);

        // What was measured on rounds and benches stands in the trends there as it does here.
        (await other.GetStringAsync($"/api/circuits/{there}/trends.csv", Host.Cancellation)).ShouldBe(
            await _client.GetStringAsync($"/api/circuits/{id}/trends.csv", Host.Cancellation)
        );
        (await other.GetStringAsync($"/api/circuits/{there}/trends.csv", Host.Cancellation)).ShouldContain("Running current,F2,2,M1 runs");
    }

    /// <summary>300 MB of nothing pack into a third of a megabyte: it is refused by its table of contents, before anything is unpacked.</summary>
    [Fact]
    public async Task A_bundle_that_unpacks_for_ever_is_not_opened()
    {
        var bundle = await _client.GetByteArrayAsync(
            "/api/bundle?circuit=" + await Host.CircuitAsync(_client, "WP-301"),
            Host.Cancellation
        );
        using var file = new MemoryStream();
        await file.WriteAsync(bundle, Host.Cancellation);
        using (var zip = new ZipArchive(file, ZipArchiveMode.Update, leaveOpen: true))
        {
            var nothing = new byte[1_000_000];
            await using var much = zip.CreateEntry("circuits/much.json", CompressionLevel.SmallestSize).Open();
            for (var megabyte = 0; megabyte < 300; megabyte++)
            {
                await much.WriteAsync(nothing, Host.Cancellation);
            }
        }

        file.Length.ShouldBeLessThan(1_000_000);
        (await Refusal(file.ToArray())).ShouldContain("times its size");
    }

    [Fact]
    public async Task A_damaged_bundle_is_refused_and_a_damaged_file_in_one_is_set_aside_by_name()
    {
        var bundle = await _client.GetByteArrayAsync("/api/bundle", Host.Cancellation);
        (await Refusal(bundle[..(bundle.Length / 2)])).ShouldContain("not a zip");
        (await Refusal(Changed(bundle, "bundle.json", _ => null))).ShouldContain("bundle.json");
        var before = await Everything();
        (await SetAside(Changed(bundle, "jobs/", text => text[..(text.Length / 2)]))).ShouldHaveSingleItem().ShouldContain("jobs/");
        (
            await SetAside(Changed(bundle, "circuits/", text => text.Replace("\"contactor\"", "\"contractor\"", StringComparison.Ordinal)))
        ).ShouldContain(r => r.Contains("kind"));
        (await Everything()).ShouldBe(before);
    }

    /// <summary>One bad file of a bundle does not stop the others: an installation with nothing in it gets all the rest.</summary>
    [Fact]
    public async Task What_is_sound_in_a_damaged_bundle_is_taken_in()
    {
        var bundle = await _client.GetByteArrayAsync("/api/bundle", Host.Cancellation);
        using var elsewhere = new EmptyHost();
        using var other = elsewhere.CreateClient();
        var answer = await other.PostAsync(
            "/api/bundle?from=the%20other%20sawmill",
            Zip(Changed(bundle, "jobs/", text => text[..(text.Length / 2)])),
            Host.Cancellation
        );
        answer.EnsureSuccessStatusCode();
        var result = await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        var jobs = (await _client.GetFromJsonAsync<JsonElement>("/api/jobs", Host.Cancellation)).GetProperty("total").GetInt32();
        (result.GetProperty("circuits").GetInt32(), result.GetProperty("jobs").GetInt32()).ShouldBe((34, jobs - 1));
        result.GetProperty("setAside").GetArrayLength().ShouldBe(1);
    }

    /// <summary>
    /// An open job that is carried in says nothing of the circuit here: it counts as live, and its entries show where they come from.
    /// </summary>
    [Fact]
    public async Task A_safety_state_is_never_carried_into_an_open_job()
    {
        var job = await Host.OpenJobAsync(_client, "WP-303");
        await Host.DeadAsync(_client, job, await PointsAsync("WP-303"));
        var bundle = await _client.GetByteArrayAsync(
            $"/api/bundle?circuit={await Host.CircuitAsync(_client, "WP-303")}",
            Host.Cancellation
        );
        using var elsewhere = new EmptyHost();
        using var other = elsewhere.CreateClient();
        (await other.PostAsync("/api/bundle?from=tablet%202", Zip(bundle), Host.Cancellation)).EnsureSuccessStatusCode();
        var carried = await other.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        carried.GetProperty("liveness").GetString().ShouldBe("unknown");
        carried.GetProperty("entries").EnumerateArray().Last().GetProperty("text").GetString()!.ShouldContain("Carried in from tablet 2");
        var measured = await other.PostAsJsonAsync(
            $"/api/jobs/{job}/entries",
            new
            {
                type = "readingAsTyped",
                quantity = "ohms",
                from = "KM1:A1",
                to = "KM1:A2",
                held = Array.Empty<object>(),
                typed = "400",
            },
            Host.Cancellation
        );
        measured.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        // What is recorded over there meanwhile does not change the state of the open job here either.
        await Add(job, new { type = "note", text = "still isolated" });
        bundle = await _client.GetByteArrayAsync($"/api/bundle?circuit={await Host.CircuitAsync(_client, "WP-303")}", Host.Cancellation);
        (await other.PostAsync("/api/bundle?from=tablet%202", Zip(bundle), Host.Cancellation)).EnsureSuccessStatusCode();
        (await other.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation))
            .GetProperty("liveness")
            .GetString()
            .ShouldBe("unknown");
    }

    [Fact]
    public async Task A_job_that_is_closed_here_takes_nothing_more_from_a_bundle()
    {
        var job = await Host.OpenJobAsync(_client, "WP-306");
        var circuit = await Host.CircuitAsync(_client, "WP-306");
        using var elsewhere = new EmptyHost();
        using var other = elsewhere.CreateClient();
        (
            await other.PostAsync(
                "/api/bundle",
                Zip(await _client.GetByteArrayAsync($"/api/bundle?circuit={circuit}", Host.Cancellation)),
                Host.Cancellation
            )
        ).EnsureSuccessStatusCode();
        (
            await other.PostAsJsonAsync(
                $"/api/jobs/{job}/entries",
                new
                {
                    type = "closed",
                    outcome = "handedOver",
                    text = "late shift",
                },
                Host.Cancellation
            )
        ).EnsureSuccessStatusCode();
        await Add(job, new { type = "note", text = "went on over there" });
        var answer = await other.PostAsync(
            "/api/bundle",
            Zip(await _client.GetByteArrayAsync($"/api/bundle?circuit={circuit}", Host.Cancellation)),
            Host.Cancellation
        );
        var result = await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        result.GetProperty("entries").GetInt32().ShouldBe(0);
        result.GetProperty("setAside")[0].GetString()!.ShouldContain("closed here");
    }

    [Fact]
    public async Task A_bench_check_is_judged_and_kept_with_the_circuit()
    {
        var id = await Host.CircuitAsync(_client, "LD-102");
        var items = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/bench-check", Host.Cancellation);
        items.GetArrayLength().ShouldBeGreaterThan(30);
        async Task<JsonElement> Kept() =>
            await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/bench-checks", Host.Cancellation);
        var before = (await Kept()).GetArrayLength();
        var good = await (await Record(id, "F2/95-96@0", "0.2")).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        (good.GetProperty("passed").GetInt32(), good.GetProperty("failed").GetInt32()).ShouldBe((1, 0));
        var bad = await (await Record(id, "F2/95-96@0", "OL")).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        bad.GetProperty("failed").GetInt32().ShouldBe(1);
        (await Record(id, "F2/95-96@0", "fine")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Record(id, "F9/1-2@0", "1")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var kept = await Kept();
        kept.GetArrayLength().ShouldBe(before + 2);
        kept[0].GetProperty("who").GetString().ShouldBe("tester");
    }

    /// <summary>What was measured on the bench is evidence in the job, as of the device by itself; on a live circuit none of it is taken.</summary>
    [Fact]
    public async Task A_bench_check_goes_into_the_open_job_once_its_circuit_is_dead()
    {
        var id = await Host.CircuitAsync(_client, "LD-102");
        var opened = await _client.PostAsJsonAsync(
            "/api/jobs",
            new
            {
                circuitId = id,
                complaint = "deck does not start",
                who = "tester",
            },
            Host.Cancellation
        );
        var job = (await opened.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("id").GetString()!;
        object Check(string reading, params string[] more) =>
            new
            {
                who = "tester",
                job,
                items = more.Prepend("F2/95-96@0")
                    .Select(id => new
                    {
                        id,
                        reading,
                        good = (bool?)null,
                    }),
            };
        async Task<int> Kept() =>
            (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/bench-checks", Host.Cancellation)).GetArrayLength();
        var before = await Kept();
        var early = await _client.PostAsJsonAsync($"/api/circuits/{id}/bench-checks", Check("OL"), Host.Cancellation);
        early.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await early.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("prove dead first");
        (await Kept()).ShouldBe(before);
        var file = await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation);
        var points = CircuitFile.Read(file).Compile().Isolation.Points;
        await Host.DeadAsync(_client, job, points);
        // The isolator's upper side stays live: that item alone is left out of the journal, and said.
        var taken = await _client.PostAsJsonAsync($"/api/circuits/{id}/bench-checks", Check("OL", "Q1/1-2@0"), Host.Cancellation);
        var view = await taken.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        view.GetProperty("items").GetArrayLength().ShouldBe(2);
        view.GetProperty("notInJob").EnumerateArray().Single().GetString()!.ShouldContain("stays live when the circuit is isolated");
        var journal = (await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation)).GetProperty("entries");
        journal.EnumerateArray().Last().GetProperty("text").GetString().ShouldBe("F2:95 – F2:96 (by itself): OL with F2 reset");
        var judged = await _client.PostAsJsonAsync($"/api/circuits/{id}/bench-check/judged", Check("0.2"), Host.Cancellation);
        (await judged.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))[0].GetProperty("good").GetBoolean().ShouldBeTrue();
    }

    private Task<HttpResponseMessage> Record(string id, string item, string reading) =>
        _client.PostAsJsonAsync(
            $"/api/circuits/{id}/bench-checks",
            new
            {
                who = "tester",
                items = new[]
                {
                    new
                    {
                        id = item,
                        reading,
                        good = (bool?)null,
                    },
                },
            },
            Host.Cancellation
        );

    private async Task<string> Everything() =>
        await _client.GetStringAsync("/api/circuits", Host.Cancellation) + await _client.GetStringAsync("/api/jobs", Host.Cancellation);

    private async Task<JsonElement> Import(byte[] bundle)
    {
        var answer = await _client.PostAsync("/api/bundle", Zip(bundle), Host.Cancellation);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }

    private async Task Add(string job, object entry) =>
        (await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation)).EnsureSuccessStatusCode();

    private async Task<string[]> PointsAsync(string tag) =>
        [
            .. (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{await Host.CircuitAsync(_client, tag)}", Host.Cancellation))
                .GetProperty("isolationPoints")
                .EnumerateArray()
                .Select(p => p.GetString()!),
        ];

    private static string Without(JsonElement page, string property)
    {
        var node = System.Text.Json.Nodes.JsonNode.Parse(page.GetRawText())!;
        foreach (var item in node["items"]!.AsArray())
        {
            item!.AsObject().Remove(property);
        }

        return node.ToJsonString();
    }

    private async Task<List<string>> SetAside(byte[] bundle) =>
        [.. (await Import(bundle)).GetProperty("setAside").EnumerateArray().Select(r => r.GetString()!)];

    private async Task<string> Refusal(byte[] bundle)
    {
        var answer = await _client.PostAsync("/api/bundle", Zip(bundle), Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!;
    }

    private static ByteArrayContent Zip(byte[] bytes) =>
        new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/zip") } };

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
