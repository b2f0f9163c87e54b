using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Data;
using Fehler.Web.Problems;
using Fehler.Web.Service;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;

namespace Fehler.Web.Tests;

/// <summary>What keeps the service running for years: configuration, logs, a proxy before it, disks that fill, names taken out of records.</summary>
public sealed class KeepingTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-keeping-").FullName;

    /// <summary>Codes of SQLite's results (sqlite.org, result and error codes): 13 full, 8 read-only, 5 and 6 busy, 11 damaged.</summary>
    [Theory]
    [InlineData(13, 507, "disk of the service is full")]
    [InlineData(8, 507, "cannot write")]
    [InlineData(5, 503, "another program")]
    [InlineData(6, 503, "another program")]
    [InlineData(11, 500, "cannot read its file")]
    [InlineData(1, 500, "trace id")]
    public async Task What_stands_in_the_way_of_writing_is_said_as_it_is(int code, int status, string said)
    {
        var problems = new Said();
        var handler = new ProblemHandler(problems, NullLogger<ProblemHandler>.Instance);
        var context = new DefaultHttpContext();
        var wrapped = new DbUpdateException("saving failed", new SqliteException("from the library", code));
        (await handler.TryHandleAsync(context, wrapped, Host.Cancellation)).ShouldBeTrue();
        context.Response.StatusCode.ShouldBe(status);
        problems.Last!.ProblemDetails.Detail!.ShouldContain(said);
        problems.Last.ProblemDetails.Detail!.ShouldNotContain("from the library");
    }

    private sealed class Said : IProblemDetailsService
    {
        public ProblemDetailsContext? Last { get; private set; }

        public ValueTask WriteAsync(ProblemDetailsContext context)
        {
            Last = context;
            return ValueTask.CompletedTask;
        }

        public ValueTask<bool> TryWriteAsync(ProblemDetailsContext context)
        {
            Last = context;
            return ValueTask.FromResult(true);
        }
    }

    [Fact]
    public async Task The_configuration_file_counts_and_logs_go_to_files_without_what_was_typed()
    {
        var file = Path.Combine(_folder, "fehler.json");
        var logs = Path.Combine(_folder, "logs");
        await File.WriteAllTextAsync(
            file,
            JsonSerializer.Serialize(new { Fehler = new { IdleMinutes = 17, LogFolder = logs } }),
            Host.Cancellation
        );
        await using (var configured = new Configured(file))
        {
            using var visitor = new Visitor(configured);
            (await visitor.SessionAsync()).GetProperty("idleMinutes").GetDouble().ShouldBe(17);
            await visitor.PostAsync("/api/session", new { name = "Somebody", password = "a word that nobody may read" });
        }

        var log = Directory.GetFiles(logs, "fehler-*.log").ShouldHaveSingleItem();
        var lines = await File.ReadAllLinesAsync(log, Host.Cancellation);
        lines.ShouldNotBeEmpty();
        lines.ShouldAllBe(line => line.Contains("\"Timestamp\"", StringComparison.Ordinal));
        string.Join('\n', lines).ShouldNotContain("a word that nobody may read");
        string.Join('\n', lines).ShouldNotContain("XSRF");
    }

    public sealed class Configured(string file) : ClosedHost
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Fehler:Configuration", file);
        }
    }

    /// <summary>Whoever is not the proxy could otherwise give itself any address, and get round the limit on tries.</summary>
    [Theory]
    [InlineData("10.0.0.5", "192.0.2.44")]
    [InlineData("10.0.0.6", "10.0.0.6")]
    public async Task Only_a_proxy_that_is_named_is_believed_where_a_visitor_comes_from(string connection, string noted)
    {
        await using var behind = new BehindProxy();
        using var admin = await behind.AdministratorAsync();
        var answer = await behind.Server.SendAsync(
            context =>
            {
                context.Request.Method = "POST";
                context.Request.Path = "/api/session";
                context.Request.Headers["X-Forwarded-For"] = "192.0.2.44";
                context.Request.ContentType = "application/json";
                context.Request.Body = new MemoryStream("""{"name":"Nobody Here","password":"a long enough word"}"""u8.ToArray());
                context.Connection.RemoteIpAddress = IPAddress.Parse(connection);
            },
            Host.Cancellation
        );
        answer.Response.StatusCode.ShouldBe(401);
        var events = await admin.GetAsync("/api/security-events?search=nobody");
        events.GetProperty("items")[0].GetProperty("address").GetString().ShouldBe(noted);
    }

    public sealed class BehindProxy : ClosedHost
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Fehler:Proxies:0", "10.0.0.5");
        }
    }

    [Fact]
    public void Memory_is_shared_as_configured_or_by_what_the_machine_has()
    {
        var given = new ConfigurationBuilder()
            .AddInMemoryCollection([new("Fehler:CircuitMegabytes", "77"), new("Fehler:SessionMegabytes", "33")])
            .Build();
        MemoryShares.From(given).ShouldBe(new MemoryShares(77_000_000, 33_000_000));
        var usual = MemoryShares.From(new ConfigurationBuilder().Build());
        usual.CircuitBytes.ShouldBeInRange(160_000_000, 1_500_000_000);
        usual.SessionBytes.ShouldBeInRange(80_000_000, 750_000_000);
    }

    [Fact]
    public async Task A_name_is_replaced_in_upkeep_follow_ups_and_lists_too()
    {
        await using var closed = new ClosedHost();
        using var admin = await closed.AdministratorAsync();
        using var leaves = await closed.PersonAsync("Udo Unterwegs", false, "jobs", "planning");
        var circuit = await Host.CircuitAsync(leaves.Http, "WP-301");
        (
            await leaves.PostAsync(
                $"/api/circuits/{circuit}/follow-ups",
                new
                {
                    text = "Order a coil",
                    due = "2030-01-02",
                    who = "x",
                }
            )
        ).EnsureSuccessStatusCode();
        const string rule = "panel";
        var work = await leaves.PostAsync(
            $"/api/circuits/{circuit}/work",
            new
            {
                rule,
                text = "done",
                minutes = 5,
            }
        );
        work.EnsureSuccessStatusCode();
        (await work.Content.ReadFromJsonAsync<JsonElement>(Host.Cancellation)).GetProperty("who").GetString().ShouldBe("Udo Unterwegs");
        var id = (await admin.GetAsync("/api/people?search=udo")).GetProperty("items")[0].GetProperty("id").GetString();
        (await admin.DeleteAsync($"/api/people/{id}?replace=Former%20colleague%201")).EnsureSuccessStatusCode();

        using var scope = closed.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<FehlerDb>();
        (await db.FollowUps.Select(f => f.Who).ToListAsync(Host.Cancellation)).ShouldContain("Former colleague 1");
        (await db.Work.Select(w => w.Who).ToListAsync(Host.Cancellation)).ShouldContain("Former colleague 1");
        (await db.FollowUps.AnyAsync(f => f.Who.Contains("Udo"), Host.Cancellation)).ShouldBeFalse();
        (await db.SecurityEvents.AnyAsync(e => e.Who.Contains("Udo") || e.By.Contains("Udo"), Host.Cancellation)).ShouldBeFalse();
        // Nothing is theirs any more: the name is free.
        (await admin.PostAsync("/api/people", new { name = "Udo Unterwegs", password = ClosedHost.Word })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
    }

    [Fact]
    public async Task How_the_service_is_kept_is_told_to_administrators()
    {
        await using var closed = new ClosedHost();
        using var admin = await closed.AdministratorAsync();
        var service = await admin.GetAsync("/api/service");
        service.GetProperty("megabytes").GetDouble().ShouldBeGreaterThan(0);
        service.GetProperty("backup").GetString()!.ShouldContain("./fehler backup");
        using var looks = await closed.PersonAsync("Lara Liest");
        (await looks.StatusAsync("/api/service")).ShouldBe(HttpStatusCode.Forbidden);
    }

    [Theory]
    [InlineData("/api/jobs")]
    [InlineData("/api/circuits")]
    [InlineData("/api/people")]
    [InlineData("/api/tokens")]
    public async Task What_is_no_request_at_all_is_refused_in_a_sentence(string path)
    {
        await using var closed = new ClosedHost();
        using var admin = await closed.AdministratorAsync();
        using var nonsense = new StringContent("{\"name\": [", System.Text.Encoding.UTF8, "application/json");
        var answer = await admin.Http.PostAsync(new Uri(path, UriKind.Relative), nonsense, Host.Cancellation);
        ((int)answer.StatusCode).ShouldBeInRange(400, 422);
        (await answer.Content.ReadAsStringAsync(Host.Cancellation)).ShouldNotContain("   at ");
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);
}
