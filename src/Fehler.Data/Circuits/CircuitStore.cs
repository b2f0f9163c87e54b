using Fehler.Core.Acceptance;
using Fehler.Core.Circuits;
using Fehler.Core.Procedures;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Answer to an import.</summary>
public sealed record Imported(Guid Id, string Tag, int Version, bool IsNew);

/// <summary>Circuits and their versions in the database.</summary>
public sealed class CircuitStore(FehlerDb db, CompiledCircuits compiled, Turns turns, TimeProvider time)
{
    /// <summary>Takes in a circuit file. A known tag gets a new version, unless the description is the one it has already.</summary>
    /// <exception cref="CircuitException">The file cannot be used.</exception>
    public async Task<Imported> ImportAsync(string json, CancellationToken cancellation, bool isNew = false)
    {
        var circuit = await Task.Run(() => CircuitAcceptance.Read(json), cancellation);
        return await turns.InTurnAsync($"circuit {circuit.Circuit.Tag}", () => ImportAsync(circuit, isNew, cancellation), cancellation);
    }

    /// <summary>Changes a circuit: its newest version with the change becomes the next. Null when there is no such circuit.</summary>
    /// <exception cref="RefusedException">The change cannot be made, or what comes of it is no circuit that works.</exception>
    public async Task<Imported?> ChangeAsync(Guid id, Func<Circuit, Circuit> change, CancellationToken cancellation)
    {
        if (await db.Circuits.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id, cancellation) is not { } row)
        {
            return null;
        }

