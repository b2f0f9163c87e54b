using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>Practice over HTTP: a job whose panel is simulated.</summary>
public class ExerciseApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    private Task<JsonElement> Get(string path) => _client.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    private async Task<JsonElement> Begun(string tag, bool withAdvice, params string[] faults)
    {
        var answer = await _client.PostAsJsonAsync(
            "/api/exercises",
            new
            {
                circuit = await Host.CircuitAsync(_client, tag),
                difficulty = "single",
                code = "",
                withAdvice,
                who = "apprentice",
                faults = faults.Length > 0 ? faults : null,
            },
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.Created);
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }

    private async Task<(HttpStatusCode Status, JsonElement Answer)> Add(string id, object entry)
    {
        var answer = await _client.PostAsJsonAsync($"/api/jobs/{id}/entries", entry, Host.Cancellation);
        return (answer.StatusCode, await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation));
    }

    private static object Measure(string quantity, string from, string to, Guid? id = null) =>
        new
        {
            type = "readingAsTyped",
            id = id ?? Guid.NewGuid(),
            quantity,
            from,
            to,
            held = Array.Empty<object>(),
            typed = "not sure",
            who = "apprentice",
        };

    [Fact]
    public async Task The_meter_shows_what_the_panel_has_and_a_repeated_call_is_one_reading()
    {
        var id = (await Begun("IN-101", false, "KM1/A1-A2-open")).GetProperty("id").GetString()!;
        (await Add(id, new { type = "liveWorkAcknowledged" })).Status.ShouldBe(HttpStatusCode.OK);
        var reading = Guid.NewGuid();
        foreach (var again in new[] { false, true })
        {
            var (status, answer) = await Add(id, Measure("volts", "INC:L1", "INC:N", reading));
            status.ShouldBe(HttpStatusCode.OK);
            answer.GetProperty("wasKnown").GetBoolean().ShouldBe(again);
            var shown = answer.GetProperty("job").GetProperty("entries").EnumerateArray().Last();
            shown.GetProperty("entry").GetProperty("value").GetProperty("number").GetDouble().ShouldBeInRange(205, 255);
        }
    }

    [Fact]
    public async Task Without_advice_nothing_is_given_away_until_it_has_ended()
    {
        var id = (await Begun("IN-101", false, "S1/21-22-open")).GetProperty("id").GetString()!;
        var hidden = await Get($"/api/jobs/{id}/diagnosis");
        hidden.GetProperty("units").GetArrayLength().ShouldBe(0);
        hidden.GetProperty("proposals").GetArrayLength().ShouldBe(0);
        (await Get($"/api/jobs/{id}")).ToString().ShouldNotContain("21-22-open");
        var early = await _client.GetAsync(new Uri($"/api/exercises/{id}/debrief", UriKind.Relative), Host.Cancellation);
        early.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        var given = await _client.PostAsJsonAsync($"/api/exercises/{id}/give-up", new { who = "apprentice" }, Host.Cancellation);
        given.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Get($"/api/jobs/{id}/diagnosis")).GetProperty("units").GetArrayLength().ShouldBeGreaterThan(0);
        var debrief = await Get($"/api/exercises/{id}/debrief");
        debrief.GetProperty("faults")[0].GetString().ShouldBe("Contact 21-22 of button S1 is open");
        debrief.GetProperty("found").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task What_would_hurt_somebody_ends_it_and_says_why()
    {
        var id = (await Begun("IN-101", true)).GetProperty("id").GetString()!;
        var (status, answer) = await Add(id, Measure("ohms", "KM1:A1", "KM1:A2"));
        status.ShouldBe(HttpStatusCode.Conflict);
        answer.GetProperty("detail").GetString()!.ShouldContain("not proved dead");
        (await Add(id, new { type = "liveWorkAcknowledged" })).Status.ShouldBe(HttpStatusCode.Conflict);
        (await Get($"/api/jobs/{id}")).GetProperty("exercise").GetProperty("stopped").GetString()!.ShouldContain("not proved dead");
    }

    [Fact]
    public async Task What_is_practised_is_in_no_list_of_jobs_and_teaches_nothing()
    {
        var circuit = await Host.CircuitAsync(_client, "KF-403");
        var jobs = (await Get("/api/jobs?take=1")).GetProperty("total").GetInt32();
        var insight = (await Get("/api/insight")).GetProperty("jobs").GetInt32();
        var id = (await Begun("KF-403", true)).GetProperty("id").GetString()!;
        (await Get("/api/jobs?take=1")).GetProperty("total").GetInt32().ShouldBe(jobs);
        (await Get("/api/insight")).GetProperty("jobs").GetInt32().ShouldBe(insight);
        (await Get($"/api/circuits/{circuit}/jobs")).GetProperty("total").GetInt32().ShouldBe(0);
        (await Get("/api/circuits?search=KF-403")).GetProperty("items")[0].GetProperty("openJob").ValueKind.ShouldBe(JsonValueKind.Null);
        var listed = (await Get("/api/exercises?who=apprentice&take=200")).GetProperty("items").EnumerateArray();
        listed.ShouldContain(e => e.GetProperty("id").GetString() == id);
        var csv = await _client.GetStringAsync(new Uri("/api/exercises/exercises.csv", UriKind.Relative), Host.Cancellation);
        csv.ShouldContain("apprentice");
    }

    [Fact]
    public async Task The_drawing_of_the_real_panel_is_not_changed_from_an_exercise()
    {
        var id = (await Begun("IN-101", true)).GetProperty("id").GetString()!;
        var edit = new
        {
            type = "renumberWire",
            wire = "4",
            newWire = "44",
        };
        var answer = await _client.PostAsJsonAsync($"/api/jobs/{id}/corrections", new { edit, who = "apprentice" }, Host.Cancellation);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("This is an exercise");
        (await Get("/api/circuits?search=IN-101")).GetProperty("items")[0].GetProperty("version").GetInt32().ShouldBe(1);
    }

    [Fact]
    public async Task A_lesson_hides_what_it_is_about_and_only_its_own_class_is_listed()
    {
        var lessons = (await Get("/api/exercises/lessons")).EnumerateArray().ToList();
        lessons[0].GetProperty("id").GetString().ShouldBe("supply");
        var circuit = await Host.CircuitAsync(_client, "IN-101");
        async Task<HttpStatusCode> Take(string lesson, string code) =>
            (
                await _client.PostAsJsonAsync(
                    "/api/exercises",
                    new
                    {
                        circuit,
                        lesson,
                        code,
                        who = "apprentice",
                    },
                    Host.Cancellation
                )
            ).StatusCode;
        (await Take("retaining", "")).ShouldBe(HttpStatusCode.Created);
        (await Take("interlock", "")).ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Take("no such", "")).ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Get("/api/exercises?code=retaining")).GetProperty("total").GetInt32().ShouldBe(1);
        (await Get("/api/exercises?code=retain")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task Faults_that_the_circuit_does_not_have_are_refused()
    {
        var circuit = await Host.CircuitAsync(_client, "IN-101");
        foreach (var faults in new[] { new[] { "KM9/coil-open" }, ["KM1/A1-A2-open", "S1/21-22-open", "S2/13-14-open"] })
        {
            var answer = await _client.PostAsJsonAsync(
                "/api/exercises",
                new
                {
                    circuit,
                    difficulty = "single",
                    withAdvice = true,
                    faults,
                },
                Host.Cancellation
            );
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }
    }
}
