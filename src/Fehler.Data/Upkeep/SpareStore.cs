using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>Where a part is fitted.</summary>
public sealed record FittedAt(Guid Circuit, string Tag, string Device);

/// <summary>A part with what to hold of it.</summary>
/// <param name="Part">Its name: twins have one.</param>
/// <param name="Noun">What it is.</param>
/// <param name="Installed">How many are fitted.</param>
/// <param name="Where">Where, the first of them; whose machine stands idle lends.</param>
/// <param name="Failures">Of them that were found failed and repaired in the time that is looked at.</param>
/// <param name="Used">Times that a repair fitted one in that time.</param>
/// <param name="Advice">What to hold.</param>
/// <param name="LeadWeeks">From ordering to having it.</param>
/// <param name="IsLeadKnown">Somebody has said so; otherwise it is the usual.</param>
/// <param name="Stock">On the shelf.</param>
/// <param name="Short">How many fewer than advised; 0 for enough.</param>
public sealed record SparePart(
    string Part,
    string Noun,
    int Installed,
    IReadOnlyList<FittedAt> Where,
    int Failures,
    int Used,
    SpareAdvice Advice,
    double LeadWeeks,
    bool IsLeadKnown,
    int Stock,
    int Short,
    string Note
);

/// <summary>What to keep on the shelf, from what is fitted, what has failed and how long a new one takes.</summary>
public sealed class SpareStore(FehlerDb db, Outlines outlines, TimeProvider time)
{
    /// <summary>Failures are counted over so many years, and a part whose lead nobody knows takes so many weeks (common practice).</summary>
    private const double Years = 5,
        UsualLeadWeeks = 4;

    private const double MostWeeks = 260;
    private const int MostStock = 100_000,
        MostWhere = 40;

    /// <summary>A page of the parts, what is missing first.</summary>
    public async Task<Page<SparePart>> ListAsync(ListQuery query, bool onlyShort, CancellationToken cancellation)
    {
        var words = query.Words();
        IEnumerable<SparePart> parts = (await AllAsync(cancellation)).Where(p =>
            (!onlyShort || p.Short > 0)
            && words.All(w =>
                $"{p.Part} {p.Note} {string.Join(' ', p.Where.Select(x => x.Tag))}".Contains(w, StringComparison.OrdinalIgnoreCase)
            )
        );
        Func<SparePart, IComparable> by = query.Sort switch
        {
            "short" or "" => p => -p.Short,
            "part" => p => p.Part,
            "installed" => p => p.Installed,
            "failures" => p => p.Failures,
            "hold" => p => p.Advice.Hold,
            "chance" => p => p.Advice.ChanceWithout,
            _ => throw query.UnknownSort("short, part, installed, failures, hold or chance"),
        };
        var sorted = (query.Descending ? parts.OrderByDescending(by) : parts.OrderBy(by))
            .ThenByDescending(p => p.Advice.ChanceWithout)
            .ThenBy(p => p.Part, StringComparer.Ordinal)
            .ToList();
        var sound = query.Sound();
        return new Page<SparePart>(sorted.Count, [.. sorted.Skip(sound.Skip).Take(sound.Take)]);
    }

