using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>The database cannot be used; the message is one sentence for whoever started the service.</summary>
public sealed class DatabaseException : Exception
{
    public DatabaseException()
        : this("The database cannot be used.") { }

    public DatabaseException(string message)
        : base(message) { }

    public DatabaseException(string message, Exception inner)
        : base(message, inner) { }
}

/// <summary>
/// The SQLite file as one process has it: held by a lock of its own, so that no second one writes to it and a migration that was cut off
/// can be
/// finished; private to its owner; brought up to date when something is pending.
/// </summary>
public sealed class DatabaseFile : IDisposable
{
    private readonly string _path;
    private readonly FileStream _held;

    private DatabaseFile(string path, FileStream held) => (_path, _held) = (path, held);

    /// <summary>How a connection to the file is written.</summary>
    public static string ConnectionString(string path) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = path,
            Cache = SqliteCacheMode.Private,
            DefaultTimeout = 10,
        }.ToString();

    /// <summary>Takes the file for this process.</summary>
    /// <exception cref="DatabaseException">It is in use, or its folder cannot be written to.</exception>
    public static DatabaseFile Hold(string path)
    {
        var full = Path.GetFullPath(path);
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(full)!);
            var held = Lock(full + ".lock");
            if (!File.Exists(full))
            {
                // What people wrote about their plant is nobody else's business on this machine.
                using var created = CreatePrivate(full);
            }

            return new DatabaseFile(full, held);
        }
        catch (UnauthorizedAccessException e)
        {
            throw new DatabaseException($"{full} cannot be written: the folder or the file belongs to somebody else or is read-only.", e);
        }
        catch (IOException e) when (IsFull(e))
        {
            throw new DatabaseException($"{full} cannot be created: the disk is full.", e);
        }
        catch (IOException e)
        {
            throw new DatabaseException(
                File.Exists(full + ".lock") && e is not DirectoryNotFoundException
                    ? $"{full} is in use by another Fehler; stop that one, or choose another file."
                    : $"{full} cannot be created: {e.Message}",
                e
            );
        }
    }

    /// <summary>A service that is just ending lets go within a moment; one that runs does not.</summary>
    private static FileStream Lock(string path)
    {
        for (var tries = 0; ; tries++)
        {
            try
            {
                return new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            }
            catch (IOException e) when (tries < LockTries && File.Exists(path) && !IsFull(e))
            {
                Thread.Sleep(LockPause);
            }
        }
    }

    private const int LockTries = 20;
    private static readonly TimeSpan LockPause = TimeSpan.FromMilliseconds(150);

    /// <summary>Creates or upgrades the tables; write-ahead logging, and every commit on disk before it is acknowledged.</summary>
    /// <exception cref="DatabaseException">The file is damaged, full, read-only or made by a newer version.</exception>
    public async Task PrepareAsync(FehlerDb db, CancellationToken cancellation = default)
    {
        RefuseOtherFiles();
        try
        {
            await ClearStaleMigrationAsync(db, cancellation);
            var (known, applied) = (
                db.Database.GetMigrations().ToHashSet(),
                (await db.Database.GetAppliedMigrationsAsync(cancellation)).ToList()
            );
            if (applied.FirstOrDefault(m => !known.Contains(m)) is { } newer)
            {
                throw new DatabaseException($"{_path} was made by a newer version of Fehler (it has “{newer}”); start that version.");
            }

            if (known.Count > applied.Count)
            {
                if (applied.Count > 0 && $"{_path}.before-{known.Max()![..14]}" is var before && !File.Exists(before))
                {
                    // Should the new version not be what one hoped for, there is a way back.
                    DatabaseBackup.Write(_path, before);
                }

                await db.Database.MigrateAsync(cancellation);
            }

            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", cancellation);
            // Proves that it can be written to before anybody relies on it.
            await db.Facts.Where(f => f.Name == "started").ExecuteDeleteAsync(cancellation);
            db.Facts.Add(new FactRow { Name = "started", Value = DateTimeOffset.UtcNow.ToString("O", CultureInfo.InvariantCulture) });
            await db.SaveChangesAsync(cancellation);
            db.ChangeTracker.Clear();
        }
        catch (Exception e) when (SqliteErrors.Of(e) is { } sqlite)
        {
            throw new DatabaseException(Sentence(sqlite), e);
        }
    }

    /// <summary>What does not begin as a database does is some other file: it is left alone before anything is tried with it.</summary>
    private void RefuseOtherFiles()
    {
        Span<byte> first = stackalloc byte[16];
        using var file = File.Open(_path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        if (
            file.Length > 0
            && (file.ReadAtLeast(first, first.Length, throwOnEndOfStream: false) < 16 || !first.SequenceEqual("SQLite format 3\0"u8))
        )
        {
            throw new DatabaseException(Sentence(new SqliteException("", 26)));
        }
    }

    public void Dispose() => _held.Dispose();

    /// <summary>A sentence for what SQLite says.</summary>
    private string Sentence(SqliteException e) =>
        e.SqliteErrorCode switch
        {
            5 or 6 => $"{_path} is locked by another program; close it and start again.",
            8 => $"{_path} is read-only; give the one who starts Fehler the right to write to it and its folder.",
            11 or 26 => $"{_path} is damaged or no database; restore it from a backup, or move it away to begin with an empty one.",
            13 => $"{_path} cannot be written: the disk is full.",
            14 => $"{_path} cannot be opened; check the folder and its rights.",
            10 => $"{_path} cannot be read from its disk: {e.Message}",
            _ => $"{_path} cannot be used: {e.Message}",
        };

    /// <summary>
    /// A process that was ended in the middle of a migration leaves its lock in the database, and the next one would wait for it for ever.
    /// This
    /// process alone has the file, so whatever lock is there is stale.
    /// </summary>
    private static async Task ClearStaleMigrationAsync(FehlerDb db, CancellationToken cancellation)
    {
        var tables = await db
            .Database.SqlQueryRaw<int>("SELECT COUNT(*) AS Value FROM sqlite_master WHERE name = '__EFMigrationsLock'")
            .SingleAsync(cancellation);
        if (tables > 0)
        {
            await db.Database.ExecuteSqlRawAsync("DELETE FROM \"__EFMigrationsLock\"", cancellation);
        }
    }

    private static bool IsFull(IOException e) => (e.HResult & 0xFFFF) == 28;

    /// <summary>A new file that is for its owner only.</summary>
    internal static FileStream CreatePrivate(string path) =>
        OperatingSystem.IsWindows()
            ? new FileStream(path, FileMode.CreateNew)
            : new FileStream(
                path,
                new FileStreamOptions
                {
                    Mode = FileMode.CreateNew,
                    Access = FileAccess.ReadWrite,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
                }
            );
}
