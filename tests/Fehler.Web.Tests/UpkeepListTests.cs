using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>The lists of upkeep: sorted, searched, paged, narrowed, and what an unknown column or a day that is none is answered.</summary>
public class UpkeepListTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    private Task<JsonElement> Get(string path) => _client.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    private async Task<HttpStatusCode> Status(string path) =>
        (await _client.GetAsync(new Uri(path, UriKind.Relative), Host.Cancellation)).StatusCode;

    private static List<JsonElement> Items(JsonElement page) => [.. page.GetProperty("items").EnumerateArray()];

    [Theory]
    [InlineData("due", "due")]
    [InlineData("circuitTag", "circuitTag")]
    [InlineData("area", "area")]
    [InlineData("title", "title")]
    public async Task The_plan_is_sorted_by_each_column_both_ways(string sort, string property)
    {
        foreach (var descending in new[] { false, true })
        {
            var page = await Get($"/api/plan?sort={sort}&descending={descending}&take=200");
            var values = Items(page).Select(i => i.GetProperty(property).GetString()!).ToList();
            values.ShouldBe(
                descending ? values.OrderDescending(StringComparer.CurrentCulture) : values.Order(StringComparer.CurrentCulture)
            );
        }
    }

    [Fact]
    public async Task Pages_of_the_plan_are_its_whole_without_gap_or_repeat()
    {
        var total = (await Get("/api/plan?take=1")).GetProperty("total").GetInt32();
        var ids = new List<string>();
        for (var skip = 0; skip < total; skip += 50)
        {
            ids.AddRange(Items(await Get($"/api/plan?skip={skip}&take=50")).Select(i => i.GetProperty("id").GetString()!));
        }

        ids.Count.ShouldBe(total);
        ids.ShouldBeUnique();
    }

    [Fact]
    public async Task The_plan_is_narrowed_by_area_state_kind_day_and_words()
    {
        Items(await Get("/api/plan?area=Drying%20kilns&take=200")).ShouldAllBe(i => i.GetProperty("area").GetString() == "Drying kilns");
        Items(await Get("/api/plan?state=dead&take=200")).ShouldAllBe(i => i.GetProperty("state").GetString() == "dead");
        Items(await Get("/api/plan?kind=upkeep&take=200")).ShouldAllBe(i => i.GetProperty("rule").GetString() != "");
        Items(await Get("/api/plan?until=2020-01-01&take=200")).ShouldBeEmpty();
        var found = Items(await Get("/api/plan?search=WP-301%20insulation"));
        found.ShouldHaveSingleItem().GetProperty("devices")[0].GetString().ShouldBe("M1");
        Items(await Get("/api/plan?search=zzz")).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("/api/plan?sort=colour")]
    [InlineData("/api/plan?until=tomorrow")]
    [InlineData("/api/plan?kind=wish")]
    [InlineData("/api/plan?state=asleep")]
    [InlineData("/api/plan/calendar.ics?until=32.13.")]
    [InlineData("/api/spares?sort=colour")]
    [InlineData("/api/insight?from=yesterday")]
    [InlineData("/api/insight/insight.csv?until=never")]
    public async Task A_column_or_a_day_that_is_none_is_refused_in_a_sentence(string path)
    {
        var answer = await _client.GetAsync(new Uri(path, UriKind.Relative), Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("detail")
            .GetString()!
            .Length.ShouldBeGreaterThan(15);
    }

    [Theory]
    [InlineData("trends")]
    [InlineData("trends.csv")]
    [InlineData("upkeep")]
    [InlineData("work")]
    public async Task What_is_of_no_circuit_is_not_found(string what) =>
        (await Status($"/api/circuits/{Guid.NewGuid()}/{what}")).ShouldBe(HttpStatusCode.NotFound);

    [Fact]
    public async Task A_list_or_an_exercise_that_is_not_there_is_not_found()
    {
        (await Status($"/api/shutdowns/{Guid.NewGuid()}")).ShouldBe(HttpStatusCode.NotFound);
        (await Status($"/api/shutdowns/{Guid.NewGuid()}/print")).ShouldBe(HttpStatusCode.NotFound);
        (await Status($"/api/exercises/{Guid.NewGuid()}/debrief")).ShouldBe(HttpStatusCode.NotFound);
        var nobody = await _client.PostAsJsonAsync($"/api/exercises/{Guid.NewGuid()}/give-up", new { who = "x" }, Host.Cancellation);
        nobody.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("part", false)]
    [InlineData("installed", true)]
    [InlineData("failures", true)]
    [InlineData("hold", true)]
    public async Task Spares_are_sorted_by_each_column(string sort, bool descending)
    {
        var parts = Items(await Get($"/api/spares?sort={sort}&descending={descending}&take=200"));
        double Value(JsonElement p) =>
            sort switch
            {
                "installed" => p.GetProperty("installed").GetInt32(),
                "failures" => p.GetProperty("failures").GetInt32(),
                _ => p.GetProperty("advice").GetProperty("hold").GetInt32(),
            };
        if (sort == "part")
        {
            var names = parts.Select(p => p.GetProperty("part").GetString()!).ToList();
            names.ShouldBe(names.Order(StringComparer.CurrentCulture));
            return;
        }

        parts.Select(Value).ShouldBeInOrder(SortDirection.Descending);
    }

    /// <summary>What is fitted adds up: each device of the register that can be bought stands once.</summary>
    [Fact]
    public async Task Installed_parts_are_those_of_the_register()
    {
        var parts = Items(await Get("/api/spares?take=200"));
        var fitted = parts.Sum(p => p.GetProperty("installed").GetInt32());
        fitted.ShouldBeGreaterThan(300);
        foreach (var part in parts)
        {
            var where = part.GetProperty("where").GetArrayLength();
            where.ShouldBe(Math.Min(40, part.GetProperty("installed").GetInt32()));
        }

        // The demo's five repairs: a coil in DX-201, buttons in IN-101.
        parts.Sum(p => p.GetProperty("used").GetInt32()).ShouldBeGreaterThan(0);
        var csv = await _client.GetStringAsync(new Uri("/api/spares/spares.csv", UriKind.Relative), Host.Cancellation);
        csv.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length.ShouldBeGreaterThan(parts.Count / 2);
    }

    [Fact]
    public async Task Every_rule_of_the_plant_is_listed_with_where_it_comes_from()
    {
        var rules = (await Get("/api/plan/rules")).EnumerateArray().ToList();
        rules.Select(r => r.GetProperty("id").GetString()!).ShouldBeUnique();
        rules.ShouldAllBe(r => r.GetProperty("source").GetString()!.Length > 5 && r.GetProperty("usual").GetInt32() > 0);
        rules.ShouldContain(r => r.GetProperty("id").GetString() == "emergency-stop");
        rules.Single(r => r.GetProperty("id").GetString() == "panel").GetProperty("circuits").GetInt32().ShouldBe(34);
    }

    /// <summary>A rule that the plant does not do is not due, until it is taken back.</summary>
    [Fact]
    public async Task Never_is_an_interval_too()
    {
        async Task<int> Lamps() => (await Get("/api/plan?search=lamps%20light")).GetProperty("total").GetInt32();
        async Task Set(int? months) =>
            (
                await _client.PutAsJsonAsync("/api/plan/intervals", new { rule = "lamps", months }, Host.Cancellation)
            ).EnsureSuccessStatusCode();
        var before = await Lamps();
        before.ShouldBeGreaterThan(0);
        await Set(0);
        (await Lamps()).ShouldBe(0);
        await Set(null);
        (await Lamps()).ShouldBe(before);
        var unknown = await _client.PutAsJsonAsync("/api/plan/intervals", new { rule = "polish", months = 3 }, Host.Cancellation);
        unknown.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }
}
