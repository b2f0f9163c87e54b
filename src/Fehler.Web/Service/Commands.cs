using System.Security.Cryptography;
using Fehler.Core.Circuits;
using Fehler.Data;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Service;

/// <summary>
/// What the program does besides serving: <c>backup FILE</c>, <c>restore FILE</c>, <c>password NAME</c>, and <c>healthy</c> for whoever watches
/// it.
/// </summary>
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

    private const string Letters = "abcdefghjkmnpqrstuvwxyz23456789";

    /// <summary>
    /// <c>password NAME</c>: a new password for somebody who lost theirs, shown on the console alone. Whoever can read and write the data on
    /// this machine could do all of that by hand; so the only administrator is never shut out.
    /// </summary>
    /// <returns>The exit code; null when the arguments ask for something else.</returns>
    public static async Task<int?> PasswordAsync(string[] args, IServiceProvider services)
    {
        if (args is not ["password", var name])
        {
            return null;
        }

        using var scope = services.CreateScope();
        var database = scope.ServiceProvider.GetRequiredService<FehlerDb>().Database;
        try
        {
            if (!await database.CanConnectAsync() || (await database.GetPendingMigrationsAsync()).Any())
            {
                throw new RefusedException("There are no data here that this version has served; start it once with ./fehler run.");
            }

            var password = string.Join('-', Enumerable.Range(0, 4).Select(_ => RandomNumberGenerator.GetString(Letters, 5)));
            await scope
                .ServiceProvider.GetRequiredService<PeopleStore>()
                .ResetAsync(name, password, new Whence("the console of this machine", ""), default);
            await Console.Out.WriteLineAsync(
                $"fehler: {name} signs in with the password {password} and should change it at once (You → Password and PIN). "
                    + "PIN and one-time codes were taken away, and every browser is signed out."
            );
            return 0;
        }
        catch (RefusedException e)
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
