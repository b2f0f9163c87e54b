using Fehler.Data;

namespace Fehler.Web.Service;

/// <summary>What the program does besides serving: <c>backup FILE</c> and <c>restore FILE</c>.</summary>
internal static class Commands
{
    /// <summary>Does what the arguments ask for.</summary>
    /// <returns>The exit code; null when they ask for nothing but to serve.</returns>
    public static async Task<int?> RunAsync(string[] args, string database)
    {
        if (args is not [("backup" or "restore") and var what, var file])
        {
            return null;
        }

        try
        {
            var content = what == "backup" ? DatabaseBackup.Write(database, file) : DatabaseBackup.Restore(file, database);
            await Console.Out.WriteLineAsync(
                FormattableString.Invariant(
                    $"fehler: {(what == "backup" ? "backed up to" : "restored from")} {Path.GetFullPath(file)}, read back: {content.Circuits} circuits, {content.Jobs} jobs, {content.Entries} entries, {content.Bytes / 1e6:0.0} MB"
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
}
