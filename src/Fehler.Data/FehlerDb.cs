using Fehler.Core.Circuits;
using Fehler.Core.Operation;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>The one SQLite file: register, circuit versions, jobs and their journals, people.</summary>
public sealed class FehlerDb(DbContextOptions<FehlerDb> options) : IdentityUserContext<Person, Guid>(options)
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
    public DbSet<SessionRow> Sessions => Set<SessionRow>();
    public DbSet<DeviceRow> Devices => Set<DeviceRow>();
    public DbSet<TokenRow> Tokens => Set<TokenRow>();
    public DbSet<SecurityEventRow> SecurityEvents => Set<SecurityEventRow>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<CircuitRow>(e =>
        {
            e.HasIndex(c => c.Tag).IsUnique();
            e.HasIndex(c => new { c.Area, c.Tag });
            e.HasMany(c => c.Versions).WithOne().HasForeignKey(v => v.CircuitId);
        });
        builder.Entity<CircuitVersionRow>().HasIndex(v => new { v.CircuitId, v.Number }).IsUnique();
        builder.Entity<JobRow>(e =>
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
        builder.Entity<BenchCheckRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(b => b.CircuitId);
            e.HasOne<CircuitVersionRow>().WithMany().HasForeignKey(b => b.CircuitVersionId);
            e.HasIndex(b => new { b.CircuitId, b.At });
        });
        builder.Entity<JournalRow>().HasIndex(r => new { r.JobId, r.Sequence }).IsUnique();
        builder.Entity<PhotoRow>(e =>
        {
            e.HasOne<JobRow>().WithMany().HasForeignKey(p => p.JobId);
            e.HasIndex(p => p.JobId);
        });
        builder.Entity<FollowUpRow>(e =>
        {
            e.HasOne(f => f.Circuit).WithMany().HasForeignKey(f => f.CircuitId);
            e.HasOne<JobRow>().WithMany().HasForeignKey(f => f.JobId);
            e.HasIndex(f => new { f.DoneAt, f.Due });
        });
        builder.Entity<MeasuredRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(m => m.CircuitId);
            e.HasIndex(m => m.CircuitId);
            e.HasIndex(m => m.Source);
            e.HasIndex(m => new { m.Part, m.What });
        });
        builder.Entity<WorkRow>(e =>
        {
            e.HasOne<CircuitRow>().WithMany().HasForeignKey(w => w.CircuitId);
            e.HasIndex(w => new
            {
                w.CircuitId,
                w.Rule,
                w.At,
            });
        });
        builder.Entity<IntervalRow>().HasKey(i => new { i.Rule, i.CircuitId });
        builder.Entity<ShutdownRow>().HasIndex(s => s.Begins);
        builder.Entity<PartRow>().HasKey(p => p.Name);
        builder.Entity<FactRow>().HasKey(f => f.Name);
        builder.Entity<Person>(e =>
        {
            e.ToTable("People");
            e.Ignore(p => p.Name);
        });
        builder.Entity<SessionRow>(e =>
        {
            e.HasKey(s => s.KeyHash);
            e.HasOne(s => s.Person).WithMany().HasForeignKey(s => s.PersonId);
        });
        builder.Entity<DeviceRow>().HasIndex(d => d.KeyHash).IsUnique();
        builder.Entity<TokenRow>(e =>
        {
            e.HasOne(t => t.Person).WithMany().HasForeignKey(t => t.PersonId);
            e.HasIndex(t => t.KeyHash).IsUnique();
        });
        builder.Entity<SecurityEventRow>().HasIndex(e => e.At);
    }

    /// <summary>SQLite compares no offsets: times are kept as UTC ticks, which sort.</summary>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcTicksConverter>();
}
