using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>What a job leaves for later, with the day by which it is to be done.</summary>
public class FollowUpTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task What_is_to_be_done_is_listed_soonest_first_until_it_is_done()
    {
        var circuit = await Host.CircuitAsync(_client, "LD-102");
        var job = await Host.OpenJobAsync(_client, "LD-102");
        var later = await Added(circuit, "order a contactor", Day(20), job);
        var sooner = await Added(circuit, "tighten the clamps", Day(3), null);
        (await Texts($"circuit={circuit}")).ShouldBe(["tighten the clamps", "order a contactor"]);
        (await Texts($"search=LD-102%20order")).ShouldBe(["order a contactor"]);
        later.GetProperty("job").GetString().ShouldBe(job);
        sooner.GetProperty("circuitTag").GetString().ShouldBe("LD-102");

        var id = sooner.GetProperty("id").GetString();
        foreach (var who in new[] { "Anna", "Ben" })
        {
            var done = await _client.PostAsJsonAsync($"/api/follow-ups/{id}/done", new { who }, Host.Cancellation);
            (await done.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("doneBy").GetString().ShouldBe("Anna");
        }

        (await Texts($"circuit={circuit}")).ShouldBe(["order a contactor"]);
        (await Texts($"circuit={circuit}&done=true")).ShouldBe(["tighten the clamps"]);
    }

    [Theory]
    [InlineData("", 3, "Say what")]
    [InlineData("later", -400, "Give a day")]
    [InlineData("later", 36500, "Give a day")]
    public async Task Nonsense_is_refused_in_a_sentence(string text, int days, string says)
    {
        var circuit = await Host.CircuitAsync(_client, "WP-304");
        var answer = await Sent(circuit, text, Day(days), null);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain(says);
        (await Texts($"circuit={circuit}")).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_job_of_another_circuit_and_what_is_not_there_are_not_found()
    {
        var circuit = await Host.CircuitAsync(_client, "WP-304");
        var other = await Host.OpenJobAsync(_client, "CH-111");
        (await Sent(circuit, "look again", Day(1), other)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Sent(Guid.NewGuid().ToString(), "look again", Day(1), null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var done = await _client.PostAsJsonAsync($"/api/follow-ups/{Guid.NewGuid()}/done", new { who = "Anna" }, Host.Cancellation);
        done.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await _client.GetAsync("/api/follow-ups?sort=colour", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    /// <summary>What is to be done goes along with its circuit; what was ticked off there since is done here.</summary>
    [Fact]
    public async Task What_is_to_be_done_is_carried_in_a_bundle()
    {
        var circuit = await Host.CircuitAsync(_client, "IN-101");
        var added = await Added(circuit, "look at the springs", Day(9), null);
        await using var otherHost = new Host();
        using var other = otherHost.CreateClient();
        await CarryAsync(_client, circuit, other);
        var there = await Host.CircuitAsync(other, "IN-101");
        (await Texts($"circuit={there}", other)).ShouldBe(["look at the springs"]);

        await _client.PostAsJsonAsync(
            $"/api/follow-ups/{added.GetProperty("id").GetString()}/done",
            new { who = "Anna" },
            Host.Cancellation
        );
        await CarryAsync(_client, circuit, other);
        (await Texts($"circuit={there}", other)).ShouldBeEmpty();
        (await Texts($"circuit={there}&done=true", other)).ShouldBe(["look at the springs"]);
    }

    private static async Task CarryAsync(HttpClient from, string circuit, HttpClient to)
    {
        using var zip = new ByteArrayContent(await from.GetByteArrayAsync($"/api/bundle?circuit={circuit}", Host.Cancellation));
        zip.Headers.ContentType = new("application/zip");
        (await to.PostAsync("/api/bundle", zip, Host.Cancellation)).EnsureSuccessStatusCode();
    }

    private static string Day(int ahead) => DateTime.UtcNow.AddDays(ahead).ToString("yyyy-MM-dd", null);

    private Task<HttpResponseMessage> Sent(string circuit, string text, string due, string? job) =>
        _client.PostAsJsonAsync(
            $"/api/circuits/{circuit}/follow-ups",
            new
            {
                text,
                due,
                who = "tester",
                job,
            },
            Host.Cancellation
        );

    private async Task<JsonElement> Added(string circuit, string text, string due, string? job)
    {
        var answer = await Sent(circuit, text, due, job);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
    }

    private async Task<string?[]> Texts(string query, HttpClient? client = null) =>
        [
            .. (await (client ?? _client).GetFromJsonAsync<JsonElement>($"/api/follow-ups?{query}", Host.Cancellation))
                .GetProperty("items")
                .EnumerateArray()
                .Select(f => f.GetProperty("text").GetString()),
        ];
}
