using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>Register, logbook and the circuit's own history: paged, sorted and searched by the service.</summary>
public class ListsTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    [Fact]
    public async Task Pages_put_together_are_the_whole_list_once_each()
    {
        var total = (await List("/api/circuits?take=1")).Total;
        total.ShouldBeGreaterThan(30);
        var tags = new List<string>();
        for (var skip = 0; skip < total; skip += 7)
        {
            tags.AddRange((await List($"/api/circuits?sort=tag&skip={skip}&take=7")).Items.Select(Tag));
        }

        tags.Count.ShouldBe(total);
        tags.ShouldBeUnique();
        tags.ShouldBe(tags.Order(StringComparer.Ordinal));
    }

    [Fact]
    public async Task Descending_is_the_other_way_round()
    {
        var up = (await List("/api/circuits?sort=tag&take=200")).Items.Select(Tag).ToList();
        var down = (await List("/api/circuits?sort=tag&descending=true&take=200")).Items.Select(Tag).ToList();
        down.ShouldBe(Enumerable.Reverse(up));
    }

    [Fact]
    public async Task The_logbook_is_narrowed_by_area_outcome_person_and_days()
    {
        var all = await List("/api/jobs?take=200");
        var choices = await _client.GetFromJsonAsync<JsonElement>("/api/jobs/choices", Host.Cancellation);
        var sum = 0;
        foreach (var area in choices.GetProperty("areas").EnumerateArray().Select(a => a.GetString()!))
        {
            var here = await List($"/api/jobs?take=200&area={Uri.EscapeDataString(area)}");
            here.Items.ShouldAllBe(j => j.GetProperty("area").GetString() == area);
            sum += here.Total;
        }

        sum.ShouldBe(all.Total);
        (await List("/api/jobs?outcome=nothingFound")).Items.ShouldAllBe(j => j.GetProperty("outcome").GetString() == "NothingFound");
        (await List("/api/jobs?outcome=nothingFound")).Total.ShouldBeGreaterThan(0);
        var who = choices.GetProperty("people")[0].GetString()!;
        (await List($"/api/jobs?who={Uri.EscapeDataString(who)}")).Total.ShouldBeInRange(1, all.Total);
        (await List("/api/jobs?who=nobody")).Total.ShouldBe(0);
        var day = all.Items[0].GetProperty("openedAt").GetDateTimeOffset().LocalDateTime.ToString("yyyy-MM-dd", null);
        var thatDay = (await List($"/api/jobs?from={day}&until={day}")).Total;
        thatDay.ShouldBeInRange(1, all.Total);
        ((await List($"/api/jobs?from={day}")).Total + (await List($"/api/jobs?until={day}")).Total).ShouldBe(all.Total + thatDay);
        // People, days and repairs are found by typing them.
        (await List($"/api/jobs?search={Uri.EscapeDataString(who)}")).Total.ShouldBeGreaterThan(0);
        (await List("/api/jobs?search=DX-201%20coil")).Total.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_page_holds_at_most_200_and_nonsense_is_put_right_or_refused_in_words()
    {
        (await List("/api/circuits?take=100000")).Items.Length.ShouldBeLessThanOrEqualTo(200);
        (await List("/api/circuits?take=-5")).Items.Length.ShouldBe(1);
        (await List("/api/circuits?skip=-3&take=2&sort=tag"))
            .Items.Select(Tag)
            .ShouldBe((await List("/api/circuits?take=2&sort=tag")).Items.Select(Tag));
        (await List("/api/circuits?skip=99999")).Items.ShouldBeEmpty();
        foreach (
            var address in new[]
            {
                "/api/circuits?take=many",
                "/api/circuits?sort=colour",
                "/api/jobs?sort=colour",
                "/api/jobs?show=all%20of%20them",
                "/api/jobs?outcome=well",
                "/api/jobs?from=yesterday",
            }
        )
        {
            using var answer = await _client.GetAsync(address, Host.Cancellation);
            answer.StatusCode.ShouldBeOneOf(HttpStatusCode.BadRequest, HttpStatusCode.UnprocessableEntity);
            var problem = await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
            var said = problem.GetProperty("detail").GetString()!;
            said.ShouldNotContain("Exception");
            said.Length.ShouldBeInRange(10, 400);
        }
    }

    [Fact]
    public async Task Every_word_of_a_search_has_to_occur_and_signs_of_the_query_language_are_letters()
    {
        var found = (await List("/api/circuits?search=CH-110")).Items;
        found.Select(Tag).ShouldBe(["CH-110"]);
        (await List("/api/circuits?search=ch-110%20conveyor")).Total.ShouldBe((await List("/api/circuits?search=conveyor%20CH-110")).Total);
        (await List("/api/circuits?search=ch-110%20nowhere")).Total.ShouldBe(0);
        foreach (var sign in new[] { "%25", "_", "'", "%22", "\\", ";--" })
        {
            (await List($"/api/circuits?search={sign}")).Total.ShouldBeLessThan(10, sign);
        }
    }

    [Fact]
    public async Task Open_and_closed_jobs_are_all_jobs()
    {
        await Host.OpenJobAsync(_client, "IN-101");
        var (all, open, closed) = (await List("/api/jobs"), await List("/api/jobs?show=open"), await List("/api/jobs?show=closed"));
        open.Total.ShouldBeGreaterThan(0);
        closed.Total.ShouldBeGreaterThan(0);
        (open.Total + closed.Total).ShouldBe(all.Total);
        open.Items.Select(Id).ShouldNotContain(id => closed.Items.Select(Id).Contains(id));
    }

    [Fact]
    public async Task The_newest_job_stands_first()
    {
        var mine = await Host.OpenJobAsync(_client, "IN-101");
        (await List("/api/jobs?take=1")).Items.Select(Id).ShouldBe([mine]);
        var opened = (await List("/api/jobs?take=200")).Items.Select(j => j.GetProperty("openedAt").GetDateTimeOffset()).ToList();
        opened.ShouldBe(opened.OrderDescending());
    }

    /// <summary>What the service serves is the schema that is published beside the format, with the kinds that it knows.</summary>
    [Fact]
    public async Task The_schema_of_the_circuit_file_names_every_kind_once()
    {
        var schema = await _client.GetFromJsonAsync<JsonElement>("/api/circuits/schema", Host.Cancellation);
        var kinds = await _client.GetFromJsonAsync<JsonElement>("/api/setup/kinds", Host.Cancellation);
        var known = kinds.EnumerateArray().Select(k => k.GetProperty("id").GetString()!).ToList();
        var published = Enums(schema).First(e => e.Contains("contactor"));
        published.ShouldBeUnique();
        known.ShouldBeSubsetOf(published);
        published.Count.ShouldBeGreaterThan(25);
    }

    private static IEnumerable<List<string>> Enums(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.Object => element
                .EnumerateObject()
                .SelectMany(p =>
                    p is { Name: "enum", Value.ValueKind: JsonValueKind.Array }
                        ?
                        [
                            [.. p.Value.EnumerateArray().Select(v => v.ToString())],
                        ]
                        : Enums(p.Value)
                ),
            JsonValueKind.Array => element.EnumerateArray().SelectMany(Enums),
            _ => [],
        };

    private async Task<(int Total, JsonElement[] Items)> List(string address)
    {
        var page = await _client.GetFromJsonAsync<JsonElement>(address, Host.Cancellation);
        return (page.GetProperty("total").GetInt32(), [.. page.GetProperty("items").EnumerateArray()]);
    }

    private static string Tag(JsonElement item) => item.GetProperty("tag").GetString()!;

    private static string Id(JsonElement item) => item.GetProperty("id").GetString()!;
}
