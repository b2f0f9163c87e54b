using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fehler.Core.Circuits;

namespace Fehler.Web.Tests;

/// <summary>Setting a circuit up, operating it and saving it, over HTTP.</summary>
public class SetupApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    /// <summary>What stands in a panel leads to a circuit that can be kept, once under its designation.</summary>
    [Fact]
    public async Task What_was_counted_is_a_circuit_that_is_kept_once()
    {
        var answer = await _client.PostAsJsonAsync(
            "/api/setup/counted",
            new { counts = new Dictionary<string, int> { ["contactors"] = 3, ["timers"] = 1 }, coilVolts = 110 },
            Host.Cancellation
        );
        var best = (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("matches")[0];
        best.GetProperty("family").GetString().ShouldBe("star-delta");
        best.GetProperty("differs").GetArrayLength().ShouldBe(0);
        var built = await _client.PostAsJsonAsync("/api/setup/families/star-delta", best.GetProperty("options"), Host.Cancellation);
        var file = (await built.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("file");
        (await _client.PostAsJsonAsync("/api/circuits?isNew=true", file, Host.Cancellation)).EnsureSuccessStatusCode();
        var again = await _client.PostAsJsonAsync("/api/circuits?isNew=true", file, Host.Cancellation);
        again.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await again.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("give it another designation");
        var nonsense = await _client.PostAsJsonAsync(
            "/api/setup/counted",
            new { counts = new Dictionary<string, int> { ["contactors"] = -1 }, coilVolts = 0 },
            Host.Cancellation
        );
        nonsense.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_family_is_built_edited_operated_and_saved()
    {
        var setup = await Post(
            "/api/setup/families/reversing",
            new
            {
                tag = "NT-1",
                title = "Test conveyor",
                buttonInterlock = true,
            }
        );
        setup["circuit"]!["findings"]!.AsArray().ShouldAllBe(f => (string)f!["kind"]! == "note");
        setup = await Post(
            "/api/setup/edit",
            new
            {
                file = setup["file"],
                edit = new
                {
                    type = "renumberWire",
                    wire = "3",
                    newWire = "103",
                },
            }
        );
        setup["circuit"]!["conductors"]!.AsArray().Count(c => c!["wire"]!.GetValue<string>() == "103").ShouldBeGreaterThan(0);
        setup = await Post(
            "/api/setup/edit",
            new
            {
                file = setup["file"],
                edit = new
                {
                    type = "insert",
                    part = "S1:21-22",
                    how = "seriesAfter",
                    tag = "B4",
                    kind = "process-switch",
                    contact = "13-14",
                    location = "station",
                    function = "Guard",
                },
            }
        );
        var blocked = await Post("/api/setup/operate", new { file = setup["file"], steps = new[] { Step("S2", "pressed") } });
        blocked["seen"]!["M1"]!.GetValue<string>().ShouldBe("stopped");
        var running = await Post(
            "/api/setup/operate",
            new { file = setup["file"], steps = new[] { Step("B4", "operated"), Step("S2", "pressed") } }
        );
        running["seen"]!["M1"]!.GetValue<string>().ShouldBe("runs");
        running["made"]!["KM1:1-2"]!.GetValue<bool>().ShouldBeTrue();
        var saved = await Post("/api/circuits", setup["file"]!);
        var circuit = await _client.GetFromJsonAsync<JsonNode>($"/api/circuits/{saved["id"]}", Host.Cancellation);
        circuit!["devices"]!.AsArray().ShouldContain(d => d!["tag"]!.GetValue<string>() == "B4");
    }

    [Fact]
    public async Task A_wrong_coil_is_said_and_a_right_one_proposed()
    {
        var setup = await Post("/api/setup/families/dol", new { tag = "NT-2", title = "Test" });
        setup = await Post(
            "/api/setup/edit",
            new
            {
                file = setup["file"],
                edit = new
                {
                    type = "setParameter",
                    tag = "KM1",
                    name = "coilVolts",
                    value = "400",
                },
            }
        );
        setup["circuit"]!["findings"]!
            .AsArray()
            .ShouldContain(f => f!["kind"]!.GetValue<string>() == "cannotWork" && f["text"]!.GetValue<string>().Contains("rated 400 V"));
        var edit = setup["proposals"]!.AsArray().First(p => p!["edit"]!["tag"]!.GetValue<string>() == "KM1")!["edit"]!;
        setup = await Post("/api/setup/edit", new { file = setup["file"], edit });
        setup["circuit"]!["findings"]!.AsArray().ShouldAllBe(f => (string)f!["kind"]! == "note");
    }

    [Theory]
    [InlineData("/api/setup/families/rocket", """{"tag":"A","title":"B"}""", "expected one of: dol")]
    [InlineData("/api/setup/families/dol", """{"tag":"","title":"B"}""", "is empty")]
    [InlineData("/api/setup/families/dol", """{"tag":"A","title":"B","system":"delta"}""", "no neutral")]
    [InlineData("/api/setup/open", """{"file":{"format":"fehler-circuit"}}""", "has no 'version'")]
    [InlineData("/api/setup/open", """{"file":[1,2,3]}""", "expected an object")]
    public async Task What_cannot_be_built_is_refused_with_the_reason(string address, string body, string reason)
    {
        var answer = await _client.PostAsync(
            address,
            new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain(reason);
    }

    [Theory]
    [InlineData("""{"type":"renumberWire","wire":"77","newWire":"1"}""")]
    [InlineData("""{"type":"remove","part":"S9:1-2"}""")]
    [InlineData("""{"type":"setParameter","tag":"KM1","name":"coilVolts","value":"much"}""")]
    [InlineData("""{"type":"routeChained","wire":"3","terminals":["KM1:A1"]}""")]
    [InlineData("""{"type":"moveEnd","conductor":"3.1","from":true,"terminal":"KM1:99"}""")]
    public async Task An_edit_that_makes_no_sense_is_refused(string edit)
    {
        var setup = await Post("/api/setup/families/dol", new { tag = "NT-3", title = "Test" });
        var answer = await _client.PostAsJsonAsync(
            "/api/setup/edit",
            new { file = setup["file"], edit = JsonNode.Parse(edit) },
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .Length.ShouldBeGreaterThan(20);
    }

    [Fact]
    public async Task Every_demo_circuit_is_drawn_operated_and_checked()
    {
        var circuits = (await _client.GetFromJsonAsync<JsonElement>("/api/circuits?take=200", Host.Cancellation))
            .GetProperty("items")
            .EnumerateArray()
            .Select(c => c.GetProperty("id").GetString()!)
            .ToList();
        foreach (var id in circuits)
        {
            var circuit = await _client.GetFromJsonAsync<JsonNode>($"/api/circuits/{id}", Host.Cancellation);
            circuit!["findings"]!
                .AsArray()
                .ShouldNotContain(f => f!["kind"]!.GetValue<string>() == "cannotWork", circuit["tag"]!.GetValue<string>());
            circuit["sheets"]!.AsArray().Count.ShouldBeInRange(1, 2);
            var operated = await Post($"/api/circuits/{id}/operate", new { steps = Array.Empty<object>() });
            operated["liveWires"]!.AsArray().Select(w => w!.GetValue<string>()).ShouldContain("L1");
        }
    }

    [Fact]
    public async Task A_step_that_the_circuit_does_not_know_is_refused()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        foreach (var step in new[] { Step("S77", "pressed"), Step("S2", "twisted") })
        {
            (
                await _client.PostAsJsonAsync($"/api/circuits/{id}/operate", new { steps = new[] { step } }, Host.Cancellation)
            ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        }
    }

    private static object Step(string device, string position) =>
        new
        {
            device,
            position,
            seconds = 0,
        };

    private async Task<JsonNode> Post(string address, object body)
    {
        var answer = await _client.PostAsJsonAsync(address, body, Host.Cancellation);
        answer.IsSuccessStatusCode.ShouldBeTrue($"{address}: {await answer.Content.ReadAsStringAsync(Host.Cancellation)}");
        return (await answer.Content.ReadFromJsonAsync<JsonNode>(Host.Cancellation))!;
    }
}