    /// <summary>Every part.</summary>
    public async Task<List<SparePart>> AllAsync(CancellationToken cancellation)
    {
        var circuits = await outlines.AllAsync(null, null, cancellation);
        var now = time.GetUtcNow();
        var since = now.AddYears(-(int)Years);
        var proved = nameof(CloseOutcome.RepairedAndProved);
        var found = await db
            .Jobs.AsNoTracking()
            .Where(j => j.Outcome == proved && j.FoundUnit != null && j.OpenedAt >= since)
            .Select(j => new
            {
                j.CircuitId,
                j.FoundUnit,
                j.FoundFault,
                j.OpenedAt,
            })
            .ToListAsync(cancellation);

        var used = (await UsedAsync(since, cancellation)).ToLookup(u => (u.CircuitId, u.Unit));

        // Fewer years than are looked at where the journal does not go back so far.
        var years = found.Count == 0 ? 1 : Math.Clamp((now - found.Min(f => f.OpenedAt)).TotalDays / 365.25, 1, Years);
        var store = await db.Parts.AsNoTracking().ToDictionaryAsync(p => p.Name, cancellation);
        var failed = found.ToLookup(f => (f.CircuitId, f.FoundUnit));
        var fitted = circuits
            .SelectMany(c =>
                c.Outline.Parts.Select(p =>
                    (
                        Part: p,
                        At: new FittedAt(c.Id, c.Tag, p.Device),
                        Failures: failed[(c.Id, p.Device)].Count(f => IsPartOf(p, f.FoundFault ?? "", HasCoil(c, p))),
                        Used: used[(c.Id, p.Device)].Count(u => u.IsCoil == p.IsCoil || (u.IsCoil && !HasCoil(c, p)))
                    )
                )
            )
            .ToList();
        var rates = fitted
            .GroupBy(f => f.Part.Noun)
            .ToDictionary(g => g.Key, g => SpareAdvice.RateOf(g.Sum(f => f.Failures), g.Count() * years));
        return
        [
            .. fitted
                .GroupBy(f => f.Part.Name)
                .Select(g =>
                {
                    var known = store.GetValueOrDefault(g.Key);
                    var lead = known is { LeadWeeks: > 0 } ? known.LeadWeeks : UsualLeadWeeks;
                    var (failures, noun) = (g.Sum(f => f.Failures), g.First().Part.Noun);
                    var advice = SpareAdvice.Of(g.Count(), failures, years, rates[noun], lead);
                    return new SparePart(
                        g.Key,
                        noun,
                        g.Count(),
                        [.. g.Select(f => f.At).Take(MostWhere)],
                        failures,
                        g.Sum(f => f.Used),
                        advice,
                        lead,
                        known is { LeadWeeks: > 0 },
                        known?.Stock ?? 0,
                        Math.Max(0, advice.Hold - (known?.Stock ?? 0)),
                        known?.Note ?? ""
                    );
                }),
        ];
    }

    /// <summary>What the store knows of a part.</summary>
    /// <exception cref="RefusedException">No such part, or no number that a store has.</exception>
    public async Task SetAsync(string part, double leadWeeks, int stock, string note, CancellationToken cancellation)
    {
        if (!(leadWeeks is >= 0 and <= MostWeeks) || stock is < 0 or > MostStock)
        {
            throw new RefusedException($"A part takes 0 to {MostWeeks:0} weeks, and 0 to {MostStock} are on the shelf.");
        }

        if (CircuitLimits.Refuse(note, EntryRules.Text) is { } wrong)
        {
            throw new RefusedException($"The note {wrong}");
        }

        if (!(await outlines.AllAsync(null, null, cancellation)).Any(c => c.Outline.Parts.Any(p => p.Name == part)))
        {
            throw new RefusedException("No circuit has such a part.");
        }

        var row = await db.Parts.FirstOrDefaultAsync(p => p.Name == part, cancellation);
        if (row is null)
        {
            row = new PartRow { Name = part };
            db.Parts.Add(row);
        }

        (row.LeadWeeks, row.Stock, row.Note) = (leadWeeks, stock, note.Trim());
        await db.SaveChangesAsync(cancellation);
    }

    /// <summary>What repairs fitted: the unit, and whether it was only its coil.</summary>
    private async Task<List<(Guid CircuitId, string Unit, bool IsCoil)>> UsedAsync(DateTimeOffset since, CancellationToken cancellation)
    {
        var repairs = await db
            .Journal.AsNoTracking()
            .Where(r => r.Kind == nameof(Repair) && r.At >= since)
            .Join(db.Jobs, r => r.JobId, j => j.Id, (r, j) => new { j.CircuitId, r.Json })
            .ToListAsync(cancellation);
        return
        [
            .. repairs
                .Select(r => (r.CircuitId, Repair: JobStore.ReadOrNull(r.Json) as Repair))
                .Where(r => r.Repair is { Parts.IsEmpty: false })
                .Select(r =>
                    (r.CircuitId, r.Repair!.Unit, r.Repair.Parts.All(p => p.Contains("coil", StringComparison.OrdinalIgnoreCase)))
                ),
        ];
    }

    private static bool HasCoil(OutlinedCircuit circuit, InstalledPart part) =>
        circuit.Outline.Parts.Any(p => p.IsCoil && p.Device == part.Device);

    /// <summary>Whether a fault takes this part: a coil's the coil, where that is changed by itself; every other the device.</summary>
    private static bool IsPartOf(InstalledPart part, string fault, bool hasCoil) =>
        part.IsCoil || !hasCoil
            ? !part.IsCoil || fault.Contains("/coil", StringComparison.Ordinal)
            : !fault.Contains("/coil", StringComparison.Ordinal);
}
