using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;

namespace Fehler.Web.Tests;

/// <summary>The demo plant with its two years: every job whole and closed, and something to be seen in trends, plan, spares and insight.</summary>
public class DemoHistoryTests(DemoHistoryTests.WithHistory host) : IClassFixture<DemoHistoryTests.WithHistory>
{
    private readonly HttpClient _client = host.CreateClient();

    private Task<JsonElement> Get(string path) => _client.GetFromJsonAsync<JsonElement>(path, Host.Cancellation);

    [Fact]
    public async Task Every_job_of_the_past_is_closed_and_most_are_proved()
    {
        var lines = File.ReadLines(Path.Combine(Host.Root, "demo", "history", "jobs.jsonl")).Count();
        var all = (await Get("/api/jobs?take=1")).GetProperty("total").GetInt32();
        all.ShouldBe(lines + 7);
        // The one that the demo leaves open on purpose.
        (await Get("/api/jobs?show=open&take=1"))
            .GetProperty("total")
            .GetInt32()
            .ShouldBe(1);
        (await Get("/api/jobs?outcome=repairedAndProved&take=1")).GetProperty("total").GetInt32().ShouldBeGreaterThan(9 * all / 10);
    }

    [Fact]
    public async Task A_pump_that_gets_damp_heads_for_its_limit_and_is_due_sooner()
    {
        var circuit = await Host.CircuitAsync(_client, "WP-301");
        var insulation = (await Get($"/api/circuits/{circuit}/trends"))
            .EnumerateArray()
            .Where(t => t.GetProperty("what").GetString() == "insulation")
            .ToList();
        insulation.Count.ShouldBe(3);
        insulation.ShouldAllBe(t => t.GetProperty("isHeading").GetBoolean() || t.GetProperty("isBeyond").GetBoolean());
        var due = (await Get($"/api/plan?circuit={circuit}&search=insulation")).GetProperty("items")[0];
        due.GetProperty("why").GetString()!.ShouldContain("5 MΩ");
    }

    [Fact]
    public async Task A_plant_that_is_looked_after_has_something_overdue_but_not_most()
    {
        var today = DateTime.UtcNow.ToString("yyyy-MM-dd", null);
        var overdue = (await Get($"/api/plan?until={today}&take=1")).GetProperty("total").GetInt32();
        var all = (await Get("/api/plan?take=1")).GetProperty("total").GetInt32();
        overdue.ShouldBeInRange(3, all / 2);
    }

    [Fact]
    public async Task Insight_has_two_years_to_show()
    {
        var insight = await Get("/api/insight");
        insight.GetProperty("months").GetArrayLength().ShouldBeGreaterThan(18);
        insight.GetProperty("repeats").GetArrayLength().ShouldBeGreaterThan(3);
        insight.GetProperty("circuits")[0].GetProperty("minutesDown").GetDouble().ShouldBeGreaterThan(60);
        insight.GetProperty("minutesToFind").GetDouble().ShouldBeInRange(5, 240);
    }

    [Fact]
    public async Task A_job_of_the_past_reads_as_a_story()
    {
        var job = (await Get("/api/jobs?outcome=repairedAndProved&sort=openedAt&take=1")).GetProperty("items")[0];
        var story = await Get($"/api/jobs/{job.GetProperty("id").GetString()}/report");
        story.GetProperty("story").GetProperty("outcome")[0].GetString()!.ShouldStartWith("Found:");
        story.ToString().ShouldContain("steps passed");
    }

    /// <summary>The demo as <c>./fehler demo</c> serves it.</summary>
    public sealed class WithHistory : Host
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Fehler:DemoHistory", "true");
        }
    }
}
