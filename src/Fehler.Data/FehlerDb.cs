using Fehler.Core.Circuits;
using Fehler.Core.Operation;
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
    public DbSet<PhotoRow> Photos => Set<PhotoRow>();
    public DbSet<FollowUpRow> FollowUps => Set<FollowUpRow>();
    public DbSet<MeasuredRow> Measured => Set<MeasuredRow>();
    public DbSet<WorkRow> Work => Set<WorkRow>();
    public DbSet<IntervalRow> Intervals => Set<IntervalRow>();
    public DbSet<ShutdownRow> Shutdowns => Set<ShutdownRow>();
    public DbSet<PartRow> Parts => Set<PartRow>();
    public DbSet<FactRow> Facts => Set<FactRow>();

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<CircuitRow>(e =>
        {
            e.HasIndex(c => c.Tag).IsUnique();
            e.HasIndex(c => new { c.Area, c.Tag });
            e.HasMany(c => c.Versions).WithOne().HasForeignKey(v => v.CircuitId);
        });
        modelBuilder.Entity<CircuitVersionRow>().HasIndex(v => new { v.CircuitId, v.Number }).IsUnique();
        modelBuilder.Entity<JobRow>(e =>
        {
            e.HasOne(j => j.Circuit).WithMany().HasForeignKey(j => j.CircuitId);
            e.HasOne(j => j.CircuitVersion).WithMany().HasForeignKey(j => j.CircuitVersionId);
            e.HasMany(j => j.Journal).WithOne().HasForeignKey(r => r.JobId);
            // What is practised is no history: whoever means an exercise asks for it.
            e.HasQueryFilter(j => j.Exercise == null);
            e.HasIndex(j => j.OpenedAt);
            e.HasIndex(j => new { j.CircuitId, j.OpenedAt });
            e.HasIndex(j => new { j.Outcome, j.OpenedAt });
        });
        modelBuilder.Entity<BenchCheckRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(b => b.CircuitId);
            e.HasOne<CircuitVersionRow>().WithMany().HasForeignKey(b => b.CircuitVersionId);
            e.HasIndex(b => new { b.CircuitId, b.At });
        });
        modelBuilder.Entity<JournalRow>().HasIndex(r => new { r.JobId, r.Sequence }).IsUnique();
        modelBuilder.Entity<PhotoRow>(e =>
        {
            e.HasOne<JobRow>().WithMany().HasForeignKey(p => p.JobId);
            e.HasIndex(p => p.JobId);
        });
        modelBuilder.Entity<FollowUpRow>(e =>
        {
            e.HasOne(f => f.Circuit).WithMany().HasForeignKey(f => f.CircuitId);
            e.HasOne<JobRow>().WithMany().HasForeignKey(f => f.JobId);
            e.HasIndex(f => new { f.DoneAt, f.Due });
        });
        modelBuilder.Entity<MeasuredRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(m => m.CircuitId);
            e.HasIndex(m => m.CircuitId);
            e.HasIndex(m => m.Source);
            e.HasIndex(m => new { m.Part, m.What });
        });
        modelBuilder.Entity<WorkRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(w => w.CircuitId);
            e.HasIndex(w => new
            {
                w.CircuitId,
                w.Rule,
                w.At,
            });
        });
        modelBuilder.Entity<IntervalRow>().HasKey(i => new { i.Rule, i.CircuitId });
        modelBuilder.Entity<ShutdownRow>().HasIndex(s => s.Begins);
        modelBuilder.Entity<PartRow>().HasKey(p => p.Name);
        modelBuilder.Entity<FactRow>().HasKey(f => f.Name);
    }

    /// <summary>SQLite compares no offsets: times are kept as UTC ticks, which sort.</summary>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcTicksConverter>();
}
