using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>What a caller says, and how a circuit is left: over HTTP.</summary>
public class CallApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task A_job_opened_by_symptoms_has_its_title_and_its_evidence()
    {
        var circuit = await Circuit("WP-302");
        var call = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/call", Host.Cancellation);
        var symptom = call.GetProperty("groups")[0].GetProperty("symptoms")[0];
        var job = await Sent(
            "/api/jobs",
            new
            {
                circuitId = circuit,
                complaint = "",
                who = "R. Halvar",
                symptoms = new[] { symptom.GetProperty("id").GetString() },
                told = new[] { new { what = "everyTime" } },
            },
            HttpStatusCode.Created
        );
        job.GetProperty("title").GetString().ShouldBe(symptom.GetProperty("text").GetString());
        job.GetProperty("entries")
            .EnumerateArray()
            .Select(e => e.GetProperty("entry").GetProperty("type").GetString())
            .ShouldContain("told");
        var diagnosis = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{Id(job)}/diagnosis", Host.Cancellation);
        diagnosis.GetProperty("observations").GetInt32().ShouldBeGreaterThan(1);

        var unknown = new
        {
            circuitId = circuit,
            complaint = "",
            symptoms = new[] { "sings" },
        };
        (await Sent("/api/jobs", unknown, HttpStatusCode.UnprocessableEntity)).GetProperty("detail").GetString()!.ShouldContain("'sings'");
        var nowhere = new
        {
            circuitId = circuit,
            complaint = "x",
            told = new[] { new { what = "burnt", device = "Z9" } },
        };
        (await Sent("/api/jobs", nowhere, HttpStatusCode.UnprocessableEntity)).GetProperty("detail").GetString()!.ShouldContain("Z9");
    }

    [Fact]
    public async Task Times_and_counts_that_a_caller_tells_become_evidence()
    {
        var circuit = await Circuit("WP-302");
        var call = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/call", Host.Cancellation);
        var reset = call.GetProperty("groups")
            .EnumerateArray()
            .SelectMany(g => g.GetProperty("symptoms").EnumerateArray())
            .First(s => s.GetProperty("id").GetString()!.EndsWith("-reset", StringComparison.Ordinal));
        reset.GetProperty("takesTime").GetBoolean().ShouldBeTrue();
        object Opened(double after, int failed) =>
            new
            {
                circuitId = circuit,
                complaint = "",
                symptoms = new[] { reset.GetProperty("id").GetString() },
                told = new[] { new { what = "ranUntilNow", until = "2026-03-02" } },
                afterSeconds = after,
                failed,
                tries = 10,
            };
        var job = await Sent("/api/jobs", Opened(480, 3), HttpStatusCode.Created);
        var texts = job.GetProperty("entries").EnumerateArray().Select(e => e.GetProperty("text").GetString()!).ToList();
        texts.ShouldContain("Told: It failed 3 of the last 10 times");
        texts.ShouldContain("Told: It ran until 2026-03-02");
        texts.ShouldContain(t => t.Contains("waited 480 s", StringComparison.Ordinal));
        texts[^1].ShouldContain("reset");
        await Sent("/api/jobs", Opened(-1, 3), HttpStatusCode.UnprocessableEntity);
        await Sent("/api/jobs", Opened(480, 11), HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task What_is_left_behind_is_said_until_the_next_job()
    {
        var circuit = await Circuit("WP-303");
        (await Left(circuit)).ValueKind.ShouldBe(JsonValueKind.Null);
        var job = Id(await Open(circuit));
        await Add(
            job,
            new
            {
                type = "isolated",
                points = new[] { "Q1" },
                who = "Anna",
            }
        );
        await Add(job, new { type = "lockHung", who = "Ben" });
        var refused = await Sent($"/api/jobs/{job}/entries", new { type = "energised", who = "Anna" }, HttpStatusCode.UnprocessableEntity);
        refused.GetProperty("detail").GetString()!.ShouldContain("Ben");
        var closed = new
        {
            type = "closed",
            outcome = "nothingFound",
            text = "late",
        };
        await Sent($"/api/jobs/{job}/entries", closed, HttpStatusCode.UnprocessableEntity);
        await Add(
            job,
            new
            {
                type = "closed",
                outcome = "handedOver",
                text = "to the late shift",
                who = "Anna",
            }
        );
        var left = await Left(circuit);
        left.GetProperty("leftovers")[0].GetString()!.ShouldContain("locked by Anna and Ben");
        left.GetProperty("text").GetString().ShouldBe("to the late shift");
        var next = await Open(circuit);
        next.GetProperty("entries")
            .EnumerateArray()
            .Select(e => e.GetProperty("text").GetString()!)
            .ShouldContain(t => t.Contains("locked by Anna and Ben", StringComparison.Ordinal));
        (await Left(circuit)).ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_reading_is_doubted_before_it_is_recorded_and_never_by_mistake()
    {
        var job = Id(await Open(await Circuit("WP-304")));
        await Add(job, new { type = "liveWorkAcknowledged" });
        async Task<string?> Question(string typed) => (
                await Sent(
                    $"/api/jobs/{job}/doubt",
                    new
                    {
                        type = "readingAsTyped",
                        quantity = "volts",
                        from = "Q1:2",
                        to = "Q1:4",
                        held = Array.Empty<object>(),
                        typed,
                    },
                    HttpStatusCode.OK
                )
            ).GetProperty("question").GetString();
        // While the session is at work on the job a doubt is left out rather than waited for.
        var asked = await Question("900");
        for (var tries = 0; asked is null && tries < 60; tries++)
        {
            await Task.Delay(500, Host.Cancellation);
            asked = await Question("900");
        }

        asked!.ShouldContain("Are both leads");
        (await Question("400")).ShouldBeNull();
        (await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation)).GetProperty("sequence").GetInt32().ShouldBe(2);
    }

    private async Task<string> Circuit(string tag) =>
        (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits?search={tag}", Host.Cancellation))
            .GetProperty("items")[0]
            .GetProperty("id")
            .GetString()!;

    private Task<JsonElement> Open(string circuit) =>
        Sent("/api/jobs", new { circuitId = circuit, complaint = "Does not start" }, HttpStatusCode.Created);

    private async Task<JsonElement> Left(string circuit) =>
        (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/handed-over", Host.Cancellation)).GetProperty("handedOver");

    private Task<JsonElement> Add(string job, object entry) => Sent($"/api/jobs/{job}/entries", entry, HttpStatusCode.OK);

    private static string Id(JsonElement job) => job.GetProperty("id").GetString()!;

    private async Task<JsonElement> Sent(string address, object body, HttpStatusCode expected)
    {
        using var answer = await _client.PostAsJsonAsync(address, body, Host.Cancellation);
        var text = await answer.Content.ReadAsStringAsync(Host.Cancellation);
        answer.StatusCode.ShouldBe(expected, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }
}
