using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>Sums asked of a circuit, and their results written into its description.</summary>
public class SumApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task A_dial_is_worked_out_from_the_plate_and_put_into_a_new_version()
    {
        var circuit = await Host.CircuitAsync(_client, "WP-304");
        var asked = (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/sums", Host.Cancellation))
            .EnumerateArray()
            .First(a => a.GetProperty("sum").GetString() == "overload-dial");
        var device = asked.GetProperty("device").GetString();
        var given = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(asked.GetProperty("given"))!;
        given["amps"] = JsonSerializer.SerializeToElement(7.25);
        var worked = await Read(
            await _client.PostAsJsonAsync($"/api/sums/overload-dial?circuit={circuit}&device={device}", given, Host.Cancellation)
        );
        worked.GetProperty("result").GetProperty("lines")[0].GetProperty("value").GetDouble().ShouldBe(7.25, 0.001);
        var edit = worked.GetProperty("put").GetProperty("edit");
        var put = await Read(await _client.PostAsJsonAsync($"/api/circuits/{circuit}/edits", edit, Host.Cancellation));
        put.GetProperty("isNew").GetBoolean().ShouldBeTrue();
        var again = (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/sums", Host.Cancellation))
            .EnumerateArray()
            .First(a => a.GetProperty("sum").GetString() == "trip-time" && a.GetProperty("device").GetString() == device);
        again.GetProperty("given").GetProperty("dialAmps").GetDouble().ShouldBe(7.25, 0.001);
    }

    [Fact]
    public async Task Without_a_circuit_a_sum_is_put_nowhere_and_with_a_wrong_one_it_is_said()
    {
        var alone = await Read(await _client.PostAsJsonAsync("/api/sums/overload-dial", new { amps = 8.1 }, Host.Cancellation));
        alone.GetProperty("put").ValueKind.ShouldBe(JsonValueKind.Null);
        var nowhere = $"/api/sums/overload-dial?circuit={Guid.NewGuid()}&device=F2";
        (await _client.PostAsJsonAsync(nowhere, new { }, Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var circuit = await Host.CircuitAsync(_client, "WP-304");
        var other = await _client.PostAsJsonAsync($"/api/sums/overload-dial?circuit={circuit}&device=F99", new { }, Host.Cancellation);
        other.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await other.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("has no F99");
    }

    [Fact]
    public async Task An_edit_that_makes_no_circuit_changes_nothing()
    {
        var circuit = await Host.CircuitAsync(_client, "LD-102");
        async Task<int> Version() =>
            (await _client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}", Host.Cancellation)).GetProperty("version").GetInt32();
        var before = await Version();
        object[] wrong =
        [
            new
            {
                type = "setParameter",
                tag = "F2",
                name = "settingAmps",
                value = "much",
            },
            new { type = "remove", part = "S99:1-2" },
            new
            {
                type = "describeCircuit",
                tag = "LD-999",
                title = "Another",
                area = "",
                enclosure = "",
                drawing = "",
                notes = "",
            },
        ];
        foreach (var edit in wrong)
        {
            var answer = await _client.PostAsJsonAsync($"/api/circuits/{circuit}/edits", edit, Host.Cancellation);
            answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        }

        (await Version()).ShouldBe(before);
    }

    private static async Task<JsonElement> Read(HttpResponseMessage answer)
    {
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }
}
