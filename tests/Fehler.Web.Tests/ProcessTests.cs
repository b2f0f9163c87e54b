using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.RegularExpressions;
using Fehler.Core.Operation;
using Microsoft.Data.Sqlite;

namespace Fehler.Web.Tests;

/// <summary>The service as a process: what it cannot start with it says in one sentence, and its exit code is not 0.</summary>
public sealed class ProcessTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-process-").FullName;

    [Fact]
    public async Task A_file_that_is_no_database_ends_the_start_with_one_sentence()
    {
        var file = Path.Combine(_folder, "plant.db");
        await File.WriteAllTextAsync(file, string.Concat(Enumerable.Repeat("minutes of a meeting\n", 500)), Host.Cancellation);
        var before = await File.ReadAllBytesAsync(file, Host.Cancellation);
        var (code, said) = await StartedAndEnded(file);
        code.ShouldBe(1);
        said.ShouldContain("plant.db");
        said.ShouldContain("no database");
        (await File.ReadAllBytesAsync(file, Host.Cancellation)).ShouldBe(before);
    }

    [Fact]
    public async Task A_folder_in_the_place_of_the_file_ends_the_start()
    {
        var file = Path.Combine(_folder, "plant.db");
        Directory.CreateDirectory(file);
        var (code, said) = await StartedAndEnded(file);
        code.ShouldBe(1);
        said.ShouldContain(file);
    }

    [Fact]
    public async Task A_file_of_a_newer_version_ends_the_start()
    {
        var file = Path.Combine(_folder, "plant.db");
        await using (var first = await Running.OnAsync(file))
        {
            (await first.AnswerAsync("/api/health/ready")).ShouldBe(HttpStatusCode.OK);
        }

        await using (var sqlite = new SqliteConnection($"Data Source={file};Pooling=False"))
        {
            await sqlite.OpenAsync(Host.Cancellation);
            await using var command = sqlite.CreateCommand();
            command.CommandText = "insert into __EFMigrationsHistory values ('29991231000000_FromTheFuture', '99.0')";
            await command.ExecuteNonQueryAsync(Host.Cancellation);
        }

        var (code, said) = await StartedAndEnded(file);
        code.ShouldBe(1);
        said.ShouldContain("newer");
    }

    [Fact]
    public async Task A_second_service_on_the_same_file_is_refused_and_the_first_goes_on()
    {
        var file = Path.Combine(_folder, "plant.db");
        await using var first = await Running.OnAsync(file);
        var (code, said) = await StartedAndEnded(file);
        code.ShouldBe(1);
        said.ShouldContain(file);
        (await first.AnswerAsync("/api/health/ready")).ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_file_is_for_its_owner_only()
    {
        var file = Path.Combine(_folder, "plant.db");
        await using var running = await Running.OnAsync(file);
        if (!OperatingSystem.IsWindows())
        {
            File.GetUnixFileMode(file).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        }
    }

    /// <summary>
    /// The only administrator has lost the password: whoever is at the machine gives a new one, beside the service that runs. What was there
    /// before no longer counts.
    /// </summary>
    [Fact]
    public async Task On_the_console_somebody_is_given_a_new_password_and_nobody_else_is_touched()
    {
        using var host = new ClosedHost();
        using var before = await host.AdministratorAsync();
        var (refused, why) = await StartedAndEnded(host.Database, "password", "Ada Nobody");
        refused.ShouldBe(1);
        why.ShouldContain($"There are: {ClosedHost.Administrator}");

        var (code, said) = await StartedAndEnded(host.Database, "password", ClosedHost.Administrator.ToUpperInvariant());
        code.ShouldBe(0);
        var password = Regex.Match(said, "with the password ([a-z0-9-]+) ").Groups[1].Value;
        password.Length.ShouldBeGreaterThan(20);
        (await before.StatusAsync("/api/circuits")).ShouldBe(HttpStatusCode.Unauthorized, "signed out everywhere");
        using var now = new Visitor(host);
        await now.SessionAsync();
        (await now.PostAsync("/api/session", new { name = ClosedHost.Administrator, password = ClosedHost.Word })).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        await now.SignInAsync(ClosedHost.Administrator, password);
        var log = await now.GetAsync("/api/security-events?take=20");
        log.GetProperty("items").ToString().ShouldContain("the console of this machine");
        log.ToString().ShouldNotContain(password);
    }

    [Fact]
    public async Task Where_nothing_was_ever_served_nobody_is_given_a_password()
    {
        var file = Path.Combine(_folder, "plant.db");
        var (code, said) = await StartedAndEnded(file, "password", "Ada");
        code.ShouldBe(1);
        said.ShouldContain("./fehler run");
        File.Exists(file).ShouldBeFalse();
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Starts the program and waits for its end. Of an error it says one line on the error output.</summary>
    private static async Task<(int Code, string Said)> StartedAndEnded(string file, params string[] arguments)
    {
        using var process = Service(file, FreePort(), arguments);
        var errors = process.StandardError.ReadToEndAsync(Host.Cancellation);
        var output = process.StandardOutput.ReadToEndAsync(Host.Cancellation);
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(Host.Cancellation);
        patience.CancelAfter(TimeSpan.FromSeconds(60));
        try
        {
            await process.WaitForExitAsync(patience.Token);
        }
        finally
        {
            if (!process.HasExited)
            {
                process.Kill();
            }
        }

        (await output).ShouldNotContain("   at ");
        if (process.ExitCode == 0)
        {
            return (0, await output);
        }

        var said = (await errors).Trim();
        said.Split('\n').Length.ShouldBe(1, said);
        return (process.ExitCode, said);
    }

    private static Process Service(string file, int port, params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Fehler.Web.dll"), .. arguments])
        {
            RedirectStandardError = true,
            RedirectStandardOutput = true,
        };
        start.Environment["Fehler__Database"] = file;
        start.Environment["ASPNETCORE_URLS"] = $"http://127.0.0.1:{port}";
        return Process.Start(start)!;
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    /// <summary>A service that has started.</summary>
    private sealed class Running(Process process, int port) : IAsyncDisposable
    {
        private readonly HttpClient _client = new() { BaseAddress = new Uri($"http://127.0.0.1:{port}") };

        public static async Task<Running> OnAsync(string file)
        {
            var port = FreePort();
            var running = new Running(Service(file, port), port);
            for (var tries = 0; tries < 300; tries++)
            {
                try
                {
                    await running.AnswerAsync("/api/openapi.json");
                    return running;
                }
                catch (HttpRequestException)
                {
                    await Task.Delay(200, Host.Cancellation);
                }
            }

            await running.DisposeAsync();
            throw new TimeoutException("The service did not start within a minute.");
        }

        public async Task<HttpStatusCode> AnswerAsync(string path)
        {
            using var answer = await _client.GetAsync(path, Host.Cancellation);
            return answer.StatusCode;
        }

        public async ValueTask DisposeAsync()
        {
            _client.Dispose();
            process.Kill();
            await process.WaitForExitAsync(CancellationToken.None);
            process.Dispose();
        }
    }
}
