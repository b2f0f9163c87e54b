using Fehler.Core.Circuits;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>The one SQLite file: register, circuit versions, jobs and their journals.</summary>
public sealed class FehlerDb(DbContextOptions<FehlerDb> options) : DbContext(options)
{
    public DbSet<CircuitRow> Circuits => Set<CircuitRow>();
    public DbSet<CircuitVersionRow> CircuitVersions => Set<CircuitVersionRow>();
    public DbSet<JobRow> Jobs => Set<JobRow>();
    public DbSet<BenchCheckRow> BenchChecks => Set<BenchCheckRow>();
    public DbSet<JournalRow> Journal => Set<JournalRow>();

    /// <summary>Creates or upgrades the file; write-ahead logging, and every commit on disk before it is acknowledged.</summary>
    public async Task PrepareAsync(CancellationToken cancellation = default)
    {
        await Database.MigrateAsync(cancellation);
        await Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", cancellation);
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<CircuitRow>(e =>
        {
            e.HasIndex(c => c.Tag).IsUnique();
            e.HasMany(c => c.Versions).WithOne().HasForeignKey(v => v.CircuitId);
        });
        modelBuilder.Entity<CircuitVersionRow>().HasIndex(v => new { v.CircuitId, v.Number }).IsUnique();
        modelBuilder.Entity<JobRow>(e =>
        {
            e.HasOne(j => j.Circuit).WithMany().HasForeignKey(j => j.CircuitId);
            e.HasOne(j => j.CircuitVersion).WithMany().HasForeignKey(j => j.CircuitVersionId);
            e.HasMany(j => j.Journal).WithOne().HasForeignKey(r => r.JobId);
            e.HasIndex(j => j.OpenedAt);
        });
        modelBuilder.Entity<BenchCheckRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(b => b.CircuitId);
            e.HasOne<CircuitVersionRow>().WithMany().HasForeignKey(b => b.CircuitVersionId);
            e.HasIndex(b => new { b.CircuitId, b.At });
        });
        modelBuilder.Entity<JournalRow>().HasIndex(r => new { r.JobId, r.Sequence }).IsUnique();
    }

    /// <summary>SQLite compares no offsets: times are kept as UTC ticks, which sort.</summary>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcTicksConverter>();
}
