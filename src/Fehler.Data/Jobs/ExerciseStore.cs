using Fehler.Core.Bench;
using Fehler.Core.Jobs;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>An exercise as a list shows it.</summary>
/// <param name="Stopped">Why it was stopped; empty otherwise.</param>
/// <param name="Found">It was closed as repaired and proved; null while it goes on.</param>
public sealed record ExerciseItem(
    Guid Id,
    Guid Circuit,
    string CircuitTag,
    string CircuitTitle,
    string Title,
    DateTimeOffset OpenedAt,
    string Who,
    Difficulty Difficulty,
    string Code,
    bool WithAdvice,
    string Stopped,
    bool? Found,
    int Readings,
    int Mistakes
);

/// <summary>Exercises, which are in no list of jobs.</summary>
public sealed class ExerciseStore(FehlerDb db)
{
    /// <summary>A page of the exercises, the newest first; of one person, of one class's code, or of all.</summary>
    public async Task<Page<ExerciseItem>> ListAsync(ListQuery query, string? who, string? code, CancellationToken cancellation)
    {
        var rows = db.Jobs.IgnoreQueryFilters().AsNoTracking().Where(j => j.Exercise != null);
        if (!string.IsNullOrEmpty(who))
        {
            rows = rows.Where(j => j.Journal.Any(r => r.Sequence == 1 && r.Who == who));
        }

        if (!string.IsNullOrEmpty(code))
        {
            var written = $"\"code\":{System.Text.Json.JsonSerializer.Serialize(code, JournalJson.Options)}";
            rows = rows.Where(j => j.Exercise!.Contains(written));
        }

        var sound = query.Sound();
        var total = await rows.CountAsync(cancellation);
        var page = await rows.OrderByDescending(j => j.OpenedAt)
            .Skip(sound.Skip)
            .Take(sound.Take)
            .Select(j => new
            {
                Row = j,
                j.Circuit!.Tag,
                j.Circuit.Title,
                Who = j.Journal.Where(r => r.Sequence == 1).Select(r => r.Who).FirstOrDefault(),
            })
            .ToListAsync(cancellation);
        return new Page<ExerciseItem>(
            total,
            [
                .. page.Select(p =>
                {
                    var exercise = System.Text.Json.JsonSerializer.Deserialize<Exercise>(p.Row.Exercise!, JournalJson.Options)!;
                    return new ExerciseItem(
                        p.Row.Id,
                        p.Row.CircuitId,
                        p.Tag,
                        p.Title,
                        p.Row.Title,
                        p.Row.OpenedAt,
                        p.Who ?? "",
                        exercise.Difficulty,
                        exercise.Code,
                        exercise.WithAdvice,
                        exercise.Stopped,
                        exercise.Stopped.Length > 0 ? false
                            : p.Row.ClosedAt is null ? null
                            : p.Row.Outcome == nameof(CloseOutcome.RepairedAndProved)
                                && exercise.Faults.Any(f =>
                                    f.Id == p.Row.FoundFault || f.Id.StartsWith($"{p.Row.FoundUnit}/", StringComparison.Ordinal)
                                ),
                        p.Row.ReadingCount,
                        exercise.Mistakes.Length
                    );
                }),
            ]
        );
    }
}
