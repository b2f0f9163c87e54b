using System.Globalization;
using Fehler.Data;

namespace Fehler.Web.Service;

/// <summary>Where and how often backups are made by themselves.</summary>
/// <param name="Database">The database.</param>
/// <param name="Folder">Where they go; null: none are made.</param>
/// <param name="Hour">At which hour of the night, local time.</param>
/// <param name="Kept">How many are kept; older ones are deleted.</param>
internal sealed record BackupSettings(string Database, string? Folder, int Hour, int Kept)
{
    public static BackupSettings From(IConfiguration configuration, string database, bool isDemo) =>
        new(
            Path.GetFullPath(database),
            configuration["Fehler:BackupFolder"] switch
            {
                "none" => null,
                { Length: > 0 } folder => Path.GetFullPath(folder),
                _ => isDemo ? null : Path.Combine(Path.GetDirectoryName(Path.GetFullPath(database))!, "backups"),
            },
            Math.Clamp(configuration.GetValue("Fehler:BackupHour", 2), 0, 23),
            Math.Clamp(configuration.GetValue("Fehler:BackupsKept", 14), 1, 1000)
        );
}

/// <summary>
/// A backup each night, read back before it counts, the oldest deleted. One that is missing when the service starts, because it was off at
/// night, is made then. That one failed is logged, and shown by the age of the last.
/// </summary>
internal sealed class NightlyBackup(BackupSettings settings, TimeProvider time, ILogger<NightlyBackup> log) : BackgroundService
{
    private const string Prefix = "fehler-";
    private static readonly TimeSpan Look = TimeSpan.FromMinutes(10),
        ADay = TimeSpan.FromHours(24);

    /// <summary>What went wrong the last time; null: nothing.</summary>
    public string? Problem { get; private set; }

    /// <summary>When the last backup was made; null: there is none.</summary>
    public DateTimeOffset? Last =>
        Made().Select(f => (DateTimeOffset?)new DateTimeOffset(f.LastWriteTimeUtc, TimeSpan.Zero)).FirstOrDefault();

    /// <summary>Backups that are here, the newest first.</summary>
    public IReadOnlyList<FileInfo> Made() =>
        settings.Folder is { } folder && Directory.Exists(folder)
            ? [.. new DirectoryInfo(folder).GetFiles($"{Prefix}*.db").OrderByDescending(f => f.Name, StringComparer.Ordinal)]
            : [];

    /// <summary>Whether one is due.</summary>
    public bool IsDue()
    {
        var now = time.GetLocalNow();
        return settings.Folder is not null
            && (Last is not { } last || now - last > ADay || (now.Hour == settings.Hour && now - last > TimeSpan.FromHours(1)));
    }

    /// <summary>Makes one, and deletes what is more than is kept.</summary>
    public void Make()
    {
        if (settings.Folder is not { } folder)
        {
            return;
        }

        try
        {
            Directory.CreateDirectory(folder);
            var name = time.GetUtcNow().ToString("yyyyMMdd-HHmmss", CultureInfo.InvariantCulture);
            var content = DatabaseBackup.Write(settings.Database, Path.Combine(folder, $"{Prefix}{name}.db"));
            foreach (var old in Made().Skip(settings.Kept))
            {
                old.Delete();
            }

            Problem = null;
            log.LogInformation("Backed up {Jobs} jobs with {Entries} entries", content.Jobs, content.Entries);
        }
        catch (Exception e) when (e is DatabaseException or IOException or UnauthorizedAccessException)
        {
            Problem = e.Message;
            log.LogError(e, "The nightly backup was not made");
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            using var clock = new PeriodicTimer(Look, time);
            do
            {
                if (Problem is not null || IsDue())
                {
                    await Task.Run(Make, stoppingToken);
                }
            } while (await clock.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
    }
}
