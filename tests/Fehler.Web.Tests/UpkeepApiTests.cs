using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Fehler.Web.Tests;

/// <summary>Upkeep over HTTP: what is due, what was done, what became of the values, what to hold.</summary>
public class UpkeepApiTests(Host host) : IClassFixture<Host>
{
    private readonly HttpClient _client = host.CreateClient();

    private Task<JsonElement> Get(string path) => _client.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    private static string Day(int days) => DateTime.UtcNow.AddDays(days).ToString("yyyy-MM-dd", null);

    private async Task<(HttpStatusCode Status, JsonElement Answer)> Done(string circuit, object work)
    {
        var answer = await _client.PostAsJsonAsync($"/api/circuits/{circuit}/work", work, Host.Cancellation);
        return (answer.StatusCode, await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation));
    }

    private static object Insulation(string megohms, double celsius, int daysAgo) =>
        new
        {
            rule = "insulation",
            who = "tester",
            text = "",
            minutes = 12,
            working = "",
            at = DateTimeOffset.UtcNow.AddDays(-daysAgo),
            readings = new[]
            {
                new
                {
                    type = "readingAsTyped",
                    quantity = "insulation",
                    from = "M1:U",
                    to = "M1:PE",
                    held = Array.Empty<object>(),
                    typed = megohms,
                    celsius,
                },
            },
        };

    private async Task<JsonElement> Item(string circuit, string rule) =>
        (await Get($"/api/plan?circuit={circuit}&take=200"))
            .GetProperty("items")
            .EnumerateArray()
            .Single(i => i.GetProperty("rule").GetString() == rule);

    [Fact]
    public async Task Insulation_that_falls_becomes_a_trend_and_moves_what_is_due()
    {
        var circuit = await Host.CircuitAsync(_client, "WP-304");
        // At 40 °C as measured: 80, 40, 20, 10 MOhm, half a year apart.
        foreach (var (megohms, ago) in new[] { ("80", 560), ("40", 380), ("20", 200), ("10", 20) })
        {
            (await Done(circuit, Insulation(megohms, 40, ago))).Status.ShouldBe(HttpStatusCode.OK);
        }

        var trend = (await Get($"/api/circuits/{circuit}/trends"))
            .EnumerateArray()
            .Single(t => t.GetProperty("what").GetString() == "insulation");
        trend.GetProperty("unit").GetString().ShouldBe("MΩ");
        trend.GetProperty("points").GetArrayLength().ShouldBe(4);
        trend.GetProperty("isHeading").GetBoolean().ShouldBeTrue();
        trend.GetProperty("says").GetString()!.ShouldContain("reaches 5 MΩ");

        var due = await Item(circuit, "insulation");
        due.GetProperty("why").GetString()!.ShouldContain("reaches 5 MΩ");
        // The interval alone would say two years.
        DateOnly.Parse(due.GetProperty("due").GetString()!, null).ShouldBeLessThan(DateOnly.FromDateTime(DateTime.UtcNow.AddDays(300)));

        var csv = await _client.GetStringAsync(new Uri($"/api/circuits/{circuit}/trends.csv", UriKind.Relative), Host.Cancellation);
        csv.ShouldContain("Insulation at 40 °C,M1,U-PE");
    }

    [Theory]
    [InlineData("nonsense", "50", 20, "is not done on this circuit")]
    [InlineData("insulation", "beep", 20, "M1:U–M1:PE")]
    [InlineData("insulation", "50", 900, "°C")]
    public async Task Nonsense_is_refused_with_its_place(string rule, string typed, double celsius, string says)
    {
        var circuit = await Host.CircuitAsync(_client, "WP-303");
        var before = (await Get($"/api/circuits/{circuit}/work")).GetProperty("total").GetInt32();
        var work = JsonSerializer.SerializeToNode(Insulation(typed, celsius, 1))!;
        work["rule"] = rule;
        var (status, answer) = await Done(circuit, work);
        status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        answer.GetProperty("detail").GetString()!.ShouldContain(says);
        (await Get($"/api/circuits/{circuit}/work")).GetProperty("total").GetInt32().ShouldBe(before);
    }

    [Fact]
    public async Task What_was_done_is_due_again_after_its_interval_and_an_own_interval_holds()
    {
        var circuit = await Host.CircuitAsync(_client, "GC-505");
        var id = Guid.NewGuid();
        foreach (var _ in new[] { 1, 2 })
        {
            var done = await Done(
                circuit,
                new
                {
                    rule = "panel",
                    who = "tester",
                    minutes = 20,
                    readings = Array.Empty<object>(),
                    id,
                }
            );
            done.Answer.GetProperty("id").GetGuid().ShouldBe(id);
        }

        (await Get($"/api/circuits/{circuit}/work")).GetProperty("total").GetInt32().ShouldBe(1);
        (await Item(circuit, "panel")).GetProperty("due").GetString().ShouldBe(DateTime.UtcNow.AddMonths(24).ToString("yyyy-MM-dd", null));
        var put = await _client.PutAsJsonAsync(
            "/api/plan/intervals",
            new
            {
                rule = "panel",
                circuit,
                months = 6,
            },
            Host.Cancellation
        );
        put.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Item(circuit, "panel")).GetProperty("due").GetString().ShouldBe(DateTime.UtcNow.AddMonths(6).ToString("yyyy-MM-dd", null));
        var never = await _client.PutAsJsonAsync(
            "/api/plan/intervals",
            new
            {
                rule = "panel",
                circuit,
                months = -1,
            },
            Host.Cancellation
        );
        never.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Follow_ups_and_what_was_not_found_stand_in_the_same_plan()
    {
        var circuit = await Host.CircuitAsync(_client, "LD-106");
        var posted = await _client.PostAsJsonAsync(
            $"/api/circuits/{circuit}/follow-ups",
            new
            {
                text = "order a cable gland",
                due = Day(4),
                who = "tester",
                job = (string?)null,
            },
            Host.Cancellation
        );
        posted.EnsureSuccessStatusCode();
        var items = (await Get($"/api/plan?until={Day(60)}&take=200")).GetProperty("items").EnumerateArray().ToList();
        items.ShouldContain(i => i.GetProperty("title").GetString() == "order a cable gland");
        // The demo's job on WP-302 found nothing.
        var watch = items.Single(i => i.GetProperty("kind").GetString() == "watch");
        watch.GetProperty("circuitTag").GetString().ShouldBe("WP-302");
        items.Select(i => i.GetProperty("due").GetString()).ShouldBe(items.Select(i => i.GetProperty("due").GetString()).Order());

        var looked = await Done(
            watch.GetProperty("circuit").GetString()!,
            new
            {
                rule = "watch",
                who = "tester",
                minutes = 0,
            }
        );
        looked.Status.ShouldBe(HttpStatusCode.OK);
        (await Get("/api/plan?kind=watch")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    /// <summary>RFC 5545: lines end with CR LF, one VEVENT a line of the plan, dates without a time.</summary>
    [Fact]
    public async Task The_plan_goes_into_a_calendar()
    {
        var text = await _client.GetStringAsync(new Uri($"/api/plan/calendar.ics?until={Day(500)}", UriKind.Relative), Host.Cancellation);
        text.ShouldStartWith("BEGIN:VCALENDAR\r\n");
        text.ShouldEndWith("END:VCALENDAR\r\n");
        var due = (await Get($"/api/plan?until={Day(500)}&take=1")).GetProperty("total").GetInt32();
        text.Split("BEGIN:VEVENT").Length.ShouldBe(due + 1);
        text.ShouldContain("DTSTART;VALUE=DATE:");
    }

    [Fact]
    public async Task A_shutdown_is_packed_kept_printed_and_ticked_off()
    {
        var wish = new
        {
            title = "Saturday",
            begins = DateTimeOffset.UtcNow.AddDays(3),
            hours = 6.0,
            people = 2,
            area = "Drying kilns",
            enclosures = (string[]?)null,
            daysAhead = 730,
        };
        var answer = await _client.PostAsJsonAsync("/api/shutdowns", new { wish, who = "tester" }, Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var packed = await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        var list = packed.GetProperty("list");
        list.GetProperty("worth").GetDouble().ShouldBeLessThanOrEqualTo(list.GetProperty("bound").GetDouble() + 1e-9);
        var people = list.GetProperty("people").EnumerateArray().ToList();
        people.ShouldAllBe(p => p.GetProperty("minutes").GetDouble() <= 360);
        var piece = people
            .SelectMany(p => p.GetProperty("visits").EnumerateArray())
            .First()
            .GetProperty("dead")[0]
            .GetProperty("id")
            .GetString()!;

        var item = packed.GetProperty("items").EnumerateArray().First(i => i.GetProperty("id").GetString() == piece);
        await Done(
            item.GetProperty("circuit").GetString()!,
            new
            {
                rule = item.GetProperty("rule").GetString(),
                who = "tester",
                minutes = 10,
            }
        );
        var id = packed.GetProperty("id").GetString();
        (await Get($"/api/shutdowns/{id}")).GetProperty("done").EnumerateArray().Select(d => d.GetString()).ShouldContain(piece);
        var pdf = await _client.GetByteArrayAsync(new Uri($"/api/shutdowns/{id}/print", UriKind.Relative), Host.Cancellation);
        System.Text.Encoding.ASCII.GetString(pdf, 0, 5).ShouldBe("%PDF-");

        var nobody = await _client.PostAsJsonAsync(
            "/api/shutdowns",
            new
            {
                wish = new
                {
                    title = "",
                    begins = DateTimeOffset.UtcNow,
                    hours = 0,
                    people = 0,
                    daysAhead = 10,
                },
                who = "tester",
            },
            Host.Cancellation
        );
        nobody.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Spares_are_counted_over_all_circuits_and_the_store_is_believed()
    {
        var part = (await Get("/api/spares?search=overload&take=1")).GetProperty("items")[0];
        var name = part.GetProperty("part").GetString();
        var hold = part.GetProperty("advice").GetProperty("hold").GetInt32();
        var put = await _client.PutAsJsonAsync(
            "/api/spares",
            new
            {
                part = name,
                leadWeeks = 52,
                stock = 7,
                note = "in drawer 3",
            },
            Host.Cancellation
        );
        put.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = (await Get("/api/spares?search=drawer")).GetProperty("items")[0];
        after.GetProperty("part").GetString().ShouldBe(name);
        after.GetProperty("stock").GetInt32().ShouldBe(7);
        after.GetProperty("advice").GetProperty("hold").GetInt32().ShouldBeGreaterThanOrEqualTo(hold);
        var unknown = await _client.PutAsJsonAsync(
            "/api/spares",
            new
            {
                part = "flux thing",
                leadWeeks = 1,
                stock = 1,
            },
            Host.Cancellation
        );
        unknown.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Insight_adds_up_what_the_logbook_lists()
    {
        var insight = await Get("/api/insight");
        insight.GetProperty("jobs").GetInt32().ShouldBe((await Get("/api/jobs?take=1")).GetProperty("total").GetInt32());
        foreach (var bars in new[] { "causes", "devices" })
        {
            foreach (var bar in insight.GetProperty(bars).EnumerateArray())
            {
                var found = Uri.EscapeDataString(bar.GetProperty("found").GetString()!);
                var listed = await Get($"/api/jobs?take=1&found={found}");
                listed.GetProperty("total").GetInt32().ShouldBe(bar.GetProperty("jobs").GetInt32(), found);
            }
        }

        insight.GetProperty("repeats").EnumerateArray().ShouldContain(r => r.GetProperty("tag").GetString() == "IN-101");
    }
}
