using System.Globalization;
using System.Reflection;
using Fehler.Data;
using Fehler.Web.People;

namespace Fehler.Web.Service;

/// <summary>How the service is kept, for administrators.</summary>
/// <param name="Version">Version of the program.</param>
/// <param name="Megabytes">Size of the database.</param>
/// <param name="LastBackup">When the last backup was made; null: none is here.</param>
/// <param name="Backup">The same in words, with what is wrong.</param>
/// <param name="IsBackupOld">Somebody has to look after it.</param>
public sealed record ServiceView(string Version, double Megabytes, DateTimeOffset? LastBackup, string Backup, bool IsBackupOld);

internal static class ServiceEndpoint
{
    /// <summary>Two missed nights.</summary>
    private static readonly TimeSpan Old = TimeSpan.FromHours(50);

    public static void MapService(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/service", Get)
            .WithTags("Service")
            .WithName("getService")
            .WithSummary("Version, size and age of the last backup")
            .Needs(Rights.Administration);

    private static ServiceView Get(BackupSettings settings, NightlyBackup nightly, TimeProvider time)
    {
        var last = nightly.Last;
        var hours = last is { } at ? (time.GetUtcNow() - at).TotalHours : 0;
        var words =
            settings.Folder is null ? "No backups are made by themselves here; use ./fehler backup."
            : nightly.Problem is { } problem ? $"The last backup failed: {problem}"
            : last is null ? "No backup was made yet."
            : string.Create(
                CultureInfo.InvariantCulture,
                $"Last backup {(hours < 1 ? "within the hour" : $"{hours:0} hours ago")}, {nightly.Made().Count} kept."
            );
        return new ServiceView(
            typeof(ServiceEndpoint).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()?.InformationalVersion ?? "",
            Math.Round(new FileInfo(settings.Database).Length / 1e6, 1),
            last,
            words,
            settings.Folder is not null && (nightly.Problem is not null || last is null || hours > Old.TotalHours)
        );
    }
}
