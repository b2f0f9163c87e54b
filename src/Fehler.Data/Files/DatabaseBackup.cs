using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>What a backup holds, by reading it back.</summary>
/// <param name="Circuits">Circuits of the register.</param>
/// <param name="Jobs">Jobs and exercises.</param>
/// <param name="Entries">Journal entries.</param>
/// <param name="Bytes">Its size.</param>
public sealed record BackupContent(long Circuits, long Jobs, long Entries, long Bytes);

/// <summary>
/// A copy of the database as it was at one moment, made while the service runs and read back before it counts; and the way back.
/// </summary>
public static class DatabaseBackup
{
    /// <summary>Copies a database that may be in use.</summary>
    /// <param name="database">The database.</param>
    /// <param name="target">The copy; must not be there yet.</param>
    /// <returns>What the copy holds.</returns>
    /// <exception cref="DatabaseException">There is nothing to copy, the target is there already or cannot be written, or the copy is not
    /// whole.</exception>
    public static BackupContent Write(string database, string target)
    {
        var (from, to) = (Path.GetFullPath(database), Path.GetFullPath(target));
        if (!File.Exists(from))
        {
            throw new DatabaseException($"There is no database at {from}.");
        }

        if (File.Exists(to))
        {
            throw new DatabaseException($"{to} is there already; a backup never overwrites another: name a new file.");
        }

        var part = $"{to}.part";
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Delete(part);
            DatabaseFile.CreatePrivate(part).Dispose();
            using (var source = Opened(from, SqliteOpenMode.ReadOnly))
            using (var copy = Opened(part, SqliteOpenMode.ReadWrite))
            {
                source.BackupDatabase(copy);
                // One file and nothing beside it.
                Scalar(copy, "PRAGMA journal_mode=DELETE");
            }

            var content = Read(part);
            File.Move(part, to);
            return content;
        }
        catch (DatabaseException)
        {
            File.Delete(part);
            throw;
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            File.Delete(part);
            throw new DatabaseException($"The backup to {to} was not made: {e.Message}", e);
        }
    }

    /// <summary>What a backup holds.</summary>
    /// <exception cref="DatabaseException">It is no database of this program, damaged, or made by a newer version.</exception>
    public static BackupContent Read(string backup)
    {
        var full = Path.GetFullPath(backup);
        if (!File.Exists(full))
        {
            throw new DatabaseException($"There is no backup at {full}.");
        }

        try
        {
            using var copy = Opened(full, SqliteOpenMode.ReadOnly);
            if (Scalar(copy, "PRAGMA integrity_check") is not "ok")
            {
                throw new DatabaseException($"{full} is damaged: SQLite finds its pages not whole. Take another backup.");
            }

            using var db = new FehlerDb(new DbContextOptionsBuilder<FehlerDb>().UseSqlite(copy).Options);
            var known = db.Database.GetMigrations().ToHashSet();
            if (db.Database.GetAppliedMigrations().FirstOrDefault(m => !known.Contains(m)) is { } newer)
            {
                throw new DatabaseException($"{full} was made by a newer version of Fehler (it has “{newer}”); use that version.");
            }

            long Count(string table) => Convert.ToInt64(Scalar(copy, $"SELECT COUNT(*) FROM \"{table}\""), CultureInfo.InvariantCulture);
            return new BackupContent(Count("Circuits"), Count("Jobs"), Count("Journal"), new FileInfo(full).Length);
        }
        catch (SqliteException e)
        {
            throw new DatabaseException($"{full} is no backup of Fehler, or damaged: {e.Message}", e);
        }
    }

    /// <summary>Puts a backup in the place of the database, which is kept beside it under another name.</summary>
    /// <returns>What was put back.</returns>
    /// <exception cref="DatabaseException">The backup cannot be used, or a service has the database.</exception>
    public static BackupContent Restore(string backup, string database)
    {
        var content = Read(backup);
        var full = Path.GetFullPath(database);
        using var held = DatabaseFile.Hold(full);
        try
        {
            var part = $"{full}.part";
            File.Copy(Path.GetFullPath(backup), part, overwrite: true);
            var aside = $"{full}.before-{DateTime.UtcNow:yyyyMMdd-HHmmss}";
            foreach (var beside in OfOneDatabase.Where(s => File.Exists(full + s)))
            {
                File.Move(full + beside, aside + beside);
            }

            File.Move(part, full);
            return content;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new DatabaseException($"The backup was not put back: {e.Message}", e);
        }
    }

    /// <summary>Ends of the names of the files that are one database.</summary>
    private static readonly string[] OfOneDatabase = ["", "-wal", "-shm"];

    private static SqliteConnection Opened(string path, SqliteOpenMode mode)
    {
        var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = path,
                Mode = mode,
                Pooling = false,
            }.ToString()
        );
        connection.Open();
        return connection;
    }

    private static object? Scalar(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return command.ExecuteScalar();
    }
}
