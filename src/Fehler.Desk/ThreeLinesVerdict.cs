using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Upkeep;

namespace Fehler.Desk;

/// <summary>Three values as they were typed.</summary>
/// <param name="Job">Job that they are taken in, for currents beside those of another way of running; none when absent.</param>
/// <param name="Place">Where they are taken, with <paramref name="Job"/>.</param>
public sealed record ThreeLinesTyped(Quantity Quantity, ImmutableArray<string> Typed, Guid? Job = null, string? Place = null);

/// <summary>What three values of the lines say together.</summary>
public static class ThreeLinesVerdict
{
    /// <summary>The verdict, a sentence each.</summary>
    /// <param name="compiled">The circuit.</param>
    /// <param name="given">The values as they were typed.</param>
    /// <param name="job">The job that they are taken in; null when in none.</param>
    /// <exception cref="RefusedException">One of them is no number.</exception>
    public static ImmutableArray<string> Of(CompiledCircuit compiled, ThreeLinesTyped given, JobState? job)
    {
        var (quantity, typed) = (given.Quantity, given.Typed.IsDefault ? [] : given.Typed);
        double[] values = [.. typed.Take(4).Select(t => Number(t, quantity))];
        var verdict = compiled.ThreeLines.Verdict(quantity, values);
        return given is { Quantity: Quantity.Amps, Place: { } place } && job is not null && OtherWay.Says(job, place, values) is { } beside
            ? verdict.Add(beside)
            : verdict;
    }

    private static double Number(string? typed, Quantity quantity) =>
        ReadingText.Parse(typed ?? "", quantity) is { Kind: ReadingKind.Number } value
            ? value.Number
            : throw new RefusedException($"“{typed}” is no number; a set is of three numbers.");
}
