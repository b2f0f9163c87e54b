using System.Net;
using Fehler.Data;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;

namespace Fehler.Web.Tests;

/// <summary>How long a session lasts, by a clock that the test moves; and sessions after a backup was put in place elsewhere.</summary>
public sealed class SessionTimesTests : IDisposable
{
    /// <summary>The service's clock.</summary>
    private sealed class Clock : TimeProvider
    {
        public TimeSpan Ahead { get; set; }

        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + Ahead;
    }

    private sealed class ClockedHost(Clock clock) : ClosedHost
    {
        protected override void ConfigureWebHost(Microsoft.AspNetCore.Hosting.IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.ConfigureTestServices(s => s.AddSingleton<TimeProvider>(clock));
        }
    }

    private sealed class RestoredHost(string database) : ClosedHost
    {
        public override string Database => database;
    }

    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-session-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>An hour of nothing ends it, and a day whatever is done (docs/security.md).</summary>
    [Fact]
    public async Task A_session_ends_after_an_hour_of_nothing_and_after_a_day_of_work()
    {
        var clock = new Clock();
        using var host = new ClockedHost(clock);
        using var idle = await host.AdministratorAsync();
        clock.Ahead += TimeSpan.FromMinutes(59);
        (await idle.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        clock.Ahead += TimeSpan.FromMinutes(59);
        (await idle.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        clock.Ahead += TimeSpan.FromMinutes(61);
        (await idle.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);

        using var busy = await host.AdministratorAsync();
        for (var hour = 0.5; hour < 24; hour += 0.5)
        {
            clock.Ahead += TimeSpan.FromMinutes(30);
            (await busy.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK, $"after {hour} h");
        }

        clock.Ahead += TimeSpan.FromMinutes(31);
        (await busy.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
    }

    /// <summary>People are in the backup with their words; the keys of their cookies are not.</summary>
    [Fact]
    public async Task On_another_machine_people_sign_in_again_with_the_words_that_they_had()
    {
        using var host = new ClosedHost();
        using var person = await host.PersonAsync("Rita Rest", false, "jobs");
        var backup = Path.Combine(_folder, "plant.backup");
        DatabaseBackup.Write(host.Database, backup);
        var elsewhere = Path.Combine(_folder, "elsewhere.db");
        DatabaseBackup.Restore(backup, elsewhere);

        using var other = new RestoredHost(elsewhere);
        using var old = new Visitor(other);
        old.SetCookie("fehler-session", person.Cookie("fehler-session")!);
        (await old.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized);
        using var again = new Visitor(other);
        await again.SignInAsync("Rita Rest", ClosedHost.Word);
        var session = await again.SessionAsync();
        session.GetProperty("rights").EnumerateArray().Select(r => r.GetString()).ShouldBe(["jobs"]);
        (await again.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.OK);
        (
            await again.PostAsync(
                "/api/session/first",
                new
                {
                    code = "AAAA-BBBB-CCCC",
                    name = "Second",
                    password = ClosedHost.Word,
                }
            )
        ).IsSuccessStatusCode.ShouldBeFalse();
    }
}
