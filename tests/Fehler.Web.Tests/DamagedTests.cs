using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Fehler.Web.Tests;

/// <summary>What can no longer be read is set aside and said; everything else goes on, and the service starts.</summary>
public sealed class DamagedTests : IDisposable
{
    private readonly Host _host = new();
    private readonly HttpClient _client;

    public DamagedTests() => _client = _host.CreateClient();

    [Fact]
    public async Task A_circuit_that_cannot_be_read_stops_neither_the_lists_nor_other_circuits()
    {
        var (broken, sound) = (await Host.CircuitAsync(_client, "KF-401"), await Host.CircuitAsync(_client, "IN-101"));
        Sql(
            "UPDATE CircuitVersions SET Json = replace(Json, '\"reference\": \"', '\"reference\": \"NOWHERE') WHERE CircuitId = "
                + "(SELECT Id FROM Circuits WHERE Tag = 'KF-401')"
        );
        await Restarted(async client =>
        {
            (await client.GetFromJsonAsync<JsonElement>("/api/circuits", Host.Cancellation)).GetProperty("total").GetInt32().ShouldBe(34);
            var answer = await client.GetAsync($"/api/circuits/{broken}", Host.Cancellation);
            answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
                .GetProperty("detail")
                .GetString()!
                .ShouldContain("set aside");
            (await client.GetAsync($"/api/circuits/{sound}", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.OK);
        });
    }

    /// <summary>An open job on such a circuit once kept the service from ever starting again.</summary>
    [Fact]
    public async Task An_open_job_on_a_circuit_that_cannot_be_read_does_not_stop_the_service()
    {
        var job = await Host.OpenJobAsync(_client, "KF-401");
        var other = await Host.OpenJobAsync(_client, "IN-101");
        Sql("UPDATE CircuitVersions SET Json = substr(Json, 1, 500) WHERE CircuitId = (SELECT Id FROM Circuits WHERE Tag = 'KF-401')");
        await Restarted(async client =>
        {
            (await client.GetAsync($"/api/jobs/{job}", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
            (await client.GetAsync($"/api/jobs/{job}/diagnosis", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
            (await client.GetFromJsonAsync<JsonElement>("/api/jobs", Host.Cancellation))
                .GetProperty("items")
                .EnumerateArray()
                .Select(j => j.GetProperty("id").GetString())
                .ShouldContain(job);
            (await client.GetAsync($"/api/jobs/{other}/diagnosis", Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.OK);
        });
    }

    [Fact]
    public async Task An_entry_that_cannot_be_read_is_counted_as_set_aside_and_the_journal_goes_on()
    {
        var job = await Host.OpenJobAsync(_client, "IN-101");
        foreach (var text in new[] { "first", "second", "third" })
        {
            (
                await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", new { type = "note", text }, Host.Cancellation)
            ).EnsureSuccessStatusCode();
        }

        Sql($"UPDATE Journal SET Json = substr(Json, 1, 20) WHERE upper(JobId) = upper('{job}') AND Sequence = 3");
        await Restarted(async client =>
        {
            var read = await client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
            read.GetProperty("setAside").EnumerateArray().Select(n => n.GetInt32()).ShouldBe([3]);
            read.GetProperty("entries").GetArrayLength().ShouldBe(3);
            var answer = await client.PostAsJsonAsync(
                $"/api/jobs/{job}/entries",
                new { type = "note", text = "fourth" },
                Host.Cancellation
            );
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("sequence").GetInt32().ShouldBe(5);
        });
    }

    /// <summary>A reference with a typing error in it was once accepted, and the service never started again.</summary>
    [Theory]
    [InlineData("\"reference\": \"INC:N\"", "\"reference\": \"INC:NN\"", "$.reference")]
    [InlineData("\"KM1:A1-A2\"", "\"KM1:A1-A9\"", "A9")]
    [InlineData("\"type\": \"enclosure\"", "\"type\": \"field\"", "enclosure")]
    public async Task A_circuit_that_could_not_be_worked_with_is_refused_with_its_place(string right, string wrong, string says)
    {
        var text = await File.ReadAllTextAsync(Path.Combine(Host.Root, "demo", "circuits", "IN-101.circuit.json"), Host.Cancellation);
        text.ShouldContain(right);
        var answer = await _client.PostAsync(
            "/api/circuits",
            new StringContent(text.Replace(right, wrong, StringComparison.Ordinal), System.Text.Encoding.UTF8, "application/json"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!.ShouldContain(says);
    }

    public void Dispose() => _host.Dispose();

    private void Sql(string command)
    {
        using var connection = new SqliteConnection($"Data Source={_host.Database}");
        connection.Open();
        using var change = connection.CreateCommand();
        change.CommandText = command;
        change.ExecuteNonQuery().ShouldBeGreaterThan(0);
    }

    /// <summary>The service started again on the same file.</summary>
    private async Task Restarted(Func<HttpClient, Task> look)
    {
        _client.Dispose();
        await _host.StopAsync();
        using var again = new SameFileHost(_host.Database);
        using var client = again.CreateClient();
        await look(client);
    }
}
