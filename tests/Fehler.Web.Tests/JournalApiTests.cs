using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Core.Jobs;

namespace Fehler.Web.Tests;

/// <summary>The journal over HTTP: what is struck out, lifted, kept over a restart, and described for other programs.</summary>
public class JournalApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task A_struck_out_entry_stays_visible_and_no_longer_counts()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Add(job, new { type = "liveWorkAcknowledged" });
        var wrong = Guid.NewGuid();
        await Add(
            job,
            new
            {
                type = "reading",
                id = wrong,
                quantity = "volts",
                from = "F3:2",
                to = "INC:N",
                held = Array.Empty<object>(),
                value = new { kind = "number", number = 0.2 },
            }
        );
        var misled = await Diagnosis(job);
        await Add(
            job,
            new
            {
                type = "struckOut",
                entry = wrong,
                reason = "lead fell off",
            }
        );
        var after = await Diagnosis(job);
        after.GetProperty("status").GetString().ShouldBe("noEvidence");
        misled.GetProperty("status").GetString().ShouldNotBe("noEvidence");
        var entries = (await Job(job)).GetProperty("entries").EnumerateArray().ToList();
        entries.Count(e => e.GetProperty("struck").GetBoolean()).ShouldBe(1);
        entries.Count.ShouldBe(4);
        (
            await Post(
                job,
                new
                {
                    type = "struckOut",
                    entry = wrong,
                    reason = "again",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    /// <summary>What stands as it is and what people say are entries like others: taken, in words, and refused with what to do.</summary>
    [Fact]
    public async Task What_people_know_is_evidence()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        await Add(
            job,
            new
            {
                type = "operation",
                steps = Array.Empty<object>(),
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        await Add(job, new { type = "told", what = "workedOn" });
        await Add(
            job,
            new
            {
                type = "told",
                what = "burnt",
                device = "KM1",
            }
        );
        var rows = (await Job(job)).GetProperty("entries").EnumerateArray().Select(e => e.GetProperty("text").GetString()).ToList();
        rows.ShouldContain("As it stands: KM1 out, M1 stopped");
        rows.ShouldContain("Told: Somebody worked on it");
        rows.ShouldContain("Told: KM1: Smells burnt, is hot or discoloured");
        (await Diagnosis(job)).GetProperty("observations").GetInt32().ShouldBe(3);
        object[] wrong =
        [
            new { type = "told", what = "burnt" },
            new { type = "told", what = "hexed" },
            new
            {
                type = "told",
                what = "water",
                device = "KM1",
            },
            new
            {
                type = "operation",
                steps = Array.Empty<object>(),
                seen = new { },
            },
        ];
        foreach (var entry in wrong)
        {
            ((int)(await Post(job, entry)).StatusCode).ShouldBeOneOf(400, 422);
        }

        (await Diagnosis(job)).GetProperty("observations").GetInt32().ShouldBe(3);
    }

    /// <summary>What is tried begins where things were seen to stand: a tripped relay keeps its contactor out until it is reset.</summary>
    [Fact]
    public async Task What_a_good_circuit_would_do_now_begins_as_things_were_seen_to_stand()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        static object Step(string device, string position) =>
            new
            {
                device,
                position,
                seconds = 0,
            };
        async Task<JsonElement> Operate(params object[] steps)
        {
            var answer = await _client.PostAsJsonAsync($"/api/jobs/{job}/operate", new { steps }, Host.Cancellation);
            answer.StatusCode.ShouldBe(HttpStatusCode.OK);
            return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        }

        (await Operate()).GetProperty("seen").GetProperty("M1").GetString().ShouldBe("stopped");
        (await Operate(Step("S2", "pressed"))).GetProperty("seen").GetProperty("M1").GetString().ShouldBe("runs");
        await Add(
            job,
            new
            {
                type = "look",
                device = "F2",
                look = "flag",
                answer = "tripped",
            }
        );
        (await Operate()).GetProperty("positions").GetProperty("F2").GetString().ShouldBe("tripped");
        (await Operate(Step("S2", "pressed"))).GetProperty("seen").GetProperty("M1").GetString().ShouldBe("stopped");
        var again = await Operate(Step("F2", "reset"), Step("S2", "pressed"));
        again.GetProperty("seen").GetProperty("M1").GetString().ShouldBe("runs");
        // Start is held and nothing happens: so it stands, although a good circuit would go on to run.
        var dead = await Host.OpenJobAsync(_client, "WP-301");
        await Add(
            dead,
            new
            {
                type = "operation",
                steps = new[] { Step("S2", "pressed") },
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        var held = await _client.PostAsJsonAsync($"/api/jobs/{dead}/operate", new { steps = Array.Empty<object>() }, Host.Cancellation);
        var standing = await held.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        standing.GetProperty("seen").GetProperty("M1").GetString().ShouldBe("stopped");
        standing.GetProperty("seen").GetProperty("KM1").GetString().ShouldBe("out");
        standing.GetProperty("positions").GetProperty("S2").GetString().ShouldBe("pressed");
        // Nothing of it was recorded.
        (await Job(job))
            .GetProperty("entries")
            .GetArrayLength()
            .ShouldBe(2);
        var refused = await _client.PostAsJsonAsync(
            $"/api/jobs/{job}/operate",
            new { steps = new[] { Step("KM1", "in") } },
            Host.Cancellation
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await _client.PostAsJsonAsync($"/api/jobs/{Guid.NewGuid()}/operate", new { steps = Array.Empty<object>() }, Host.Cancellation)
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Lifted_wires_are_counted_until_they_are_landed_and_block_the_function_test()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        (
            await Post(
                job,
                new
                {
                    type = "wireLifted",
                    conductor = "2.1",
                    end = "S1:21",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await Dead(job);
        (
            await Post(
                job,
                new
                {
                    type = "wireLifted",
                    conductor = "2.1",
                    end = "S2:13",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await Add(
            job,
            new
            {
                type = "wireLifted",
                conductor = "2.1",
                end = "S1:21",
            }
        );
        (await Job(job)).GetProperty("lifted")[0].GetProperty("conductor").GetString().ShouldBe("2.1");
        var refused = await Post(
            job,
            new
            {
                type = "functionTested",
                step = "rest",
                passed = true,
                seen = new { },
            }
        );
        (await refused.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!.ShouldContain("2.1");
        await Add(job, new { type = "wireLanded", conductor = "2.1" });
        (await Job(job)).GetProperty("lifted").GetArrayLength().ShouldBe(0);
    }

    /// <summary>With one end lifted a resistance is that of the device alone.</summary>
    [Fact]
    public async Task A_reading_with_a_wire_lifted_is_judged_with_the_wire_lifted()
    {
        var job = await Host.OpenJobAsync(_client, "CH-110");
        await Dead(job);
        await Add(
            job,
            new
            {
                type = "wireLifted",
                conductor = "5.1",
                end = "KM1:A1",
            }
        );
        await Add(
            job,
            new
            {
                type = "reading",
                quantity = "ohms",
                from = "KM1:14",
                to = "KM1:A2",
                held = Array.Empty<object>(),
                value = new { kind = "overLimit" },
            }
        );
        var diagnosis = await Diagnosis(job);
        diagnosis
            .GetProperty("units")
            .EnumerateArray()
            .Where(u => u.GetProperty("unit").GetString() == "KM1")
            .ShouldAllBe(u => u.GetProperty("probability").GetDouble() < 0.6);
    }

    [Theory]
    [InlineData("mostTelling")]
    [InlineData("fromSupply")]
    [InlineData("deadFirst")]
    public async Task Every_way_of_working_proposes_tests_that_can_be_followed_by_a_program(string strategy)
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        await Add(
            job,
            new
            {
                type = "operation",
                steps = new[] { new { device = "S2", position = "pressed" } },
                seen = new Dictionary<string, string> { ["KM1"] = "out", ["M1"] = "stopped" },
            }
        );
        var diagnosis = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis?strategy={strategy}", Host.Cancellation);
        var proposals = diagnosis.GetProperty("proposals").EnumerateArray().ToList();
        proposals.ShouldNotBeEmpty();
        foreach (var proposal in proposals)
        {
            proposal.GetProperty("minutes").GetDouble().ShouldBeGreaterThan(0);
            proposal.GetProperty("outcomes").GetArrayLength().ShouldBeGreaterThan(0);
            proposal.GetProperty("good").GetString().ShouldNotBeNullOrWhiteSpace();
            switch (proposal.GetProperty("kind").GetString())
            {
                case "reading":
                    proposal.GetProperty("from").GetString()!.ShouldContain(":");
                    proposal.GetProperty("quantity").GetString().ShouldBeOneOf("volts", "ohms");
                    break;
                case "look":
                    proposal.GetProperty("answers").GetArrayLength().ShouldBeGreaterThan(1);
                    break;
                default:
                    proposal.GetProperty("steps").GetArrayLength().ShouldBeGreaterThan(0);
                    break;
            }
        }
    }

    [Fact]
    public async Task A_way_of_working_that_is_none_is_refused_with_those_there_are()
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        var answer = await _client.GetAsync($"/api/jobs/{job}/diagnosis?strategy=luck", Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .ShouldContain("fromSupply");
    }

    [Fact]
    public async Task A_job_needs_a_complaint_and_a_circuit()
    {
        var circuit = await Host.CircuitAsync(_client, "WP-301");
        (await _client.PostAsJsonAsync("/api/jobs", new { circuitId = circuit, complaint = "  " }, Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (
            await _client.PostAsJsonAsync("/api/jobs", new { circuitId = Guid.NewGuid(), complaint = "dead" }, Host.Cancellation)
        ).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await _client.PostAsJsonAsync("/api/jobs", new { complaint = "dead" }, Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
    }

    [Fact]
    public async Task The_open_description_names_every_call_and_every_kind_of_entry()
    {
        var document = await _client.GetFromJsonAsync<JsonElement>("/api/openapi.json", Host.Cancellation);
        var paths = document.GetProperty("paths").EnumerateObject().Select(p => p.Name).ToList();
        foreach (
            var path in new[]
            {
                "/api/circuits",
                "/api/jobs",
                "/api/jobs/{id}/entries",
                "/api/jobs/{id}/diagnosis",
                "/api/circuits/{id}/netlist",
            }
        )
        {
            paths.ShouldContain(path);
        }

        var schemas = document.GetProperty("components").GetProperty("schemas").EnumerateObject().Select(p => p.Name).ToList();
        foreach (var entry in typeof(JournalEntry).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(JournalEntry))))
        {
            schemas.ShouldContain(s => s.EndsWith(entry.Name, StringComparison.Ordinal), entry.Name);
        }
    }

    [Fact]
    public async Task The_database_keeps_a_write_ahead_log_and_everything_acknowledged()
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        await Add(job, new { type = "note", text = "acknowledged" });
        await using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={host.Database};Mode=ReadOnly");
        await connection.OpenAsync(Host.Cancellation);
        await using var mode = connection.CreateCommand();
        mode.CommandText = "PRAGMA journal_mode";
        (await mode.ExecuteScalarAsync(Host.Cancellation)).ShouldBe("wal");
        await using var rows = connection.CreateCommand();
        rows.CommandText = "SELECT COUNT(*) FROM Journal WHERE Json LIKE '%acknowledged%'";
        ((long)(await rows.ExecuteScalarAsync(Host.Cancellation))!).ShouldBeGreaterThan(0);
    }

    private Task Dead(string job) => Host.DeadAsync(_client, job, "Q1");

    private async Task<JsonElement> Job(string job) => await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);

    private async Task<JsonElement> Diagnosis(string job) =>
        await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis", Host.Cancellation);

    private Task<HttpResponseMessage> Post(string job, object entry) =>
        _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation);

    private async Task Add(string job, object entry)
    {
        var answer = await Post(job, entry);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync(Host.Cancellation));
    }
}
