using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Fehler.Web.Tests;

public class CircuitApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task The_demo_plant_is_in_the_register_and_its_open_job_shows()
    {
        var circuits = (await _client.GetFromJsonAsync<JsonElement>("/api/circuits?take=200", Host.Cancellation))
            .GetProperty("items")
            .EnumerateArray()
            .ToList();
        circuits.Count.ShouldBeInRange(25, 40);
        circuits.First(c => c.GetProperty("tag").GetString() == "CH-110").GetProperty("openJob").ValueKind.ShouldBe(JsonValueKind.String);
        circuits.First(c => c.GetProperty("tag").GetString() == "DX-201").GetProperty("openJob").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task A_downloaded_circuit_file_can_be_taken_in_again_and_changes_nothing()
    {
        var id = await Host.CircuitAsync(_client, "WP-301");
        var file = await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation);
        var result = await Import(file);
        result.GetProperty("isNew").GetBoolean().ShouldBeFalse();
        result.GetProperty("version").GetInt32().ShouldBe(1);
    }

    /// <summary>Out as places, devices and wires, in under another name: the same devices, drawn and checked.</summary>
    [Fact]
    public async Task A_wiring_list_goes_out_and_comes_in_again()
    {
        var id = await Host.CircuitAsync(_client, "WP-303");
        var list = await _client.GetStringAsync($"/api/circuits/{id}/wiring-list", Host.Cancellation);
        list.ShouldContain("from,to,wire,metres,mm2");
        list = list.Replace("WP-303", "WP-399", StringComparison.Ordinal);
        var answer = await _client.PostAsync(
            "/api/circuits?from=list.csv",
            new StringContent(list, Encoding.UTF8, "text/csv"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var taken = await _client.GetFromJsonAsync<JsonElement>(
            $"/api/circuits/{await Host.CircuitAsync(_client, "WP-399")}",
            Host.Cancellation
        );
        taken.GetProperty("findings").EnumerateArray().ShouldAllBe(f => f.GetProperty("kind").GetString() != "cannotWork");
        (
            await _client.GetStringAsync($"/api/circuits/{await Host.CircuitAsync(_client, "WP-399")}/wiring-list", Host.Cancellation)
        ).ShouldBe(list);
    }

    [Fact]
    public async Task A_wiring_list_with_an_unknown_device_is_refused_with_its_line()
    {
        var answer = await _client.PostAsync(
            "/api/circuits?from=W.csv",
            new StringContent("device,kind\nINC,supply\n\nfrom,to\nINC:L1,Q9:1", Encoding.UTF8, "text/csv"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("line 5");
    }

    [Fact]
    public async Task A_changed_file_becomes_a_new_version_and_a_job_keeps_the_one_it_was_made_on()
    {
        var job = await Host.OpenJobAsync(_client, "WP-302");
        var id = await Host.CircuitAsync(_client, "WP-302");
        var json = JsonNode.Parse(await _client.GetStringAsync($"/api/circuits/{id}/file", Host.Cancellation))!;
        json["title"] = "Sprinkler pump 2, north";
        (await Import(json.ToJsonString())).GetProperty("version").GetInt32().ShouldBe(2);
        var kept = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        kept.GetProperty("circuitVersion").GetInt32().ShouldBe(1);
        kept.GetProperty("circuitTitle").GetString().ShouldBe("Sprinkler pump 2");
    }

    [Fact]
    public async Task A_file_cut_in_half_is_a_problem_that_names_the_line()
    {
        var text = await File.ReadAllTextAsync(Path.Combine(Host.Root, "demo", "circuits", "IN-101.circuit.json"), Host.Cancellation);
        var answer = await _client.PostAsync(
            "/api/circuits",
            new StringContent(text[..(text.Length / 2)], Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .ShouldStartWith("line ");
    }

    [Fact]
    public async Task Reading_sheet_and_faults_are_served()
    {
        var id = await Host.CircuitAsync(_client, "IN-101");
        var sheet = await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/reading-sheet", Host.Cancellation);
        var stop = sheet.EnumerateArray().First(r => r.GetProperty("what").GetString() == "S2 13-14");
        stop.GetProperty("atRest").GetString().ShouldBe("230 V");
        stop.GetProperty("startHeld").GetString().ShouldBe("0 V");
        (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{id}/faults", Host.Cancellation))
            .GetArrayLength()
            .ShouldBeGreaterThan(300);
    }

    [Fact]
    public async Task An_unknown_address_and_an_unknown_circuit_are_problems()
    {
        foreach (var address in new[] { "/api/nothing", $"/api/circuits/{Guid.NewGuid()}", $"/api/jobs/{Guid.NewGuid()}/diagnosis" })
        {
            var answer = await _client.GetAsync(address, Host.Cancellation);
            answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
            answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/problem+json");
        }
    }

    private async Task<JsonElement> Import(string json)
    {
        var answer = await _client.PostAsync(
            "/api/circuits",
            new StringContent(json, Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }
}
