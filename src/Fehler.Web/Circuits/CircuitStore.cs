using Fehler.Core.Circuits;
using Fehler.Data;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Web.Circuits;

/// <summary>Circuits and their versions in the database.</summary>
internal sealed class CircuitStore(FehlerDb db, CircuitCache cache, TimeProvider time)
{
    /// <summary>
    /// Takes in a circuit file. A known tag gets a new version, unless the description is the one it has already.
    /// </summary>
    /// <exception cref="CircuitException">The file cannot be used.</exception>
    public async Task<(CircuitRow Row, CircuitVersionRow Version, bool IsNew)> ImportAsync(string json, CancellationToken cancellation)
    {
        var circuit = CircuitFile.Read(json);
        var canonical = CircuitFile.Write(circuit);
        var row = await db.Circuits.Include(c => c.Versions).FirstOrDefaultAsync(c => c.Tag == circuit.Tag, cancellation);
        var latest = row?.Versions.MaxBy(v => v.Number);
        if (row is not null && latest!.Json == canonical)
        {
            return (row, latest, false);
        }

        var now = time.GetUtcNow();
        if (row is null)
        {
            row = new CircuitRow { Id = Guid.CreateVersion7(), Tag = circuit.Tag, Title = circuit.Title, Area = circuit.Area, Enclosure = circuit.Enclosure, CreatedAt = now };
            db.Circuits.Add(row);
        }
        else
        {
            (row.Title, row.Area, row.Enclosure) = (circuit.Title, circuit.Area, circuit.Enclosure);
        }

        var version = new CircuitVersionRow { Id = Guid.CreateVersion7(), CircuitId = row.Id, Number = (latest?.Number ?? 0) + 1, Json = canonical, CreatedAt = now };
        db.CircuitVersions.Add(version);
        await db.SaveChangesAsync(cancellation);
        return (row, version, true);
    }

    /// <summary>The newest version of a circuit; null when there is no such circuit.</summary>
    public async Task<(CircuitRow Row, CircuitVersionRow Version, CompiledCircuit Compiled)?> FindAsync(Guid id, CancellationToken cancellation)
    {
        var row = await db.Circuits.AsNoTracking().Include(c => c.Versions).FirstOrDefaultAsync(c => c.Id == id, cancellation);
        if (row is null)
        {
            return null;
        }

        var version = row.Versions.MaxBy(v => v.Number)!;
        return (row, version, cache.Get(version.Id, version.Json));
    }

    /// <summary>The register.</summary>
    public async Task<List<CircuitListItem>> ListAsync(CancellationToken cancellation)
    {
        var rows = await db.Circuits.AsNoTracking().Include(c => c.Versions.OrderByDescending(v => v.Number).Take(1)).ToListAsync(cancellation);
        var jobs = (await db.Jobs.AsNoTracking().ToListAsync(cancellation)).ToLookup(j => j.CircuitId);
        return [.. rows.OrderBy(c => c.Area, StringComparer.Ordinal).ThenBy(c => c.Tag, StringComparer.Ordinal).Select(c =>
        {
            var mine = jobs[c.Id].OrderByDescending(j => j.OpenedAt).ToList();
            return new CircuitListItem(c.Id, c.Tag, c.Title, c.Area, c.Enclosure, c.Versions[0].Number, mine.Count,
                mine.FirstOrDefault(j => j.ClosedAt is null)?.Id, mine.Select(j => j.FoundText).FirstOrDefault(t => t is not null), mine.FirstOrDefault()?.OpenedAt);
        })];
    }
}
