using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Fehler.Web.Service;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;

namespace Fehler.Web.Tests;

/// <summary>
/// What an attacker tries first, point by point beside the application security verification standard (OWASP ASVS 4.0, level 2; from memory;
/// docs/security.md has the list).
/// </summary>
public sealed partial class SecurityTests(Host demo, ClosedHost closed) : IClassFixture<Host>, IClassFixture<ClosedHost>
{
    [Fact]
    public async Task Another_site_s_page_changes_nothing_through_a_browser_that_is_signed_in()
    {
        using var visitor = await closed.PersonAsync("Karl Klick", false, "jobs");
        var circuit = await Host.CircuitAsync(visitor.Http, "WP-301");
        visitor.Http.DefaultRequestHeaders.Remove("X-XSRF-TOKEN");
        var refused = await visitor.PostAsync("/api/jobs", new { circuitId = circuit, complaint = "Forged" });
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation))
            .GetProperty("title")
            .GetString()
            .ShouldBe("Page out of date");
        await visitor.SessionAsync();
        (await visitor.PostAsync("/api/jobs", new { circuitId = circuit, complaint = "Meant" })).StatusCode.ShouldBe(
            HttpStatusCode.Created
        );
    }

    [Fact]
    public async Task A_page_from_elsewhere_changes_nothing_in_the_demo_either()
    {
        using var http = demo.CreateClient();
        http.DefaultRequestHeaders.Add("Origin", "http://elsewhere.example");
        var circuit = await Host.CircuitAsync(http, "WP-301");
        var body = new { circuitId = circuit, complaint = "Forged" };
        (await http.PostAsJsonAsync("/api/jobs", body, Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task The_demo_answers_its_own_machine_only()
    {
        var (here, there) = (await From("127.0.0.1"), await From("192.0.2.7"));
        here.ShouldBe(200);
        there.ShouldBe(403);

        async Task<int> From(string address) => (
                await demo.Server.SendAsync(
                    context =>
                    {
                        context.Request.Path = "/api/circuits";
                        context.Connection.RemoteIpAddress = IPAddress.Parse(address);
                    },
                    Host.Cancellation
                )
            ).Response.StatusCode;
    }

    [Theory]
    [InlineData("/")]
    [InlineData("/api/circuits")]
    [InlineData("/api/nothing-here")]
    public async Task Every_answer_tells_browsers_what_is_allowed(string path)
    {
        using var http = demo.CreateClient();
        var answer = await http.GetAsync(new Uri(path, UriKind.Relative), Host.Cancellation);
        var policy = answer.Headers.GetValues("Content-Security-Policy").Single();
        Directive(policy, "script-src").ShouldBe("'self' 'wasm-unsafe-eval'");
        Directive(policy, "frame-ancestors").ShouldBe("'none'");
        Directive(policy, "object-src").ShouldBe("'none'");
        Directive(policy, "base-uri").ShouldBe("'none'");
        answer.Headers.GetValues("X-Content-Type-Options").ShouldBe(["nosniff"]);
        answer.Headers.GetValues("X-Frame-Options").ShouldBe(["DENY"]);
        if (path.StartsWith("/api", StringComparison.Ordinal))
        {
            answer.Headers.CacheControl!.NoStore.ShouldBeTrue();
        }
    }

    private static string Directive(string policy, string name) =>
        policy.Split(';', StringSplitOptions.TrimEntries).Single(d => d.StartsWith(name, StringComparison.Ordinal))[(name.Length + 1)..];

    [Fact]
    public async Task The_page_has_no_script_of_its_own_in_it()
    {
        using var http = demo.CreateClient();
        var page = await http.GetStringAsync(new Uri("/", UriKind.Relative), Host.Cancellation);
        Scripts().Matches(page).ShouldAllBe(s => s.Groups[1].Value.Contains("src=") && s.Groups[2].Value.Trim().Length == 0);
        page.ShouldNotMatch(" on[a-z]+=");
    }

    [GeneratedRegex("<script([^>]*)>(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex Scripts();

    [Fact]
    public async Task A_name_with_a_script_in_it_stays_text()
    {
        const string Evil = "<img src=x onerror=alert(1)>";
        using var http = demo.CreateClient();
        var job = await Host.OpenJobAsync(http, "WP-301");
        (
            await http.PostAsJsonAsync(
                $"/api/jobs/{job}/entries",
                new
                {
                    type = "note",
                    text = Evil,
                    who = Evil,
                },
                Host.Cancellation
            )
        ).EnsureSuccessStatusCode();
        var answer = await http.GetAsync(new Uri($"/api/jobs/{job}", UriKind.Relative), Host.Cancellation);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/json");
        // A browser that is told so takes it for nothing else.
        answer.Headers.GetValues("X-Content-Type-Options").ShouldBe(["nosniff"]);
        using var label = await http.GetAsync(
            new Uri($"/api/circuits/{await Host.CircuitAsync(http, "WP-301")}/label.svg", UriKind.Relative),
            Host.Cancellation
        );
        (await label.Content.ReadAsStringAsync(Host.Cancellation)).ShouldNotContain("<script");
    }

    [Fact]
    public async Task Tries_to_sign_in_are_few_a_minute_from_one_address()
    {
        await using var strict = new StrictHost();
        using var visitor = new Visitor(strict);
        await visitor.SessionAsync();
        var answers = new List<HttpResponseMessage>();
        for (var i = 0; i < 4; i++)
        {
            answers.Add(await visitor.PostAsync("/api/session", new { name = "anybody", password = "any word that is long" }));
        }

        answers.Take(3).ShouldAllBe(a => a.StatusCode == HttpStatusCode.Unauthorized);
        answers[3].StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        answers[3].Headers.RetryAfter!.Delta!.Value.TotalSeconds.ShouldBeInRange(1, 60);
    }

    public sealed class StrictHost : ClosedHost
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Fehler:SignInsPerMinute", "3");
        }
    }

    [Theory]
    [InlineData("Bearer nonsense")]
    [InlineData("Bearer ")]
    [InlineData("Basic dXNlcjpwYXNz")]
    public async Task A_token_that_is_none_lets_nobody_in(string header)
    {
        using var http = closed.CreateClient();
        http.DefaultRequestHeaders.TryAddWithoutValidation("Authorization", header);
        var answer = await http.GetAsync(new Uri("/api/circuits", UriKind.Relative), Host.Cancellation);
        answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        answer.Headers.WwwAuthenticate.Single().Scheme.ShouldBe("Bearer");
    }

    [Fact]
    public async Task Whether_there_is_somebody_of_a_name_is_told_to_nobody()
    {
        using var admin = await closed.AdministratorAsync();
        using var visitor = new Visitor(closed);
        await visitor.SessionAsync();
        var there = await visitor.PostAsync("/api/session", new { name = ClosedHost.Administrator, password = "not the right word" });
        var not = await visitor.PostAsync("/api/session", new { name = "Nobody Known", password = "not the right word" });
        (await Detail(there)).ShouldBe(await Detail(not));

        static async Task<string> Detail(HttpResponseMessage answer) =>
            (await answer.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("detail").GetString()!;
    }

    [Fact]
    public async Task Cookies_are_out_of_reach_of_scripts_and_other_sites()
    {
        using var http = closed.CreateDefaultClient();
        await (await closed.AdministratorAsync()).SessionAsync();
        var answer = await http.PostAsJsonAsync(
            "/api/session",
            new { name = ClosedHost.Administrator, password = ClosedHost.Word },
            Host.Cancellation
        );
        answer.EnsureSuccessStatusCode();
        var cookie = answer.Headers.GetValues("Set-Cookie").Last(c => c.StartsWith("fehler-session=", StringComparison.Ordinal));
        cookie.ShouldContain("httponly");
        cookie.ShouldContain("samesite=strict");
        cookie.ShouldNotContain("expires");
    }

    [Fact]
    public async Task Nightly_backups_are_read_back_and_the_oldest_go()
    {
        var folder = Directory.CreateTempSubdirectory("fehler-nightly-").FullName;
        try
        {
            using var http = demo.CreateClient();
            (await http.GetAsync(new Uri("/api/circuits", UriKind.Relative), Host.Cancellation)).EnsureSuccessStatusCode();
            var time = new Clock();
            using var nightly = new NightlyBackup(
                new BackupSettings(demo.Database, folder, 2, 2),
                time,
                Microsoft.Extensions.Logging.Abstractions.NullLogger<NightlyBackup>.Instance
            );
            nightly.IsDue().ShouldBeTrue();
            for (var i = 0; i < 3; i++)
            {
                nightly.Make();
                time.Now += TimeSpan.FromDays(1);
            }

            nightly.Problem.ShouldBeNull();
            nightly.Made().Count.ShouldBe(2);
            Fehler.Data.DatabaseBackup.Read(nightly.Made()[0].FullName).Circuits.ShouldBeGreaterThan(5);
            using var blocked = new NightlyBackup(
                new BackupSettings(demo.Database, Path.Combine(nightly.Made()[0].FullName, "below a file"), 2, 2),
                time,
                Microsoft.Extensions.Logging.Abstractions.NullLogger<NightlyBackup>.Instance
            );
            blocked.Make();
            blocked.Problem.ShouldNotBeNull();
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 1, 2, 5, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
