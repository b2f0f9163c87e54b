using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>The panel is not as drawn: its circuit is corrected from the job.</summary>
public class CorrectionTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    /// <summary>The ferrules say otherwise: the job goes on with a new version of its circuit, and the one before is still there.</summary>
    [Fact]
    public async Task A_panel_that_differs_is_corrected_from_the_job()
    {
        var job = await Host.OpenJobAsync(_client, "WP-304");
        var before = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        var (circuit, version) = (before.GetProperty("circuitId").GetString(), before.GetProperty("circuitVersion").GetInt32());
        var answer = await Correct(
            job,
            new
            {
                type = "renumberWire",
                wire = "3",
                newWire = "33",
            }
        );
        answer.EnsureSuccessStatusCode();
        var after = await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        after.GetProperty("circuitVersion").GetInt32().ShouldBe(version + 1);
        after
            .GetProperty("entries")
            .EnumerateArray()
            .Last()
            .GetProperty("text")
            .GetString()!
            .ShouldStartWith("The panel differs: wire 3 is numbered 33");
        (await Wires(circuit, null)).ShouldContain("33");
        (await Wires(circuit, version)).ShouldNotContain("33");
        // It is diagnosed on it, too.
        var diagnosis = await _client.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}/diagnosis", Host.Cancellation);
        diagnosis.GetProperty("proposals").GetArrayLength().ShouldBeGreaterThan(0);

        (
            await Correct(
                job,
                new
                {
                    type = "renumberWire",
                    wire = "3",
                    newWire = "34",
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Correct(job, new { type = "remove", part = "Q1" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await Refused(
            job,
            new
            {
                type = "circuitCorrected",
                from = 1,
                to = 9,
                what = "nothing",
            },
            HttpStatusCode.UnprocessableEntity
        );
    }

    private Task<HttpResponseMessage> Correct(string job, object edit) =>
        _client.PostAsJsonAsync($"/api/jobs/{job}/corrections", new { edit, who = "tester" }, Host.Cancellation);

    private async Task<List<string?>> Wires(string? circuit, int? version) =>
        [
            .. (
                await _client.GetFromJsonAsync<JsonElement>(
                    $"/api/circuits/{circuit}{(version is null ? "" : $"?version={version}")}",
                    Host.Cancellation
                )
            )
                .GetProperty("conductors")
                .EnumerateArray()
                .Select(c => c.GetProperty("wire").GetString()),
        ];

    private async Task<string> Refused(string job, object entry, HttpStatusCode status)
    {
        var answer = await _client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation);
        answer.StatusCode.ShouldBe(status, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!;
    }
}
