using Fehler.Data;

namespace Fehler.Web.Service;

/// <summary>What the program does besides serving: <c>backup FILE</c>, <c>restore FILE</c>, and <c>healthy</c> for whoever watches it.</summary>
internal static class Commands
{
    /// <summary>Does what the arguments ask for.</summary>
    /// <returns>The exit code; null when they ask for nothing but to serve.</returns>
    public static async Task<int?> RunAsync(string[] args, string database)
    {
        if (args is ["healthy"])
        {
            return await HealthyAsync();
        }

        if (args is not [("backup" or "restore") and var what, var file])
        {
            return null;
        }

        try
        {
            var content = what == "backup" ? DatabaseBackup.Write(database, file) : DatabaseBackup.Restore(file, database);
            var (done, held) = (what == "backup" ? "backed up to" : "restored from", $"{content.Circuits} circuits, {content.Jobs} jobs");
            await Console.Out.WriteLineAsync(
                FormattableString.Invariant(
                    $"fehler: {done} {Path.GetFullPath(file)}, read back: {held}, {content.Entries} entries, {content.Bytes / 1e6:0.0} MB"
                )
            );
            return 0;
        }
        catch (DatabaseException e)
        {
            await Console.Error.WriteLineAsync($"fehler: {e.Message}");
            return 1;
        }
    }

    /// <summary>Asks the service that runs at the configured address whether it is ready.</summary>
    private static async Task<int> HealthyAsync()
    {
        var address = (Environment.GetEnvironmentVariable("ASPNETCORE_URLS") ?? "http://127.0.0.1:5080").Split(';')[0];
        using var http = new HttpClient { Timeout = TimeSpan.FromSeconds(5) };
        try
        {
            var at = new Uri(address.Replace("0.0.0.0", "127.0.0.1", StringComparison.Ordinal).TrimEnd('/') + "/api/health/ready");
            return (await http.GetAsync(at)).IsSuccessStatusCode ? 0 : 1;
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException)
        {
            return 1;
        }
    }
}
