using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Fehler.Core.Circuits;

namespace Fehler.Web.Tests;

/// <summary>The one door: what it takes, what it answers, and what it refuses in one sentence without losing anything.</summary>
public class DoorTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task An_entry_is_answered_with_the_job_its_diagnosis_and_what_may_be_done_now()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        var answer = await Recorded(
            job,
            new
            {
                type = "operation",
                steps = new[] { Step("S2", "pressed") },
                seen = new Dictionary<string, string> { ["KM1"] = "out" },
            }
        );
        answer.GetProperty("sequence").GetInt32().ShouldBe(2);
        answer
            .GetProperty("job")
            .GetProperty("entries")
            .EnumerateArray()
            .Last()
            .GetProperty("text")
            .GetString()
            .ShouldBe("S2 pressed → KM1 out");
        answer
            .GetProperty("job")
            .GetProperty("possible")
            .EnumerateArray()
            .Select(p => p.GetProperty("step").GetString())
            .ShouldBe(["liveTests", "isolate"]);
        answer.GetProperty("job").GetProperty("before").GetProperty("ohms").GetString().ShouldBe("isolate");
        var diagnosis =
            answer.GetProperty("diagnosis").ValueKind == JsonValueKind.Null
                ? await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis", Host.Cancellation)
                : answer.GetProperty("diagnosis");
        diagnosis
            .GetProperty("proposals")
            .EnumerateArray()
            .Where(p => p.GetProperty("kind").GetString() == "reading")
            .ShouldAllBe(p => p.GetProperty("first").GetString() == "liveTests" || p.GetProperty("first").GetString() == "isolate");
    }

    [Fact]
    public async Task A_safety_step_changes_what_comes_first()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        var isolated = await Recorded(job, new { type = "isolated", points = new[] { "Q1" } });
        isolated.GetProperty("job").GetProperty("before").GetProperty("ohms").GetString().ShouldBe("proveDead");
        var dead = await Recorded(
            job,
            new
            {
                type = "provedDead",
                detectorCheckedBefore = true,
                detectorCheckedAfter = true,
            }
        );
        dead.GetProperty("job").GetProperty("before").TryGetProperty("ohms", out _).ShouldBeFalse();
        dead.GetProperty("job").GetProperty("mayTouch").GetBoolean().ShouldBeTrue();
        dead.GetProperty("job").GetProperty("state").GetString().ShouldBe("ISOLATED AND PROVED DEAD");
        dead.GetProperty("job")
            .GetProperty("holdable")
            .EnumerateArray()
            .Select(h => h.GetProperty("label").GetString())
            .ShouldContain("armature of KM1 pressed in by hand");
    }

    [Theory]
    [InlineData("4k7", "ohms", 4700)]
    [InlineData(" 0,3 ", "ohms", 0.3)]
    [InlineData("2M", "ohms", 2e6)]
    [InlineData("230 V", "volts", 230)]
    [InlineData(".5", "volts", 0.5)]
    [InlineData("230 VAC", "volts", 230)]
    [InlineData("< 1", "volts", 0.5)]
    public async Task What_is_typed_is_sent_as_typed_and_understood_here(string typed, string quantity, double number)
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Ready(job, quantity);
        var entry = (await Recorded(job, Typed(quantity, typed)))
            .GetProperty("job")
            .GetProperty("entries")
            .EnumerateArray()
            .Last()
            .GetProperty("entry");
        entry.GetProperty("type").GetString().ShouldBe("reading");
        entry.GetProperty("value").GetProperty("number").GetDouble().ShouldBe(number, 1e-9);
        entry.GetProperty("typed").GetString().ShouldBe(typed.Trim());
    }

    [Theory]
    [InlineData("lots", "is not a reading")]
    [InlineData("", "Type what the meter shows")]
    [InlineData("4.7k7", "two decimal points")]
    [InlineData("beep", "does not go with volts")]
    [InlineData("-5", "AC volts have no sign")]
    [InlineData("1.5 MV", "more than any point of this circuit")]
    [InlineData("4700", "more than any point of this circuit")]
    [InlineData("> 200", "does not go with volts")]
    [InlineData("1234567890123456789012345678901234567890123", "longer than any meter shows")]
    public async Task What_is_no_reading_is_refused_where_it_was_typed(string typed, string says)
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Ready(job, "volts");
        (await Refused(job, Typed("volts", typed), HttpStatusCode.UnprocessableEntity)).ShouldContain(says);
        (await Sequence(job)).ShouldBe(2);
    }

    [Fact]
    public async Task The_same_entry_again_is_one_entry_and_another_under_its_id_is_a_conflict()
    {
        var (job, elsewhere) = (await Host.OpenJobAsync(_client, "IN-101"), await Host.OpenJobAsync(_client, "WP-301"));
        var id = Guid.NewGuid();
        (
            await Recorded(
                job,
                new
                {
                    type = "note",
                    id,
                    text = "belt looks worn",
                }
            )
        ).GetProperty("wasKnown").GetBoolean().ShouldBeFalse();
        (
            await Recorded(
                job,
                new
                {
                    type = "note",
                    id,
                    text = "belt looks worn",
                }
            )
        ).GetProperty("wasKnown").GetBoolean().ShouldBeTrue();
        (
            await Refused(
                job,
                new
                {
                    type = "note",
                    id,
                    text = "belt looks fine",
                },
                HttpStatusCode.Conflict
            )
        ).ShouldContain("id");
        (
            await Refused(
                elsewhere,
                new
                {
                    type = "note",
                    id,
                    text = "belt looks worn",
                },
                HttpStatusCode.Conflict
            )
        ).ShouldContain("id");
        (await Sequence(job)).ShouldBe(2);
    }

    [Fact]
    public async Task A_typed_reading_sent_again_after_a_lost_answer_is_one_reading()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Ready(job, "volts");
        var reading = new
        {
            type = "readingAsTyped",
            id = Guid.NewGuid(),
            at = DateTimeOffset.UtcNow,
            quantity = "volts",
            from = "F3:2",
            to = "INC:N",
            held = Array.Empty<object>(),
            typed = "231",
        };
        await Recorded(job, reading);
        (await Recorded(job, reading)).GetProperty("wasKnown").GetBoolean().ShouldBeTrue();
        (await Sequence(job)).ShouldBe(3);
    }

    [Fact]
    public async Task When_it_was_made_and_when_it_arrived_are_two_things()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        var made = DateTimeOffset.UtcNow.AddHours(-3);
        var entry = (
            await Recorded(
                job,
                new
                {
                    type = "note",
                    text = "in the basement",
                    at = made,
                }
            )
        ).GetProperty("job").GetProperty("entries").EnumerateArray().Last().GetProperty("entry");
        entry.GetProperty("at").GetDateTimeOffset().ShouldBe(made, TimeSpan.FromSeconds(1));
        entry.GetProperty("received").GetDateTimeOffset().ShouldBe(DateTimeOffset.UtcNow, TimeSpan.FromMinutes(1));
        (
            await Refused(
                job,
                new
                {
                    type = "note",
                    text = "from the future",
                    at = DateTimeOffset.UtcNow.AddYears(3),
                },
                HttpStatusCode.UnprocessableEntity
            )
        ).ShouldContain("clock");
    }

    /// <summary>
    /// Entries that once were answered with "server error" or hung. Each is refused in a sentence, and nothing is recorded.
    /// </summary>
    [Theory]
    [InlineData("""{"type":"operation","steps":null,"seen":{}}""")]
    [InlineData("""{"type":"operation","steps":[null],"seen":{}}""")]
    [InlineData("""{"type":"operation","steps":[{"device":null,"position":"pressed"}],"seen":{}}""")]
    [InlineData("""{"type":"operation","steps":[{"device":"S2","position":"pressed"}],"seen":null}""")]
    [InlineData("""{"type":"operation","steps":[{"device":"S2","position":"pressed"}],"seen":{"KM1":null}}""")]
    [InlineData("""{"type":"operation","steps":[{"device":"","position":"","seconds":1e300}],"seen":{}}""")]
    [InlineData("""{"type":"operation","steps":[{"device":"","position":"","seconds":1e400}],"seen":{}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":"F3:2","to":"INC:N","held":null,"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":"F3:2","to":"INC:N","held":[null],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"reading","quantity":99,"from":"F3:2","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":"F3:2","to":"INC:N","held":[],"value":{"kind":7,"number":1}}""")]
    [InlineData("""{"type":"reading","quantity":"volts","from":null,"to":"INC:N","held":[],"value":{"kind":"number","number":1}}""")]
    [InlineData("""{"type":"readingAsTyped","quantity":"volts","from":"F3:2","to":"INC:N","held":[],"typed":null}""")]
    [InlineData("""{"type":"isolated","points":null}""")]
    [InlineData("""{"type":"isolated","points":[null]}""")]
    [InlineData("""{"type":"repair","unit":"KM1","action":"x","parts":null}""")]
    [InlineData("""{"type":"repair","unit":"KM1","action":"x","parts":[null]}""")]
    [InlineData("""{"type":"functionTested","step":"rest","passed":true,"seen":null}""")]
    [InlineData("""{"type":"restored","item":"nothing of the kind"}""")]
    [InlineData("""{"type":"closed","outcome":12}""")]
    [InlineData("""{"type":"closed","outcome":"handedOver","text":null}""")]
    [InlineData("""{"type":"carriedIn","from":"elsewhere"}""")]
    [InlineData("""{"type":"note","text":null}""")]
    [InlineData("""{"type":"note","text":"half \ud83d a face"}""")]
    [InlineData("""{"type":"note","text":"NUL \u0000 inside"}""")]
    [InlineData("""{"type":"operation","steps":[{"device":"S2","position":"pressed"}],"seen":{"\udc00":"in"}}""")]
    [InlineData("""{"type":"look","device":"F2\u0000","look":"flag","answer":"tripped"}""")]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("{}")]
    [InlineData("")]
    public async Task Nonsense_is_refused_in_a_sentence_and_nothing_is_recorded(string body)
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Recorded(job, new { type = "liveWorkAcknowledged" });
        var answer = await _client.PostAsync($"/api/jobs/{job}/entries", Json(body), Host.Cancellation);
        ((int)answer.StatusCode).ShouldBeInRange(400, 422, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .Length.ShouldBeGreaterThan(15);
        (await Sequence(job)).ShouldBe(2);
    }

    [Fact]
    public async Task Ten_thousand_steps_and_a_note_of_twenty_megabytes_are_refused_soon()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (
            await Refused(
                job,
                new
                {
                    type = "operation",
                    steps = Enumerable.Repeat(Step("S2", "pressed"), 10_000),
                    seen = new { },
                },
                HttpStatusCode.UnprocessableEntity
            )
        ).ShouldContain("at most 200");
        (await Refused(job, new { type = "note", text = new string('x', 20_000) }, HttpStatusCode.UnprocessableEntity)).ShouldContain(
            "at most 4000"
        );
        (
            await _client.PostAsync(
                $"/api/jobs/{job}/entries",
                Json($$"""{"type":"note","text":"{{new string('x', 20_000_000)}}"}"""),
                Host.Cancellation
            )
        ).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await Sequence(job)).ShouldBe(1);
    }

    /// <summary>A body that does not say how long it is has the same limit.</summary>
    [Fact]
    public async Task A_body_in_chunks_has_the_same_limit()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/circuits") { Content = new Chunks(3_000_000) };
        request.Headers.TransferEncodingChunked = true;
        (await _client.SendAsync(request, Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Theory]
    [InlineData("text/plain")]
    [InlineData("application/xml")]
    [InlineData("application/json; charset=utf-16")]
    [InlineData("application/json; charset=nonsense")]
    public async Task A_wrong_content_type_is_answered_with_415(string type)
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        foreach (var address in new[] { $"/api/jobs/{job}/entries", "/api/circuits", "/api/jobs", "/api/bundle", "/api/setup/open" })
        {
            using var content = new ByteArrayContent("{}"u8.ToArray());
            content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
            (await _client.PostAsync(address, content, Host.Cancellation)).StatusCode.ShouldBe(
                HttpStatusCode.UnsupportedMediaType,
                address
            );
        }
    }

    /// <summary>Two screens that record at the same moment get a place in the journal each.</summary>
    [Fact]
    public async Task Entries_of_many_at_once_stand_one_after_the_other()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        var answers = await Task.WhenAll(Enumerable.Range(0, 12).Select(i => Recorded(job, new { type = "note", text = $"note {i}" })));
        answers.Select(a => a.GetProperty("sequence").GetInt32()).Order().ShouldBe(Enumerable.Range(2, 12));
    }

    [Fact]
    public async Task The_same_circuit_taken_in_by_many_at_once_is_one_circuit()
    {
        var text = (
            await File.ReadAllTextAsync(Path.Combine(Host.Root, "demo", "circuits", "WP-303.circuit.json"), Host.Cancellation)
        ).Replace("WP-303", "WP-399", StringComparison.Ordinal);
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => _client.PostAsync("/api/circuits", Json(text), Host.Cancellation))
        );
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
        (await _client.GetFromJsonAsync<JsonElement>("/api/circuits?search=WP-399", Host.Cancellation))
            .GetProperty("total")
            .GetInt32()
            .ShouldBe(1);
    }

    private static object Step(string device, string position) =>
        new
        {
            device,
            position,
            seconds = 0,
        };

    private static object Typed(string quantity, string typed) =>
        new
        {
            type = "readingAsTyped",
            quantity,
            from = "KM1:A1",
            to = "KM1:A2",
            held = Array.Empty<object>(),
            typed,
        };

    private async Task Ready(string job, string quantity)
    {
        if (quantity == "volts")
        {
            await Recorded(job, new { type = "liveWorkAcknowledged" });
            return;
        }

        await Recorded(job, new { type = "isolated", points = new[] { "Q1" } });
        await Recorded(
            job,
            new
            {
                type = "provedDead",
                detectorCheckedBefore = true,
                detectorCheckedAfter = true,
            }
        );
    }

    private async Task<JsonElement> Recorded(string job, object entry)
    {
        var answer = await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }

    private async Task<string> Refused(string job, object entry, HttpStatusCode status)
    {
        var answer = await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation);
        answer.StatusCode.ShouldBe(status, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!;
    }

    private async Task<int> Sequence(string job) => await _client.GetFromJsonAsync<int>($"/api/jobs/{job}/sequence", Host.Cancellation);

    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    /// <summary>Letters, as many as wanted, without saying how many.</summary>
    private sealed class Chunks : HttpContent
    {
        private readonly int _bytes;

        public Chunks(int bytes)
        {
            _bytes = bytes;
            Headers.ContentType = new MediaTypeHeaderValue("application/json");
        }

        protected override async Task SerializeToStreamAsync(Stream stream, TransportContext? context)
        {
            var chunk = Encoding.ASCII.GetBytes(new string('[', 10_000));
            for (var sent = 0; sent < _bytes; sent += chunk.Length)
            {
                await stream.WriteAsync(chunk);
            }
        }

        protected override bool TryComputeLength(out long length)
        {
            length = 0;
            return false;
        }
    }
}
