using System.Net;
using System.Text;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>A plant's list of starters, taken in over HTTP row by row.</summary>
public class RegisterListTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task Rows_are_taken_in_one_by_one_and_what_cannot_be_used_is_set_aside()
    {
        const string list =
            "tag;title;family;colour\nWX-901;Sump pump;;blue\nIN-101;There already;;\nWX-902;Mill;wind-mill;\nWX-903;Fan;star-delta;\n";
        var lines = await Sent(list);
        lines.Count.ShouldBe(5);
        lines[0].GetProperty("problem").GetString()!.ShouldContain("colour");
        string Problem(string tag) => lines.Single(l => l.GetProperty("tag").GetString() == tag).GetProperty("problem").GetString()!;
        Problem("WX-901").ShouldBe("");
        Problem("IN-101").ShouldContain("in the register already");
        Problem("WX-902").ShouldContain("no family");
        Problem("WX-903").ShouldBe("");
        foreach (var tag in new[] { "WX-901", "WX-903" })
        {
            var found = await _client.GetStringAsync($"/api/circuits?search={tag}", Host.Cancellation);
            JsonDocument.Parse(found).RootElement.GetProperty("total").GetInt32().ShouldBe(1, tag);
        }

        // Sent again, nothing becomes a new version.
        (await Sent(list))
            .Count(l => l.GetProperty("problem").GetString()!.Contains("already", StringComparison.Ordinal))
            .ShouldBe(3);
    }

    [Fact]
    public async Task What_is_no_list_is_refused_in_a_sentence()
    {
        using var answer = await _client.PostAsync(
            "/api/circuits/register-list",
            new StringContent("hello", Encoding.UTF8, "text/csv"),
            Host.Cancellation
        );
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("headings");
    }

    private async Task<List<JsonElement>> Sent(string list)
    {
        using var answer = await _client.PostAsync(
            "/api/circuits/register-list",
            new StringContent(list, Encoding.UTF8, "text/csv"),
            Host.Cancellation
        );
        var text = await answer.Content.ReadAsStringAsync(Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, text);
        return [.. text.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => JsonSerializer.Deserialize<JsonElement>(l))];
    }
}
