using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
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

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Starts the service and waits for its end. What it says on the error output is one line.</summary>
    private static async Task<(int Code, string Said)> StartedAndEnded(string file)
    {
        using var process = Service(file, FreePort());
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
        var said = (await errors).Trim();
        said.Split('\n').Length.ShouldBe(1, said);
        return (process.ExitCode, said);
    }

    private static Process Service(string file, int port)
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Fehler.Web.dll")])
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
