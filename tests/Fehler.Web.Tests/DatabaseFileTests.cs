using Fehler.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Tests;

/// <summary>
/// Starting on a file that is new, in use, cut off, damaged or not ours: what can be mended is, everything else is one sentence.
/// </summary>
public sealed class DatabaseFileTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-file").FullName;

    private string File => Path.Combine(_folder, "plant.db");

    [Fact]
    public async Task A_new_file_is_made_ready_and_is_private_to_its_owner()
    {
        await Prepare();
        if (!OperatingSystem.IsWindows())
        {
            System.IO.File.GetUnixFileMode(File).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        }

        await Prepare();
    }

    [Fact]
    public void A_second_instance_on_the_same_file_is_turned_away()
    {
        using var first = DatabaseFile.Hold(File);
        Should.Throw<DatabaseException>(() => DatabaseFile.Hold(File)).Message.ShouldContain("in use by another");
    }

    /// <summary>
    /// A process that is ended during a migration leaves the migration's lock behind; the next start clears it and goes on.
    /// </summary>
    [Fact]
    public async Task A_lock_left_by_a_migration_that_was_cut_off_is_cleared()
    {
        await Prepare();
        Sql(
            "DELETE FROM __EFMigrationsHistory WHERE MigrationId LIKE '%Projections'; ALTER TABLE Facts RENAME TO Old; DROP TABLE Old;"
                + "DROP INDEX IX_Jobs_CircuitId_OpenedAt; DROP INDEX IX_Jobs_Outcome_OpenedAt; DROP INDEX IX_Circuits_Area_Tag; "
                + "CREATE INDEX IX_Jobs_CircuitId ON Jobs (CircuitId);"
                + "ALTER TABLE Journal DROP COLUMN Received;"
                + string.Concat(
                    new[] { "EntryCount", "FoundFault", "FoundKind", "Origin", "OwnOhms", "SearchText" }.Select(c =>
                        $"ALTER TABLE Jobs DROP COLUMN {c};"
                    )
                )
                + string.Concat(
                    new[] { "JobCount", "LastFound", "LastJobAt", "LatestNumber", "LatestVersionId", "OpenJobId", "SearchText" }.Select(c =>
                        $"ALTER TABLE Circuits DROP COLUMN {c};"
                    )
                )
                + "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL); INSERT OR "
                + "REPLACE INTO __EFMigrationsLock VALUES (1, '2026-01-01')"
        );
        await Prepare().WaitAsync(TimeSpan.FromSeconds(30), TestContext.Current.CancellationToken);
        await using var db = Open();
        (await db.Database.GetPendingMigrationsAsync(TestContext.Current.CancellationToken)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_file_of_a_newer_version_is_left_alone()
    {
        await Prepare();
        Sql("INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_Newer', '99.0')");
        (await Should.ThrowAsync<DatabaseException>(Prepare())).Message.ShouldContain("newer version");
    }

    [Fact]
    public async Task A_file_that_is_no_database_is_said_to_be_damaged()
    {
        await System.IO.File.WriteAllTextAsync(File, new string('x', 10_000), TestContext.Current.CancellationToken);
        (await Should.ThrowAsync<DatabaseException>(Prepare())).Message.ShouldContain("damaged");
    }

    [Fact]
    public void A_folder_that_cannot_be_made_is_one_sentence() =>
        Should.Throw<DatabaseException>(() => DatabaseFile.Hold("/proc/nowhere/plant.db")).Message.ShouldContain("cannot be");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    private async Task Prepare()
    {
        using var held = DatabaseFile.Hold(File);
        await using var db = Open();
        await held.PrepareAsync(db, TestContext.Current.CancellationToken);
        SqliteConnection.ClearAllPools();
    }

    private FehlerDb Open() => new(new DbContextOptionsBuilder<FehlerDb>().UseSqlite(DatabaseFile.ConnectionString(File)).Options);

    private void Sql(string command)
    {
        using var connection = new SqliteConnection(DatabaseFile.ConnectionString(File));
        connection.Open();
        using var change = connection.CreateCommand();
        change.CommandText = command;
        change.ExecuteNonQuery();
    }
}
