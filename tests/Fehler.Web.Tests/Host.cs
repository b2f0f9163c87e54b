using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Data;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Fehler.Web.Tests;

/// <summary>The service on a real SQLite file of its own, with the demo plant in it.</summary>
public class Host : WebApplicationFactory<Program>
{
    private readonly string _folder = Directory.CreateTempSubdirectory("fehler").FullName;
    private bool _keepsFile;

    public virtual string Database => Path.Combine(_folder, "test.db");

    public static string Root { get; } = FindRoot();

    public static CancellationToken Cancellation => TestContext.Current.CancellationToken;

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("Fehler:Database", Database);
        builder.UseSetting("Fehler:DemoFolder", DemoFolder);
        builder.UseSetting("Fehler:JudgeJobs", "false");
        builder.UseSetting("Fehler:Demo", IsDemo ? "true" : "false");
    }

    /// <summary>Whether everybody is let in, as in the demo.</summary>
    protected virtual bool IsDemo => true;

    protected virtual string DemoFolder => Path.Combine(Root, "demo");

    /// <summary>Id of a circuit of the register.</summary>
    public static async Task<string> CircuitAsync(HttpClient client, string tag)
    {
        var circuits = await client.GetFromJsonAsync<JsonElement>("/api/circuits?take=200", Cancellation);
        return circuits
            .GetProperty("items")
            .EnumerateArray()
            .First(c => c.GetProperty("tag").GetString() == tag)
            .GetProperty("id")
            .GetString()!;
    }

    public static async Task<string> OpenJobAsync(HttpClient client, string tag)
    {
        var answer = await client.PostAsJsonAsync(
            "/api/jobs",
            new
            {
                circuitId = await CircuitAsync(client, tag),
                complaint = "Does not start",
                who = "tester",
            },
            Cancellation
        );
        answer.EnsureSuccessStatusCode();
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancellation)).GetProperty("id").GetString()!;
    }

    /// <summary>Isolated at these devices, and proved dead with a detector that was checked before and after.</summary>
    public static async Task DeadAsync(HttpClient client, string job, params IEnumerable<string> points)
    {
        object[] entries =
        [
            new { type = "isolated", points },
            new
            {
                type = "provedDead",
                detectorCheckedBefore = true,
                detectorCheckedAfter = true,
            },
        ];
        foreach (var entry in entries)
        {
            (await client.PostAsJsonAsync($"/api/jobs/{job}/entries", entry, Cancellation)).EnsureSuccessStatusCode();
        }
    }

    /// <summary>Stops the service and lets go of the file, as the end of its process would.</summary>
    public async Task StopAsync()
    {
        _keepsFile = true;
        await base.DisposeAsync();
        _keepsFile = false;
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        // Its entry point lets go of the file a moment after the host has gone; a second service is refused until then.
        for (var tries = 0; ; tries++)
        {
            try
            {
                DatabaseFile.Hold(Database).Dispose();
                return;
            }
            catch (DatabaseException) when (tries < 200)
            {
                await Task.Delay(50, Cancellation);
            }
        }
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing && !_keepsFile && Directory.Exists(_folder))
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(_folder, recursive: true);
        }
    }

    private static string FindRoot()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "Fehler.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}

/// <summary>Another installation, with nothing in it.</summary>
public sealed class EmptyHost : Host
{
    protected override string DemoFolder => "";
}

/// <summary>The same installation, started once more on its file.</summary>
public sealed class SameFileHost(string database) : Host
{
    public override string Database { get; } = database;
}
