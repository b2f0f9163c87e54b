using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Core.Devices;

namespace Fehler.Web.Tests;

/// <summary>Repair guides, dialects, instruments and interventions over HTTP.</summary>
public class GuideApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task A_proved_fault_comes_with_its_guide_in_either_dialect()
    {
        var job = await OpenCoilJob();
        var guide = (await Diagnosis(job)).GetProperty("guide");
        guide.GetProperty("provedBy").GetString()!.ShouldContain("OL, where a good one has about");
        guide.GetProperty("parts")[0].GetString()!.ShouldContain("230 V AC");
        guide.GetProperty("causes").GetArrayLength().ShouldBeGreaterThan(2);
        Texts(guide.GetProperty("steps")).ShouldContain(s => s.Contains("(lamp, suppressor)"));
        var american = (await Diagnosis(job, "?words=american")).GetProperty("guide");
        Texts(american.GetProperty("steps")).ShouldContain(s => s.Contains("(light, suppressor)"));
        var refused = await _client.GetAsync(new Uri($"/api/jobs/{job}/diagnosis?words=welsh", UriKind.Relative), Host.Cancellation);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .ShouldContain("iec or american");
    }

    [Fact]
    public async Task Before_anything_leads_there_is_no_guide()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (await Diagnosis(job)).GetProperty("guide").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    /// <summary>
    /// The instrument's own rules: insulation on a dead circuit only, a clamp around one lead, no screwdriver on a live terminal.
    /// </summary>
    [Theory]
    [InlineData(
        """{"type":"reading","quantity":"insulation","from":"M1:U","to":"M1:PE","held":[],"value":{"kind":"number","number":1e6}}""",
        "dead"
    )]
    [InlineData(
        """{"type":"reading","quantity":"startingAmps","from":"F2:2","to":"F2:4","held":[],"value":{"kind":"number","number":40}}""",
        "one lead"
    )]
    [InlineData(
        """{"type":"reading","quantity":"startingAmps","from":"F2:2","to":"F2:2","held":[],"value":{"kind":"overLimit"}}""",
        "not a current"
    )]
    [InlineData("""{"type":"tightened","terminal":"KM1:13","wasLoose":true}""", "proved dead")]
    [InlineData("""{"type":"tightened","terminal":"KM1:77","wasLoose":true}""", "No conductor ends")]
    public async Task What_an_instrument_or_a_screwdriver_must_not_do_is_refused_with_the_reason(string entry, string reason)
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (await Post(job, """{"type":"liveWorkAcknowledged"}""")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var answer = await Post(job, entry);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!.ShouldContain(reason);
    }

    [Fact]
    public async Task Readings_of_a_wrong_meter_are_marked_void_and_the_diagnosis_forgets_them()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (await Post(job, """{"type":"liveWorkAcknowledged"}""")).EnsureSuccessStatusCode();
        (
            await Post(
                job,
                """{"type":"operation","steps":[{"device":"S2","position":"pressed","seconds":0}],"seen":{"KM1":"out","M1":"stopped"}}"""
            )
        ).EnsureSuccessStatusCode();
        var before = Shares(await Diagnosis(job));
        (
            await Post(
                job,
                """{"type":"reading","quantity":"volts","from":"F3:2","to":"INC:N","held":[],"value":{"kind":"number","number":0}}"""
            )
        ).EnsureSuccessStatusCode();
        Shares(await Diagnosis(job)).ShouldNotBe(before);
        (await Post(job, """{"type":"meterChecked","good":false}""")).EnsureSuccessStatusCode();
        Shares(await Diagnosis(job)).ShouldBe(before);
        var entries = (await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation))
            .GetProperty("entries")
            .EnumerateArray()
            .ToList();
        entries.Count(e => e.GetProperty("void").GetString() == "the meter was found wrong").ShouldBe(1);
    }

    /// <summary>
    /// The coil of this contactor measured 640 ohm in a job that ended repaired and proved: 480 ohm is a quarter less, and in the next job
    /// shorted turns are suspected sooner than by the description's 570 ohm alone.
    /// </summary>
    [Fact]
    public async Task A_coil_measured_good_once_is_expected_to_measure_the_same_again()
    {
        var first = await Host.OpenJobAsync(_client, "IN-101");
        await Dead(first);
        (await Post(first, Coil(640))).EnsureSuccessStatusCode();
        (
            await Post(
                first,
                """{"type":"repair","unit":"S2","action":"block replaced","parts":["contact block"],"minutes":10,"cause":"dust"}"""
            )
        ).EnsureSuccessStatusCode();
        (await Post(first, """{"type":"energised"}""")).EnsureSuccessStatusCode();
        await ProveAndClose(first);

        var next = await Host.OpenJobAsync(_client, "IN-101");
        (
            await Post(
                next,
                """{"type":"operation","steps":[{"device":"S2","position":"pressed","seconds":0}],"seen":{"KM1":"out","M1":"stopped"}}"""
            )
        ).EnsureSuccessStatusCode();
        await Dead(next);
        (await Post(next, Coil(480))).EnsureSuccessStatusCode();
        Contactor(await Diagnosis(next)).ShouldBeGreaterThan(1.5 * Contactor(await Diagnosis(next, "?learn=false")));

        static double Contactor(JsonElement diagnosis) =>
            diagnosis
                .GetProperty("units")
                .EnumerateArray()
                .First(u => u.GetProperty("unit").GetString() == "KM1")
                .GetProperty("probability")
                .GetDouble();
    }

    private static string Coil(int ohms) =>
        $$$"""{"type":"reading","quantity":"ohms","from":"KM1:A1","to":"KM1:A2","held":[],"value":{"kind":"number","number":{{{ohms}}}}}""";

    private async Task ProveAndClose(string job)
    {
        var state = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        foreach (var item in state.GetProperty("restore").EnumerateArray())
        {
            (await Post(job, $$"""{"type":"restored","item":"{{item.GetProperty("id").GetString()}}"}""")).EnsureSuccessStatusCode();
        }

        foreach (var step in state.GetProperty("functionTest").EnumerateArray().Select(s => s.GetProperty("step")))
        {
            (
                await Post(
                    job,
                    $$$"""
                    {
                      "type": "functionTested", "step": "{{{step.GetProperty("id").GetString()}}}",
                      "passed": true, "seen": {{{step.GetProperty("expected").GetRawText()}}}
                    }
                    """
                )
            ).EnsureSuccessStatusCode();
        }

        (await Post(job, """{"type":"closed","outcome":"repairedAndProved","text":"","minutesDown":30}""")).EnsureSuccessStatusCode();
    }

    private async Task<string> OpenCoilJob()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (
            await Post(
                job,
                """{"type":"operation","steps":[{"device":"S2","position":"pressed","seconds":0}],"seen":{"KM1":"out","M1":"stopped"}}"""
            )
        ).EnsureSuccessStatusCode();
        await Dead(job);
        (
            await Post(job, """{"type":"reading","quantity":"ohms","from":"KM1:A1","to":"KM1:A2","held":[],"value":{"kind":"overLimit"}}""")
        ).EnsureSuccessStatusCode();
        return job;
    }

    private Task Dead(string job) => Host.DeadAsync(_client, job, "Q1");

    private static List<string> Texts(JsonElement list) => [.. list.EnumerateArray().Select(t => t.GetString()!)];

    private static string Shares(JsonElement diagnosis) =>
        string.Join(
            "|",
            diagnosis
                .GetProperty("units")
                .EnumerateArray()
                .Select(u => $"{u.GetProperty("unit")} {u.GetProperty("probability").GetDouble():0.0000}")
        );

    private async Task<JsonElement> Diagnosis(string job, string query = "") =>
        await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis{query}", Host.Cancellation);

    private Task<HttpResponseMessage> Post(string job, string json) =>
        _client.PostAsync(
            new Uri($"/api/jobs/{job}/entries", UriKind.Relative),
            new StringContent(json, System.Text.Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
}
