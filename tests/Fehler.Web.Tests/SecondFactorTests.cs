using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Tests;

namespace Fehler.Web.Tests;

/// <summary>One-time codes beside the password, against the published vectors and as a thief would try them.</summary>
public sealed class SecondFactorTests(ClosedHost host) : IClassFixture<ClosedHost>
{
    /// <summary>
    /// RFC 6238, appendix B (SHA-1; the last six of the eight digits listed there, from memory): the reckoning of these tests is the published
    /// one.
    /// </summary>
    [Theory]
    [InlineData(59, "287082")]
    [InlineData(1111111109, "081804")]
    [InlineData(1111111111, "050471")]
    [InlineData(1234567890, "005924")]
    [InlineData(2000000000, "279037")]
    [InlineData(20000000000, "353130")]
    public void The_codes_of_these_tests_are_those_of_the_standard(long seconds, string code) =>
        OneTimeCode.Of("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ", DateTimeOffset.FromUnixTimeSeconds(seconds)).ShouldBe(code);

    [Fact]
    public async Task The_password_alone_no_longer_lets_in_and_a_code_does_so_once()
    {
        using var visitor = await host.PersonAsync("Zoe Zweifach", false, "jobs");
        var (key, spare) = await SetUpAsync(visitor);
        spare.Length.ShouldBe(8);
        (await visitor.SessionAsync()).GetProperty("hasCodes").GetBoolean().ShouldBeTrue();

        using var phone = new Visitor(host);
        var asked = await TryAsync(phone, "Zoe Zweifach");
        asked.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var problem = await asked.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        problem.GetProperty("needsCode").GetBoolean().ShouldBeTrue();
        (await phone.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);

        // The service counts codes of the last and the next minute too: this one is not that of setting up.
        var code = OneTimeCode.Of(key, DateTimeOffset.UtcNow.AddSeconds(30));
        (await TryAsync(phone, "Zoe Zweifach", code)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await phone.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);

        using var thief = new Visitor(host);
        (await TryAsync(thief, "Zoe Zweifach", code)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await TryAsync(thief, "Zoe Zweifach", spare[3])).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        using var second = new Visitor(host);
        (await TryAsync(second, "Zoe Zweifach", spare[3])).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await TryAsync(second, "Zoe Zweifach", spare[4])).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task Codes_cannot_be_tried_without_end_by_whoever_has_the_password()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Nina Neben", false, "jobs");
        var (key, spare) = await SetUpAsync(visitor);
        using var thief = new Visitor(host);
        foreach (var guess in new[] { "000000", "111111", "x", spare[0][..^1], "99999999999999999999999999999999" })
        {
            // Asked for a code in between: that is no right try, which would begin the count anew.
            (await TryAsync(thief, "Nina Neben")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            (await TryAsync(thief, "Nina Neben", guess)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        }

        var right = OneTimeCode.Of(key, DateTimeOffset.UtcNow.AddSeconds(30));
        (await TryAsync(thief, "Nina Neben", right)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        var events = (await admin.GetAsync("/api/security-events?search=nina")).ToString();
        events.ShouldContain("person locked");
        events.ShouldContain("one-time codes in force");
        events.ShouldContain("wrong one-time code");
        events.ShouldNotContain(key);
        events.ShouldNotContain("000000");

        // An administrator's new password is for a lost phone too.
        var row = (await admin.GetAsync("/api/people?search=nina")).GetProperty("items")[0];
        row.GetProperty("hasCodes").GetBoolean().ShouldBeTrue();
        var word = new { password = "another long word for nina" };
        (await admin.PutAsync($"/api/people/{row.GetProperty("id").GetString()}/password", word)).EnsureSuccessStatusCode();
        using var again = new Visitor(host);
        await again.SignInAsync("Nina Neben", word.password);
        (await again.SessionAsync()).GetProperty("hasCodes").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task A_key_counts_only_once_a_code_of_it_was_given_and_none_replaces_one_that_counts()
    {
        using var visitor = await host.PersonAsync("Karl Kern", false, "jobs");
        (await visitor.PutAsync("/api/session/codes", new { code = "123456" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await visitor.PostAsync("/api/session/codes", new { password = "not my own password" })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        var own = new { password = ClosedHost.Word };
        (await visitor.PostAsync("/api/session/codes", own)).EnsureSuccessStatusCode();
        (await visitor.PutAsync("/api/session/codes", new { code = "12345" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        using var elsewhere = new Visitor(host);
        await elsewhere.SignInAsync("Karl Kern", ClosedHost.Word);

        await SetUpAsync(visitor);
        var refused = await visitor.PostAsync("/api/session/codes", own);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync(Host.Cancellation)).ShouldContain("in force already");
        (await visitor.PostAsync("/api/session/codes/off", new { password = "not my own password" })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await visitor.PostAsync("/api/session/codes/off", own)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await elsewhere.SignInAsync("Karl Kern", ClosedHost.Word);
    }

    [Fact]
    public async Task A_tablet_of_the_crew_goes_on_with_name_and_PIN()
    {
        using var admin = await host.AdministratorAsync();
        using var visitor = await host.PersonAsync("Tom Tafel", false, "jobs");
        (await visitor.PutAsync("/api/session/pin", new { password = ClosedHost.Word, pin = "7301" })).EnsureSuccessStatusCode();
        await SetUpAsync(visitor);
        (await admin.PostAsync("/api/devices", new { name = "Tablet, kilns" })).EnsureSuccessStatusCode();
        (await admin.DeleteAsync("/api/session")).EnsureSuccessStatusCode();
        await admin.SessionAsync();
        (await admin.PostAsync("/api/session/pin", new { name = "Tom Tafel", pin = "7301" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        // The tablet is what one has; with the password alone it is not.
        (await TryAsync(admin, "Tom Tafel")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    private static async Task<(string Key, string[] Spare)> SetUpAsync(Visitor visitor)
    {
        var begun = await visitor.PostAsync("/api/session/codes", new { password = ClosedHost.Word });
        begun.EnsureSuccessStatusCode();
        var told = await begun.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation);
        told.GetProperty("picture").GetString()!.ShouldStartWith("data:image/svg+xml;base64,");
        var key = told.GetProperty("key").GetString()!.Replace(" ", "");
        var first = await visitor.PutAsync("/api/session/codes", new { code = OneTimeCode.Of(key, DateTimeOffset.UtcNow) });
        first.EnsureSuccessStatusCode();
        var codes = (await first.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("codes");
        return (key, [.. codes.EnumerateArray().Select(c => c.GetString()!)]);
    }

    private static async Task<HttpResponseMessage> TryAsync(Visitor visitor, string name, string? code = null)
    {
        await visitor.SessionAsync();
        var given = new
        {
            name,
            password = ClosedHost.Word,
            code,
        };
        return await visitor.PostAsync("/api/session", given);
    }
}
