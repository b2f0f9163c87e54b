using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Fehler.Data;

/// <summary>For the migrations tool only.</summary>
internal sealed class DesignTimeFactory : IDesignTimeDbContextFactory<FehlerDb>
{
    public FehlerDb CreateDbContext(string[] args) =>
        new(new DbContextOptionsBuilder<FehlerDb>().UseSqlite("Data Source=design.db").Options);
}
