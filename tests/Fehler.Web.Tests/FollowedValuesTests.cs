using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Fehler.Web.Tests;

/// <summary>How a closed job's values, trips and what was told of it reach trends and plan; and what an older version left is drawn.</summary>
public class FollowedValuesTests
{
    private static async Task<JsonElement> Added(HttpClient client, string job, object entry)
    {
        var answer = await client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Host.Cancellation));
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("job");
    }

    /// <summary>Finds, repairs, proves and closes; the currents of the first run are taken in the function test.</summary>
    private static async Task Closed(HttpClient client, string tag, string unit, string fault, double amps = 0, string told = "")
    {
        var job = await Host.OpenJobAsync(client, tag);
        if (told.Length > 0)
        {
            await Added(
                client,
                job,
                new
                {
                    type = "told",
                    what = told,
                    device = "",
                }
            );
        }

        await Added(
            client,
            job,
            new
            {
                type = "finding",
                unit,
                fault,
            }
        );
        await Added(
            client,
            job,
            new
            {
                type = "repair",
                unit,
                action = "put right",
                parts = Array.Empty<string>(),
                minutes = 5,
                notIsolated = "A setting or a reset from outside",
            }
        );
        var view = await Added(client, job, new { type = "liveWorkAcknowledged" });
        foreach (var step in view.GetProperty("functionTest").EnumerateArray().Select(s => s.GetProperty("step")).ToList())
        {
            await Added(
                client,
                job,
                new
                {
                    type = "functionTested",
                    step = step.GetProperty("id").GetString(),
                    passed = true,
                    seen = new { },
                }
            );
            foreach (var current in amps > 0 ? step.GetProperty("currents").EnumerateArray().ToList() : [])
            {
                var terminal = current.GetProperty("terminal").GetString();
                await Added(
                    client,
                    job,
                    new
                    {
                        type = "readingAsTyped",
                        quantity = "amps",
                        from = terminal,
                        to = terminal,
                        held = Array.Empty<object>(),
                        typed = amps.ToString(System.Globalization.CultureInfo.InvariantCulture),
                    }
                );
            }
        }

        foreach (var item in view.GetProperty("restore").EnumerateArray().Select(i => i.GetProperty("id").GetString()).ToList())
        {
            await Added(client, job, new { type = "restored", item });
        }

        await Added(
            client,
            job,
            new
            {
                type = "closed",
                outcome = "repairedAndProved",
                text = "",
                minutesDown = 20,
            }
        );
    }

    private static async Task<List<JsonElement>> Plan(HttpClient client, string circuit) =>
        [
            .. (await client.GetFromJsonAsync<JsonElement>($"/api/plan?circuit={circuit}&take=200", Host.Cancellation))
                .GetProperty("items")
                .EnumerateArray(),
        ];

    [Fact]
    public async Task Currents_of_a_function_test_stand_in_the_trends_and_its_live_tests_count_as_done()
    {
        using var host = new Host();
        using var client = host.CreateClient();
        var circuit = await Host.CircuitAsync(client, "IN-101");
        await Closed(client, "IN-101", "S2", "S2/13-14-open", amps: 5.5);
        var trends = (await client.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/trends", Host.Cancellation)).EnumerateArray();
        var running = trends.Where(t => t.GetProperty("what").GetString() == "runningAmps").ToList();
        running.Count.ShouldBe(3);
        running.ShouldAllBe(t =>
            t.GetProperty("state").GetString() == "M1 runs" && t.GetProperty("points")[0].GetProperty("value").GetDouble() == 5.5
        );
        var tested = (await Plan(client, circuit)).Where(i => i.GetProperty("rule").GetString() is "emergency-stop" or "overload").ToList();
        tested.Count.ShouldBe(2);
        tested.ShouldAllBe(i => i.GetProperty("last").ValueKind == JsonValueKind.String);
        (await Plan(client, circuit))
            .Single(i => i.GetProperty("rule").GetString() == "panel")
            .GetProperty("last")
            .ValueKind.ShouldBe(JsonValueKind.Null);
    }

    [Fact]
    public async Task Two_trips_within_a_month_ask_for_the_currents_and_water_for_the_insulation()
    {
        using var host = new Host();
        using var client = host.CreateClient();
        var circuit = await Host.CircuitAsync(client, "WP-304");
        await Closed(client, "WP-304", "F2", "F2/tripped");
        (await Plan(client, circuit)).ShouldAllBe(i => i.GetProperty("why").GetString() == "");
        await Closed(client, "WP-304", "F2", "F2/tripped", told: "water");
        var plan = await Plan(client, circuit);
        string Why(string rule) => plan.Single(i => i.GetProperty("rule").GetString() == rule).GetProperty("why").GetString()!;
        Why("currents").ShouldContain("second trip within a month");
        Why("insulation").ShouldContain("water");
        Why("panel").ShouldBe("");
    }

    /// <summary>A file of an older version has no outlines, and its jobs gave no values: both are drawn while the service runs.</summary>
    [Fact]
    public async Task What_an_older_version_left_is_drawn()
    {
        using var host = new Host();
        string circuit;
        using (var client = host.CreateClient())
        {
            circuit = await Host.CircuitAsync(client, "IN-101");
            await Closed(client, "IN-101", "S2", "S2/13-14-open", amps: 5.5);
        }

        await host.StopAsync();
        await using (var sqlite = new SqliteConnection($"Data Source={host.Database};Pooling=False"))
        {
            await sqlite.OpenAsync(Host.Cancellation);
            await using var command = sqlite.CreateCommand();
            command.CommandText =
                "UPDATE Circuits SET Outline = '', OutlineVersion = 0, Conditions = '[]'; UPDATE Jobs SET DrawnVersion = 0; DELETE FROM Measured;";
            await command.ExecuteNonQueryAsync(Host.Cancellation);
        }

        using var again = new SameFileHost(host.Database);
        using var anew = again.CreateClient();
        async Task<(int Rules, int Trends)> Drawn() =>
            (
                (await anew.GetFromJsonAsync<JsonElement>("/api/plan?kind=upkeep&take=1", Host.Cancellation))
                    .GetProperty("total")
                    .GetInt32(),
                (await anew.GetFromJsonAsync<JsonElement>($"/api/circuits/{circuit}/trends", Host.Cancellation)).GetArrayLength()
            );
        var now = await Drawn();
        for (var tries = 0; (now.Rules < 200 || now.Trends < 3) && tries < 240; tries++)
        {
            await Task.Delay(250, Host.Cancellation);
            now = await Drawn();
        }

        now.Rules.ShouldBeGreaterThan(200);
        now.Trends.ShouldBeGreaterThanOrEqualTo(3);
    }
}
