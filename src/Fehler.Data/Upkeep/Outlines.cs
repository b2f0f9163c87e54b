using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A circuit of the register with its outline.</summary>
public sealed record OutlinedCircuit(
    Guid Id,
    string Tag,
    string Title,
    string Area,
    string Enclosure,
    DateTimeOffset CreatedAt,
    CircuitOutline Outline,
    IReadOnlyList<Condition> Conditions
);

/// <summary>Reads what lists over many circuits need, without reading a description.</summary>
public sealed class Outlines(FehlerDb db, CircuitStore circuits)
{
    /// <summary>Draws the outline of a circuit's newest version.</summary>
    internal static void Draw(CircuitRow row, CompiledCircuit compiled) =>
        (row.Outline, row.OutlineVersion) = (
            JsonSerializer.Serialize(CircuitOutline.Of(compiled), JournalJson.Options),
            CircuitOutline.Version
        );

    /// <summary>Every circuit, or those of an area or of some enclosures, whose outline is drawn.</summary>
    public async Task<List<OutlinedCircuit>> AllAsync(string? area, IReadOnlyCollection<string>? enclosures, CancellationToken cancellation)
    {
        var rows = await db
            .Circuits.AsNoTracking()
            .Where(c => (area == null || c.Area == area) && (enclosures == null || enclosures.Contains(c.Enclosure)))
            .Where(c => c.OutlineVersion == CircuitOutline.Version)
            .OrderBy(c => c.Tag)
            .Select(c => new
            {
                c.Id,
                c.Tag,
                c.Title,
                c.Area,
                c.Enclosure,
                c.CreatedAt,
                c.Outline,
                c.Conditions,
            })
            .ToListAsync(cancellation);
        return
        [
            .. rows.Select(r => new OutlinedCircuit(
                r.Id,
                r.Tag,
                r.Title,
                r.Area,
                r.Enclosure,
                r.CreatedAt,
                JsonSerializer.Deserialize<CircuitOutline>(r.Outline, JournalJson.Options)!,
                JsonSerializer.Deserialize<List<Condition>>(r.Conditions, JournalJson.Options)!
            )),
        ];
    }

    /// <summary>Draws one outline that an older version of the program left; false when there is none left.</summary>
    public async Task<bool> CatchUpAsync(IReadOnlySet<Guid> setAside, Action<Guid> begins, CancellationToken cancellation)
    {
        var row = await db
            .Circuits.Where(c => c.OutlineVersion != CircuitOutline.Version && !setAside.Contains(c.Id))
            .FirstOrDefaultAsync(cancellation);
        if (row is null)
        {
            return false;
        }

        begins(row.Id);
        Draw(row, await circuits.CompiledAsync(row.LatestVersionId, cancellation));
        await db.SaveChangesAsync(cancellation);
        return true;
    }
}