        return await turns.InTurnAsync(
            $"circuit {row.Tag}",
            async () =>
            {
                var newest = (await FindAsync(id, cancellation))!.Compiled.Circuit;
                var changed = await Task.Run(() => CircuitAcceptance.Read(CircuitFile.Write(change(newest))), cancellation);
                return changed.Circuit.Tag == row.Tag
                    ? await ImportAsync(changed, false, cancellation)
                    : throw new RefusedException("The designation of a circuit is changed where it is set up.");
            },
            cancellation
        );
    }

    /// <summary>The newest version of a circuit; null when there is no such circuit.</summary>
    /// <exception cref="SetAsideException">Its description cannot be read any more.</exception>
    public async Task<FoundCircuit?> FindAsync(Guid id, CancellationToken cancellation)
    {
        var row = await db.Circuits.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id, cancellation);
        return row is null
            ? null
            : new FoundCircuit(row, row.LatestVersionId, row.LatestNumber, await CompiledAsync(row.LatestVersionId, cancellation));
    }

    /// <summary>A version of a circuit by its number; null when there is none.</summary>
    /// <exception cref="SetAsideException">Its description cannot be read any more.</exception>
    public async Task<FoundCircuit?> FindAsync(Guid id, int number, CancellationToken cancellation)
    {
        var found = await db
            .CircuitVersions.AsNoTracking()
            .Where(v => v.CircuitId == id && v.Number == number)
            .Join(db.Circuits.AsNoTracking(), v => v.CircuitId, c => c.Id, (v, c) => new { v.Id, Row = c })
            .FirstOrDefaultAsync(cancellation);
        return found is null ? null : new FoundCircuit(found.Row, found.Id, number, await CompiledAsync(found.Id, cancellation));
    }

    /// <summary>A circuit version, compiled.</summary>
    /// <exception cref="SetAsideException">It cannot be read any more.</exception>
    public async Task<CompiledCircuit> CompiledAsync(Guid version, CancellationToken cancellation)
    {
        if (compiled.Find(version) is { } known)
        {
            return known;
        }

        var row =
            await db.CircuitVersions.AsNoTracking().FirstOrDefaultAsync(v => v.Id == version, cancellation)
            ?? throw new SetAsideException("The circuit version of this job is missing from the database; restore it from a backup.");
        try
        {
            return compiled.Keep(version, CircuitFile.Read(row.Json).Compile());
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            throw SetAsideException.Of($"Version {row.Number} of the circuit", e);
        }
    }

    /// <summary>The circuit file of the newest version as it is kept.</summary>
    public async Task<string> JsonAsync(Guid version, CancellationToken cancellation) =>
        await db.CircuitVersions.Where(v => v.Id == version).Select(v => v.Json).FirstAsync(cancellation);

    /// <summary>A page of the register.</summary>
    public Task<Page<CircuitListItem>> ListAsync(ListQuery query, CircuitFilter filter, CancellationToken cancellation)
    {
        var aYearAgo = time.GetUtcNow().AddYears(-1);
        var jobs = db.Jobs.AsNoTracking();
        var rows = filter.Of(
            query.Matching(db.Circuits.AsNoTracking(), word => c => EF.Functions.Like(c.SearchText, word, "\\")),
            jobs,
            aYearAgo
        );
        rows = (query.Sort, query.Descending) switch
        {
            ("tag", false) => rows.OrderBy(c => c.Tag),
            ("tag", true) => rows.OrderByDescending(c => c.Tag),
            ("openJob", _) => rows.OrderBy(c => c.OpenJobId == null).ThenByDescending(c => c.LastJobAt),
            ("recentJobs", true) => rows.OrderByDescending(c => jobs.Count(j => j.CircuitId == c.Id && j.OpenedAt >= aYearAgo))
                .ThenBy(c => c.Tag),
            ("recentJobs", false) => rows.OrderBy(c => jobs.Count(j => j.CircuitId == c.Id && j.OpenedAt >= aYearAgo)).ThenBy(c => c.Tag),
            ("jobs", false) => rows.OrderBy(c => c.JobCount).ThenBy(c => c.Tag),
            ("jobs", true) => rows.OrderByDescending(c => c.JobCount).ThenBy(c => c.Tag),
            ("lastFault", false) => rows.OrderBy(c => c.LastFound == null).ThenBy(c => c.LastFound),
            ("lastFault", true) => rows.OrderByDescending(c => c.LastJobAt),
            ("area" or "", true) => rows.OrderByDescending(c => c.Area).ThenByDescending(c => c.Tag),
            ("area" or "", false) => rows.OrderBy(c => c.Area).ThenBy(c => c.Tag),
            _ => throw query.UnknownSort("area, tag, openJob, jobs, recentJobs or lastFault"),
        };
        return query.PageAsync(
            rows,
            c => new CircuitListItem(
                c.Id,
                c.Tag,
                c.Title,
                c.Area,
                c.Enclosure,
                c.LatestNumber,
                c.JobCount,
                c.OpenJobId,
                c.LastFound,
                c.LastJobAt,
                jobs.Count(j => j.CircuitId == c.Id && j.OpenedAt >= aYearAgo),
                jobs.Where(j => j.CircuitId == c.Id).OrderByDescending(j => j.OpenedAt).Select(j => j.Outcome).FirstOrDefault()
                    == CircuitFilter.HandedOver
            ),
            cancellation
        );
    }

    /// <summary>What the register can be narrowed to.</summary>
    public async Task<CircuitChoices> ChoicesAsync(CancellationToken cancellation) =>
        new(
            await db.Circuits.Select(c => c.Area).Distinct().OrderBy(a => a).Take(JobStore.MostChoices).ToListAsync(cancellation),
            await db.Circuits.Select(c => c.Enclosure).Distinct().OrderBy(e => e).Take(JobStore.MostChoices).ToListAsync(cancellation)
        );

    /// <summary>What a circuit is found by, and what lists over many need of it.</summary>
    internal static void Describe(CircuitRow row, CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        (row.Title, row.Area, row.Enclosure) = (circuit.Title, circuit.Area, circuit.Enclosure);
        Outlines.Draw(row, compiled);
        row.SearchText = string.Join(' ', row.Tag, row.Title, row.Area, row.Enclosure, row.LastFound).ToLowerInvariant();
    }

    private async Task<Imported> ImportAsync(CompiledCircuit taken, bool isNew, CancellationToken cancellation)
    {
        var circuit = taken.Circuit;
        var canonical = CircuitFile.Write(circuit);
        var row = await db.Circuits.FirstOrDefaultAsync(c => c.Tag == circuit.Tag, cancellation);
        if (isNew && row is not null)
        {
            throw DesignationTakenException.Of(circuit.Tag);
        }

        if (row is not null && await JsonAsync(row.LatestVersionId, cancellation) == canonical)
        {
            return new Imported(row.Id, row.Tag, row.LatestNumber, false);
        }

        var now = time.GetUtcNow();
        if (row is null)
        {
            row = new CircuitRow
            {
                Id = Guid.CreateVersion7(),
                Tag = circuit.Tag,
                Title = "",
                Area = "",
                Enclosure = "",
                CreatedAt = now,
            };
            db.Circuits.Add(row);
        }

        var version = new CircuitVersionRow
        {
            Id = Guid.CreateVersion7(),
            CircuitId = row.Id,
            Number = row.LatestNumber + 1,
            Json = canonical,
            CreatedAt = now,
        };
        db.CircuitVersions.Add(version);
        (row.LatestVersionId, row.LatestNumber) = (version.Id, version.Number);
        Describe(row, taken);
        await db.SaveChangesAsync(cancellation);
        compiled.Keep(version.Id, taken);
        return new Imported(row.Id, row.Tag, version.Number, true);
    }
}
