using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>A recorded item of a bench check with its judgement.</summary>
public sealed record BenchCheckResult(string Id, string Device, string What, string Reading, bool Good)
{
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
