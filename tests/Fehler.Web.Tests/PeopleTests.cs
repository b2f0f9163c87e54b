using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Data;
using Fehler.Web.People;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fehler.Web.Tests;

/// <summary>Who may do what: first start, signing in and out, rights, PINs, tokens, second persons.</summary>
public sealed class PeopleTests(ClosedHost host) : IClassFixture<ClosedHost>
{
    [Fact]
    public async Task Nothing_is_answered_before_there_is_an_administrator_and_only_the_console_s_code_makes_one()
    {
        await using var fresh = new ClosedHost();
        using var visitor = new Visitor(fresh);
        (await visitor.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        (await visitor.SessionAsync()).GetProperty("state").GetString().ShouldBe("first");
        var first = new
        {
            code = "AAAA-BBBB-CCCC",
            name = "Eve",
            password = ClosedHost.Word,
        };
        (await visitor.PostAsync("/api/session/first", first)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        using var admin = await fresh.AdministratorAsync();
        (await admin.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        await visitor.SessionAsync();
        (await visitor.PostAsync("/api/session/first", first with { code = fresh.Code })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
    }

    /// <summary>An address that changes something and says nothing of rights would be open to whoever looks.</summary>
    [Fact]
    public void Every_address_that_is_no_reading_says_which_right_it_needs()
    {
        var open = new[] { "signIn", "signOut", "signInWithPin", "makeFirstAdministrator" };
        var endpoints = host.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>().ToList();
        endpoints.Count.ShouldBeGreaterThan(80);
        endpoints
            .Where(e => e.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Any(m => m != "GET" && m != "HEAD") == true)
            .Where(e => !open.Contains(e.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName))
            .Where(e => e.Metadata.GetMetadata<NeededRights>() is null)
            .Select(e => e.DisplayName)
            .ShouldBeEmpty();
    }

    [Fact]
    public void Only_what_is_needed_before_signing_in_is_for_anybody() =>
        host
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.Metadata.GetMetadata<IAllowAnonymous>() is not null)
            .Select(e => e.RoutePattern.RawText)
            .Distinct()
            .ShouldBe(
                [
                    "/api/openapi.json",
                    "/api/session/",
                    "/api/session/first",
                    "/api/session/pin",
                    "/api/health/live",
                    "/api/health/ready",
                    "{*path:regex(^(?!api/).*$)}",
                ],
                ignoreOrder: true
            );

    [Fact]
    public async Task Whoever_looks_only_reads_and_changes_nothing()
    {
        using var visitor = await host.PersonAsync("Lothar Ruhig");
        (await visitor.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        (await visitor.StatusAsync("/api/insight")).ShouldBe(HttpStatusCode.OK);
        var circuit = await Host.CircuitAsync(visitor.Http, "WP-301");
        var refused = await visitor.PostAsync("/api/jobs", new { circuitId = circuit, complaint = "Does not start" });
        refused.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await refused.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("electricians");
        (await visitor.PutAsync("/api/plan/intervals", new { rule = "screws", months = 12 })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await visitor.StatusAsync("/api/people")).ShouldBe(HttpStatusCode.Forbidden);
        (await visitor.StatusAsync("/api/security-events")).ShouldBe(HttpStatusCode.Forbidden);
        // Working something out changes nothing.
        (await visitor.PostAsync($"/api/circuits/{circuit}/operate", new { steps = Array.Empty<object>() })).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
    }

    [Fact]
    public async Task An_electrician_opens_jobs_but_plans_nothing_and_a_planner_the_other_way()
    {
        using var electrician = await host.PersonAsync("Elke Draht", false, "jobs");
        using var planner = await host.PersonAsync("Paul Kalender", false, "planning");
        var circuit = await Host.CircuitAsync(electrician.Http, "WP-301");
        var rule = (await planner.GetAsync("/api/plan/rules"))[0].GetProperty("id").GetString();
        var job = new { circuitId = circuit, complaint = "Does not start" };
        var months = new
        {
            rule,
            circuit = (Guid?)null,
            months = 7,
        };
        (await electrician.PostAsync("/api/jobs", job)).StatusCode.ShouldBe(HttpStatusCode.Created);
        (await planner.PostAsync("/api/jobs", job)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await planner.PutAsync("/api/plan/intervals", months)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await electrician.PutAsync("/api/plan/intervals", months)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task An_entry_carries_who_is_signed_in_whatever_name_came_with_it_and_on_what()
    {
        using var visitor = await host.PersonAsync("Ines Klemm", false, "jobs");
        var job = await Host.OpenJobAsync(visitor.Http, "WP-301");
        var answer = await visitor.PostAsync(
            $"/api/jobs/{job}/entries",
            new
            {
                type = "note",
                text = "Cover was off.",
                who = "Somebody Else",
                madeOn = "Another tablet",
                second = "Nobody",
            }
        );
        answer.EnsureSuccessStatusCode();
        var entries = (await visitor.GetAsync($"/api/jobs/{job}")).GetProperty("entries");
        foreach (var entry in entries.EnumerateArray().Select(e => e.GetProperty("entry")))
        {
            entry.GetProperty("who").GetString().ShouldBe("Ines Klemm");
            entry.GetProperty("madeOn").GetString().ShouldBe("another browser");
            entry.GetProperty("second").GetString().ShouldBe("");
        }
    }

    [Fact]
    public async Task Five_wrong_passwords_lock_a_person_and_the_right_one_no_longer_helps()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Vera Vergesslich", false, "jobs");
        using var thief = new Visitor(host);
        await thief.SessionAsync();
        for (var i = 0; i < 5; i++)
        {
            (
                await thief.PostAsync("/api/session", new { name = "Vera Vergesslich", password = $"guess number {i} of many" })
            ).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        }

        (await thief.PostAsync("/api/session", new { name = "Vera Vergesslich", password = ClosedHost.Word })).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        var people = await admin.GetAsync("/api/people?search=vera");
        people.GetProperty("items")[0].GetProperty("lockedUntil").GetDateTimeOffset().ShouldBeGreaterThan(DateTimeOffset.UtcNow);
        var events = await admin.GetAsync("/api/security-events?search=vera");
        events.GetProperty("items").EnumerateArray().Select(e => e.GetProperty("kind").GetString()).ShouldContain("person locked");
        events.ToString().ShouldNotContain("guess number");

        // A new password from an administrator unlocks; the sessions that were open have ended.
        var id = people.GetProperty("items")[0].GetProperty("id").GetString();
        (await admin.PutAsync($"/api/people/{id}/password", new { password = "another long word for vera" })).EnsureSuccessStatusCode();
        (await visitor.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        await thief.SignInAsync("Vera Vergesslich", "another long word for vera");
    }

    [Fact]
    public async Task A_stolen_cookie_is_worth_nothing_once_its_owner_has_signed_out()
    {
        using var visitor = await host.PersonAsync("Otto Offen", false, "jobs");
        using var thief = new Visitor(host);
        thief.SetCookie("fehler-session", visitor.Cookie("fehler-session")!);
        (await thief.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        (await visitor.DeleteAsync("/api/session")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await thief.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Signing_out_everywhere_and_a_changed_password_end_every_session()
    {
        using var here = await host.PersonAsync("Mia Mehrfach", false, "jobs");
        using var there = new Visitor(host);
        await there.SignInAsync("Mia Mehrfach", ClosedHost.Word);
        (await here.GetAsync("/api/session/all")).GetArrayLength().ShouldBe(2);
        (await here.DeleteAsync("/api/session/all")).EnsureSuccessStatusCode();
        (await there.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        await there.SignInAsync("Mia Mehrfach", ClosedHost.Word);
        (
            await there.PutAsync("/api/session/password", new { now = "not the present one", then = "a brand new long word" })
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (
            await there.PutAsync("/api/session/password", new { now = ClosedHost.Word, then = "a brand new long word" })
        ).EnsureSuccessStatusCode();
        (await there.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        await there.SignInAsync("Mia Mehrfach", "a brand new long word");
    }

    [Fact]
    public async Task Rights_taken_away_are_gone_in_the_sessions_that_are_open()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Rita Recht", false, "jobs");
        await Host.OpenJobAsync(visitor.Http, "WP-301");
        var id = (await admin.GetAsync("/api/people?search=rita")).GetProperty("items")[0].GetProperty("id").GetString();
        (await admin.PutAsync($"/api/people/{id}", new { rights = Array.Empty<string>() })).EnsureSuccessStatusCode();
        var circuit = await Host.CircuitAsync(visitor.Http, "WP-301");
        (await visitor.PostAsync("/api/jobs", new { circuitId = circuit, complaint = "Hums" })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
    }

    [Fact]
    public async Task A_PIN_is_enough_on_a_trusted_device_and_nowhere_else()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Pia Finger", false, "jobs");
        (await visitor.PutAsync("/api/session/pin", new { password = ClosedHost.Word, pin = "1234" })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await visitor.PutAsync("/api/session/pin", new { password = ClosedHost.Word, pin = "7301" })).EnsureSuccessStatusCode();

        using var elsewhere = new Visitor(host);
        await elsewhere.SessionAsync();
        (await elsewhere.PostAsync("/api/session/pin", new { name = "Pia Finger", pin = "7301" })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );

        (await admin.PostAsync("/api/devices", new { name = "Tablet, hall 2" })).EnsureSuccessStatusCode();
        (await admin.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        var session = await admin.SessionAsync();
        session.GetProperty("device").GetString().ShouldBe("Tablet, hall 2");
        session.GetProperty("withPin").EnumerateArray().Select(n => n.GetString()).ShouldContain("Pia Finger");
        (await admin.PostAsync("/api/session/pin", new { name = "Pia Finger", pin = "7302" })).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        (await admin.PostAsync("/api/session/pin", new { name = "Pia Finger", pin = "7301" })).EnsureSuccessStatusCode();
        var now = await admin.SessionAsync();
        now.GetProperty("name").GetString().ShouldBe("Pia Finger");

        var job = await Host.OpenJobAsync(admin.Http, "WP-301");
        (await admin.GetAsync($"/api/jobs/{job}"))
            .GetProperty("entries")[0]
            .GetProperty("entry")
            .GetProperty("madeOn")
            .GetString()
            .ShouldBe("Tablet, hall 2");

        // Trusted no more: whoever is signed in on it is out.
        using var second = new Visitor(host);
        await second.SignInAsync(ClosedHost.Administrator, ClosedHost.Word);
        var device = (await second.GetAsync("/api/devices"))
            .EnumerateArray()
            .First(d => d.GetProperty("name").GetString() == "Tablet, hall 2");
        (await second.DeleteAsync($"/api/devices/{device.GetProperty("id").GetString()}")).EnsureSuccessStatusCode();
        (await admin.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_token_does_what_it_was_given_no_more_than_its_person_and_nothing_once_taken_back()
    {
        using var visitor = await host.PersonAsync("Tim Takt", false, "jobs");
        (await visitor.PostAsync("/api/tokens", new { name = "logger", rights = new[] { "administration" } })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        var reads = await Made(visitor, "reader", []);
        var works = await Made(visitor, "logger", ["jobs"]);
        using var program = host.CreateClient();
        program.DefaultRequestHeaders.Authorization = new("Bearer", reads.Key);
        var circuit = await Host.CircuitAsync(program, "WP-301");
        var body = new { circuitId = circuit, complaint = "Hums" };
        (await program.PostAsJsonAsync("/api/jobs", body, Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        program.DefaultRequestHeaders.Authorization = new("Bearer", works.Key);
        var opened = await program.PostAsJsonAsync("/api/jobs", body, Host.Cancellation);
        opened.StatusCode.ShouldBe(HttpStatusCode.Created);
        var entry = (await opened.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("entries")[0].GetProperty("entry");
        (entry.GetProperty("who").GetString(), entry.GetProperty("madeOn").GetString()).ShouldBe(("Tim Takt", "program: logger"));
        (await visitor.GetAsync("/api/tokens")).ToString().ShouldNotContain(works.Key);

        (await visitor.DeleteAsync($"/api/tokens/{works.Id}")).EnsureSuccessStatusCode();
        (await program.GetAsync(new Uri("/api/circuits", UriKind.Relative), Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
    }

    private static async Task<(string Id, string Key)> Made(Visitor visitor, string name, string[] rights)
    {
        var made = await visitor.PostAsync("/api/tokens", new { name, rights });
        made.EnsureSuccessStatusCode();
        var json = await made.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        return (json.GetProperty("token").GetProperty("id").GetString()!, json.GetProperty("key").GetString()!);
    }

    [Fact]
    public async Task An_apprentice_s_live_tests_need_a_second_person_who_stands_by_with_a_word_of_their_own()
    {
        using var senior = await host.PersonAsync("Sven Meister", false, "jobs");
        using var apprentice = await host.PersonAsync("Lea Lernt", true, "jobs");
        var job = await Host.OpenJobAsync(apprentice.Http, "WP-301");
        var entry = new { id = Guid.NewGuid(), type = "liveWorkAcknowledged" };
        var alone = await apprentice.PostAsync($"/api/jobs/{job}/entries", entry);
        alone.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await alone.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("title")
            .GetString()
            .ShouldBe("Second person needed");

        (await apprentice.GetAsync("/api/people/names")).ToString().ShouldContain("Sven Meister");
        var stands = new
        {
            entry = entry.id,
            name = "Lea Lernt",
            password = ClosedHost.Word,
        };
        (await apprentice.PostAsync($"/api/jobs/{job}/second-person", stands)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await apprentice.PostAsync($"/api/jobs/{job}/second-person", stands with { name = "Sven Meister" })).EnsureSuccessStatusCode();
        (await apprentice.PostAsync($"/api/jobs/{job}/entries", entry)).EnsureSuccessStatusCode();
        var last = (await apprentice.GetAsync($"/api/jobs/{job}")).GetProperty("entries").EnumerateArray().Last().GetProperty("entry");
        (last.GetProperty("who").GetString(), last.GetProperty("second").GetString()).ShouldBe(("Lea Lernt", "Sven Meister"));
        (await senior.GetAsync($"/api/jobs/{job}/report")).ToString().ShouldContain("Lea Lernt with Sven Meister");

        // What needs nobody beside it does not ask.
        (await apprentice.PostAsync($"/api/jobs/{job}/entries", new { type = "note", text = "Lamp is out." })).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task Who_is_taken_out_can_sign_in_no_more_and_the_name_can_be_replaced_everywhere()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Gustav Geht", false, "jobs");
        var job = await Host.OpenJobAsync(visitor.Http, "WP-301");
        (await visitor.PostAsync($"/api/jobs/{job}/entries", new { type = "note", text = "Smells burnt." })).EnsureSuccessStatusCode();
        var id = (await admin.GetAsync("/api/people?search=gustav")).GetProperty("items")[0].GetProperty("id").GetString();
        (await admin.DeleteAsync($"/api/people/{id}?replace=Former%20colleague")).EnsureSuccessStatusCode();

        (await visitor.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        await visitor.SessionAsync();
        (await visitor.PostAsync("/api/session", new { name = "Gustav Geht", password = ClosedHost.Word })).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        var seen = (await admin.GetAsync($"/api/jobs/{job}")).ToString();
        seen.ShouldNotContain("Gustav");
        seen.ShouldContain("Former colleague");
        (await admin.GetAsync("/api/jobs?search=gustav")).GetProperty("total").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task The_last_administrator_stays_one()
    {
        using var admin = await host.AdministratorAsync();
        var id = (await admin.GetAsync($"/api/people?search=hollmann")).GetProperty("items")[0].GetProperty("id").GetString();
        var refused = await admin.PutAsync($"/api/people/{id}", new { rights = new[] { "jobs" } });
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("only administrator");
        (await admin.DeleteAsync($"/api/people/{id}")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Theory]
    [InlineData("short")]
    [InlineData("aaaaaaaaaaaaaaaa")]
    [InlineData("abcdefghijklmnop")]
    [InlineData("password123456")]
    [InlineData("Qwertyuiop123")]
    [InlineData("ines klemm 1")]
    public void Passwords_that_are_tried_first_are_refused(string password) =>
        PasswordRules.Refuse(password, "Ines Klemm").ShouldNotBeNull();

    [Theory]
    [InlineData("four wet planks in a row")]
    [InlineData("äußerst lange leiter")]
    [InlineData("x9!kdf83ls;dq")]
    public void Long_ones_of_any_signs_are_taken(string password) => PasswordRules.Refuse(password, "Ines Klemm").ShouldBeNull();

    [Theory]
    [InlineData("123", true)]
    [InlineData("1111", true)]
    [InlineData("4321", true)]
    [InlineData("12a4", true)]
    [InlineData("7301", false)]
    public void A_PIN_is_no_row_of_digits(string pin, bool isRefused) => (PasswordRules.RefusePin(pin) is not null).ShouldBe(isRefused);

    [Fact]
    public async Task An_electrician_takes_down_a_new_circuit_but_changes_none_of_the_register()
    {
        using var electrician = await host.PersonAsync("Nora Neu", false, "jobs");
        var circuit = await Host.CircuitAsync(electrician.Http, "WP-301");
        var file = await electrician.Http.GetStringAsync(new Uri($"/api/circuits/{circuit}/file", UriKind.Relative), Host.Cancellation);
        using var changed = new StringContent(file.Replace("\"title\"", "\"title\" ", StringComparison.Ordinal));
        changed.Headers.ContentType = new("application/json");
        (await electrician.Http.PostAsync(new Uri("/api/circuits", UriKind.Relative), changed, Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
        using var other = new StringContent(file.Replace("WP-301", "WP-399", StringComparison.Ordinal));
        other.Headers.ContentType = new("application/json");
        (await electrician.Http.PostAsync(new Uri("/api/circuits", UriKind.Relative), other, Host.Cancellation)).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
    }
}
