using System.Collections.Immutable;
using System.Reflection;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>A sum as it is offered.</summary>
/// <param name="Source">Where its rule comes from.</param>
/// <param name="Given">What it asks for.</param>
public sealed record SumDescription(string Id, string Group, string Name, string Source, ImmutableArray<OptionDescription> Given);

/// <summary>Every sum of the trade, found in this assembly.</summary>
public static class SumCatalogue
{
    private static readonly ImmutableSortedDictionary<string, Type> Types = typeof(Sum)
        .Assembly.GetTypes()
        .Where(t => t.IsSubclassOf(typeof(Sum)))
        .ToImmutableSortedDictionary(t => t.GetCustomAttribute<SumAttribute>()!.Id, t => t);

    public static ImmutableArray<SumDescription> All { get; } =
    [
        .. Types
            .Values.Select(t => (Type: t, Sum: t.GetCustomAttribute<SumAttribute>()!))
            .Select(x => new SumDescription(x.Sum.Id, x.Sum.Group, x.Sum.Name, x.Sum.Source, OptionReader.Describe(x.Type, "{}", _ => 0)))
            .OrderBy(s => s.Group, StringComparer.Ordinal)
            .ThenBy(s => s.Name, StringComparer.Ordinal),
    ];

    /// <summary>A sum with what is given for it.</summary>
    /// <exception cref="RefusedException">No such sum, or what is given makes no sense.</exception>
    public static Sum Read(string id, JsonElement given) =>
        Types.TryGetValue(id, out var type)
            ? (Sum)OptionReader.Read(type, given)
            : throw new RefusedException($"There is no such sum; there are: {string.Join(", ", Types.Keys)}.");

    /// <summary>Its name in the catalogue.</summary>
    public static string IdOf(Sum sum) => sum.GetType().GetCustomAttribute<SumAttribute>()!.Id;
}
