using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fehler.Data;

namespace Fehler.Web.Tests;

/// <summary>A copy of the plant that was made while people work, and the way back from it.</summary>
public sealed class BackupTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("fehler-backup-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private string In(string name) => Path.Combine(_folder, name);

    [Fact]
    public async Task A_backup_made_while_the_service_runs_holds_everything_and_comes_back_on_another_machine()
    {
        using var host = new Host();
        using var client = host.CreateClient();
        var job = await Host.OpenJobAsync(client, "IN-101");
        var content = DatabaseBackup.Write(host.Database, In("plant.backup"));
        content.Circuits.ShouldBe(34);
        var later = await client.PostAsJsonAsync(
            $"/api/jobs/{job}/entries",
            new
            {
                type = "note",
                text = "after the backup",
                who = "tester",
            },
            Host.Cancellation
        );
        later.StatusCode.ShouldBe(HttpStatusCode.OK);
        File.Exists(In("plant.backup-wal")).ShouldBeFalse();

        // Another machine: an empty file of its own, the backup put in its place.
        DatabaseBackup.Restore(In("plant.backup"), In("elsewhere.db")).ShouldBe(content);
        using var other = new SameFileHost(In("elsewhere.db"));
        using var there = other.CreateClient();
        var restored = await there.GetFromJsonAsync<JsonElement>($"/api/jobs/{job}", Host.Cancellation);
        restored.ToString().ShouldNotContain("after the backup");
        restored.GetProperty("circuitTag").GetString().ShouldBe("IN-101");
        (await there.GetAsync(new Uri("/api/health/ready", UriKind.Relative), Host.Cancellation)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task What_is_there_is_never_overwritten_and_what_is_replaced_is_kept()
    {
        using (var host = new Host())
        {
            using var client = host.CreateClient();
            DatabaseBackup.Write(host.Database, In("a.backup"));
            Should.Throw<DatabaseException>(() => DatabaseBackup.Write(host.Database, In("a.backup"))).Message.ShouldContain("already");
            Should.Throw<DatabaseException>(() => DatabaseBackup.Restore(In("a.backup"), host.Database)).Message.ShouldContain("in use");
        }

        await File.WriteAllTextAsync(In("plant.db"), "what was there", Host.Cancellation);
        DatabaseBackup.Restore(In("a.backup"), In("plant.db"));
        var kept = Directory.GetFiles(_folder, "plant.db.before-*").ShouldHaveSingleItem();
        (await File.ReadAllTextAsync(kept, Host.Cancellation)).ShouldBe("what was there");
    }

    [Theory]
    [InlineData("minutes of a meeting")]
    [InlineData("")]
    public async Task What_is_no_backup_is_refused_and_the_data_stays(string text)
    {
        await File.WriteAllTextAsync(In("notes.txt"), text, Host.Cancellation);
        await File.WriteAllTextAsync(In("plant.db"), "what was there", Host.Cancellation);
        Should.Throw<DatabaseException>(() => DatabaseBackup.Restore(In("notes.txt"), In("plant.db")));
        Should
            .Throw<DatabaseException>(() => DatabaseBackup.Restore(In("nothing.backup"), In("plant.db")))
            .Message.ShouldContain("no backup");
        (await File.ReadAllTextAsync(In("plant.db"), Host.Cancellation)).ShouldBe("what was there");
    }

    [Fact]
    public async Task What_cannot_be_backed_up_leaves_nothing_behind()
    {
        await File.WriteAllTextAsync(In("notes.txt"), "minutes of a meeting", Host.Cancellation);
        Should.Throw<DatabaseException>(() => DatabaseBackup.Write(In("notes.txt"), In("a.backup")));
        Should.Throw<DatabaseException>(() => DatabaseBackup.Write(In("nothing.db"), In("a.backup"))).Message.ShouldContain("no database");
        Directory.GetFiles(_folder).Select(Path.GetFileName).ShouldBe(["notes.txt"]);
    }

    [Fact]
    public void A_damaged_backup_is_found_out()
    {
        using (var host = new Host())
        {
            using var client = host.CreateClient();
            DatabaseBackup.Write(host.Database, In("a.backup"));
        }

        var bytes = File.ReadAllBytes(In("a.backup"));
        bytes.AsSpan(bytes.Length / 2, 20_000).Fill(0xAB);
        File.WriteAllBytes(In("a.backup"), bytes);
        Should.Throw<DatabaseException>(() => DatabaseBackup.Restore(In("a.backup"), In("plant.db"))).Message.ShouldContain("damaged");
    }
}
