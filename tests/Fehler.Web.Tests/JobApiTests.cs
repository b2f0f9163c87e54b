using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Web.Tests;

/// <summary>A whole job through the HTTP API, the way another program would drive it.</summary>
public class JobApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Theory]
    [InlineData("IN-101", "S1/21-22-open")]
    [InlineData("CH-110", "KM1/A1-A2-open")]
    [InlineData("LD-102", "KM1/5-6-open")]
    public async Task A_job_is_driven_from_complaint_to_closed_by_the_proposals_alone(string tag, string fault)
    {
        var circuit = CircuitFile.Read(
            await File.ReadAllTextAsync(Path.Combine(Host.Root, "demo", "circuits", $"{tag}.circuit.json"), Host.Cancellation)
        );
        var mode = FaultCatalogue.Of(circuit).First(f => f.Id == fault);
        var panel = new SimulatedPanel(circuit.Compile(), mode.Alterations);
        var job = await Host.OpenJobAsync(_client, tag);
        foreach (var steps in GuidedRun.Trials(circuit.Compile()))
        {
            await Add(
                job,
                new
                {
                    type = "operation",
                    steps,
                    seen = panel.Operate(steps),
                }
            );
        }

        await Add(job, new { type = "liveWorkAcknowledged" });
        var diagnosis = await Diagnosis(job);
        var earlier = diagnosis.GetProperty("repairsHere").GetInt32();
        for (var i = 0; i < 20 && diagnosis.GetProperty("status").GetString() != "found"; i++)
        {
            await Follow(job, panel, circuit, diagnosis.GetProperty("proposals")[0]);
            diagnosis = await Diagnosis(job);
        }

        diagnosis.GetProperty("status").GetString().ShouldBe("found");
        diagnosis.GetProperty("units")[0].GetProperty("unit").GetString().ShouldBe(mode.Unit);

        await Add(
            job,
            new
            {
                type = "finding",
                unit = mode.Unit,
                fault,
                text = mode.Title.ToString(),
            }
        );
        if (!panel.IsIsolated)
        {
            await Isolate(job, panel, circuit);
        }

        await Add(
            job,
            new
            {
                type = "repair",
                unit = mode.Unit,
                action = mode.Remedy.ToString(),
                parts = Array.Empty<string>(),
                minutes = 20,
                cause = "wear",
            }
        );
        if (panel.IsIsolated)
        {
            await Add(job, new { type = "energised" });
        }

        var state = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        foreach (var item in state.GetProperty("restore").EnumerateArray())
        {
            await Add(job, new { type = "restored", item = item.GetProperty("id").GetString() });
        }

        foreach (var step in state.GetProperty("functionTest").EnumerateArray().Select(s => s.GetProperty("step")))
        {
            await Add(
                job,
                new
                {
                    type = "functionTested",
                    step = step.GetProperty("id").GetString(),
                    passed = true,
                    seen = step.GetProperty("expected"),
                }
            );
        }

        (await Diagnosis(job)).GetProperty("status").GetString().ShouldBe("repaired");
        await Add(
            job,
            new
            {
                type = "closed",
                outcome = "repairedAndProved",
                text = "",
                minutesDown = 60,
            }
        );
        var listed = (await _client.GetFromJsonAsync<JsonElement>("/api/jobs?take=200", Host.Cancellation))
            .GetProperty("items")
            .EnumerateArray()
            .First(j => j.GetProperty("id").GetString() == job);
        listed.GetProperty("outcome").GetString().ShouldBe("RepairedAndProved");
        listed.GetProperty("foundUnit").GetString().ShouldBe(mode.Unit);

        // The next job on the circuit begins with what was learned from this one, unless that is left out.
        var next = await Host.OpenJobAsync(_client, tag);
        (await Diagnosis(next)).GetProperty("repairsHere").GetInt32().ShouldBe(earlier + 1);
        (await Diagnosis(next, "?learn=false")).GetProperty("repairsHere").GetInt32().ShouldBe(0);
    }

    [Theory]
    [InlineData("?without=live", 200)]
    [InlineData("?without=live,lifting&strategy=halving", 200)]
    [InlineData("?without=hands", 422)]
    [InlineData("?strategy=guess", 422)]
    public async Task What_cannot_be_done_and_the_way_of_working_are_named_or_refused(string query, int status)
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        using var response = await _client.GetAsync(new Uri($"/api/jobs/{job}/diagnosis{query}", UriKind.Relative), Host.Cancellation);
        ((int)response.StatusCode).ShouldBe(status);
        var body = await response.Content.ReadAsStringAsync(Host.Cancellation);
        if (status == 422)
        {
            body.ShouldContain("expected");
        }
    }

    [Fact]
    public async Task An_entry_sent_twice_is_recorded_once()
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        var note = new
        {
            type = "note",
            id = Guid.NewGuid(),
            text = "humid",
        };
        var first = await (await Post(job, note)).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        var second = await (await Post(job, note)).Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        first.GetProperty("wasKnown").GetBoolean().ShouldBeFalse();
        second.GetProperty("wasKnown").GetBoolean().ShouldBeTrue();
        second.GetProperty("sequence").GetInt32().ShouldBe(first.GetProperty("sequence").GetInt32());
        (await _client.GetFromJsonAsync<int>($"/api/jobs/{job}/sequence", Host.Cancellation)).ShouldBe(2);
    }

    [Fact]
    public async Task Two_screens_at_once_lose_nothing_and_keep_one_order()
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 20)
                .Select(i =>
                    Post(
                        job,
                        new
                        {
                            type = "note",
                            id = Guid.NewGuid(),
                            text = $"note {i}",
                        }
                    )
                )
        );
        answers.ShouldAllBe(a => a.IsSuccessStatusCode);
        var state = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        state
            .GetProperty("entries")
            .EnumerateArray()
            .Select(e => e.GetProperty("entry").GetProperty("sequence").GetInt32())
            .ShouldBe(Enumerable.Range(1, 21));
    }

    [Theory]
    [InlineData(
        """{"type":"reading","quantity":"volts","from":"F3:2","to":"INC:N","held":[],"value":{"kind":"number","number":"abc"}}""",
        400,
        "$.value.number"
    )]
    [InlineData(
        """{"type":"reading","quantity":"volts","from":"F3","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""",
        400,
        "not a terminal"
    )]
    [InlineData(
        """{"type":"reading","quantity":"ohms","from":"F3:2","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""",
        422,
        "prove dead"
    )]
    [InlineData(
        """{"type":"reading","quantity":"volts","from":"F9:2","to":"INC:N","held":[],"value":{"kind":"number","number":1}}""",
        422,
        "no terminal F9:2"
    )]
    [InlineData(
        """{"type":"reading","quantity":"volts","from":"F3:2","to":"F3:2","held":[],"value":{"kind":"number","number":1}}""",
        422,
        "same terminal"
    )]
    [InlineData("""{"type":"operation","steps":[{"device":"S2","position":"turned"}],"seen":{}}""", 422, "released, pressed")]
    [InlineData(
        """{"type":"operation","steps":[{"device":"S2","position":"pressed"}],"seen":{"KM1":"sideways"}}""",
        422,
        "expected one of"
    )]
    [InlineData("""{"type":"guess"}""", 400, "guess")]
    [InlineData("""{"text":"no type"}""", 400, "type")]
    [InlineData("{", 400, "$")]
    public async Task Bad_input_is_a_problem_that_says_what_was_expected_and_records_nothing(string body, int status, string says)
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        var answer = await _client.PostAsync(
            $"/api/jobs/{job}/entries",
            new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
        ((int)answer.StatusCode).ShouldBe(status);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!.ShouldContain(says);
        (await _client.GetFromJsonAsync<int>($"/api/jobs/{job}/sequence", Host.Cancellation)).ShouldBe(1);
    }

    [Fact]
    public async Task A_closed_job_takes_no_more_entries()
    {
        var job = await Host.OpenJobAsync(_client, "WP-301");
        await Add(
            job,
            new
            {
                type = "closed",
                outcome = "nothingFound",
                text = "ran an hour",
                minutesDown = 5,
            }
        );
        (await Post(job, new { type = "note", text = "late" })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    private async Task Isolate(string job, SimulatedPanel panel, Circuit circuit)
    {
        panel.Isolate();
        await Host.DeadAsync(_client, job, circuit.Compile().Isolation.Points);
    }

    private async Task Follow(string job, SimulatedPanel panel, Circuit circuit, JsonElement proposal)
    {
        var change = proposal.GetProperty("change").GetString();
        if (change == "isolate")
        {
            await Isolate(job, panel, circuit);
        }
        else if (change == "energise")
        {
            panel.Energise();
            await Add(job, new { type = "energised" });
            await Add(job, new { type = "liveWorkAcknowledged" });
        }

        var steps = JsonSerializer.Deserialize<List<Step>>(
            proposal.GetProperty(proposal.GetProperty("kind").GetString() == "operation" ? "steps" : "held"),
            JournalJson.Options
        )!;
        switch (proposal.GetProperty("kind").GetString())
        {
            case "look":
                var (device, look) = (proposal.GetProperty("device").GetString()!, proposal.GetProperty("look").GetString()!);
                await Add(
                    job,
                    new
                    {
                        type = "look",
                        device,
                        look,
                        answer = panel.Look(device, look),
                    }
                );
                break;
            case "operation":
                await Add(
                    job,
                    new
                    {
                        type = "operation",
                        steps,
                        seen = panel.Operate(steps),
                    }
                );
                break;
            default:
                var quantity = Enum.Parse<Quantity>(proposal.GetProperty("quantity").GetString()!, ignoreCase: true);
                var (from, to) = (proposal.GetProperty("from").GetString()!, proposal.GetProperty("to").GetString()!);
                var lifts = proposal
                    .GetProperty("lift")
                    .EnumerateArray()
                    .Select(l => (Conductor: l.GetProperty("conductor").GetString()!, End: l.GetProperty("end").GetString()!))
                    .ToList();
                foreach (var (conductor, end) in lifts)
                {
                    panel.Lift(new ConductorEnd(conductor, TerminalId.Parse(end)));
                    await Add(
                        job,
                        new
                        {
                            type = "wireLifted",
                            conductor,
                            end,
                        }
                    );
                }

                var value = panel.Measure(quantity, TerminalId.Parse(from), TerminalId.Parse(to), [.. steps]);
                await Add(
                    job,
                    new
                    {
                        type = "reading",
                        quantity = proposal.GetProperty("quantity").GetString(),
                        from,
                        to,
                        held = steps,
                        value = new { kind = JsonNamingPolicy.CamelCase.ConvertName(value.Kind.ToString()), number = value.Number },
                    }
                );
                foreach (var (conductor, _) in lifts)
                {
                    panel.Land(conductor);
                    await Add(job, new { type = "wireLanded", conductor });
                }

                break;
        }
    }

    private async Task<JsonElement> Diagnosis(string job, string query = "") =>
        await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis{query}", Host.Cancellation);

    private Task<HttpResponseMessage> Post(string job, object entry) =>
        _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, JournalJson.Options, Host.Cancellation);

    private async Task Add(string job, object entry)
    {
        var answer = await Post(job, entry);
        answer.IsSuccessStatusCode.ShouldBeTrue(await answer.Content.ReadAsStringAsync(Host.Cancellation));
    }
}
