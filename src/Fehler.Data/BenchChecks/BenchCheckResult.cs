using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Data;

/// <summary>A recorded item of a bench check with its judgement.</summary>
public sealed record BenchCheckResult(string Id, string Device, string What, string Reading, bool Good)
{
    /// <summary>What was measured of parts that are good, each by itself: what a bad one shows is no trend.</summary>
    internal static IEnumerable<Reading> GoodReadings(CompiledCircuit compiled, IEnumerable<BenchCheckResult> results)
    {
        foreach (var result in results.Where(r => r.Good))
        {
            if (compiled.BenchCheck.Find(result.Id) is { IsMeasured: true } item && ReadOrNull(item, result.Reading) is { } reading)
            {
                yield return reading;
            }
        }
    }

    /// <summary>A reading that an older version wrote down otherwise is left out.</summary>
    private static Reading? ReadOrNull(BenchCheckItem item, string typed)
    {
        try
        {
            return item.AsEntry(typed);
        }
        catch (RefusedException)
        {
            return null;
        }
    }

    /// <summary>The items of a recorded bench check; none when they cannot be read.</summary>
    public static ImmutableArray<BenchCheckResult> Read(string json)
    {
        try
        {
            return
                JsonSerializer.Deserialize<ImmutableArray<BenchCheckResult>>(json) is { IsDefault: false } items
                && items.All(i => i is { Id: not null, Device: not null, What: not null, Reading: not null })
                ? items
                : [];
        }
        catch (JsonException)
        {
            return [];
        }
    }
}
