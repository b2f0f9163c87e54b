using System.Linq.Expressions;
using Fehler.Core.Circuits;
using Microsoft.EntityFrameworkCore;

namespace Fehler.Data;

/// <summary>A page of a list.</summary>
/// <param name="Total">How many there are in all.</param>
/// <param name="Items">Those of this page.</param>
public sealed record Page<T>(int Total, IReadOnlyList<T> Items);

/// <summary>Which page of a list, in which order, of what matches.</summary>
/// <param name="Search">Words that all have to occur; empty for everything.</param>
/// <param name="Sort">Column to sort by; empty for the list's own order.</param>
/// <param name="Descending">From the end.</param>
/// <param name="Skip">Rows before the page.</param>
/// <param name="Take">Rows of the page.</param>
public sealed record ListQuery(string Search = "", string Sort = "", bool Descending = false, int Skip = 0, int Take = ListQuery.UsualTake)
{
    public const int UsualTake = 50,
        MostTake = 200;

    /// <summary>Nobody searches for more words than this.</summary>
    private const int MostWords = 8;

    /// <summary>The query with what makes no sense put right.</summary>
    public ListQuery Sound() => this with { Skip = Math.Max(0, Skip), Take = Math.Clamp(Take, 1, MostTake) };

    /// <summary>What is said about a column that the list does not have.</summary>
    /// <param name="known">The columns it has, for the eye.</param>
    internal RefusedException UnknownSort(string known) =>
        new($"'{(Sort.Length > 40 ? Sort[..40] + "..." : Sort)}' is not a column of this list; sort by {known}.");

    /// <summary>The words that all have to occur, in small letters.</summary>
    internal string[] Words() => [.. Search.ToLowerInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostWords)];

    /// <summary>Rows whose search text holds every word.</summary>
    internal IQueryable<T> Matching<T>(IQueryable<T> rows, Func<string, Expression<Func<T, bool>>> holds) =>
        Words().Aggregate(rows, (left, word) => left.Where(holds($"%{Escaped(word)}%")));

    internal async Task<Page<TItem>> PageAsync<T, TItem>(
        IQueryable<T> rows,
        Expression<Func<T, TItem>> item,
        CancellationToken cancellation
    )
    {
        var sound = Sound();
        return new Page<TItem>(
            await rows.CountAsync(cancellation),
            await rows.Skip(sound.Skip).Take(sound.Take).Select(item).ToListAsync(cancellation)
        );
    }

    private static string Escaped(string word) =>
        word.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal);
}
