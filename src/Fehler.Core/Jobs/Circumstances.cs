using System.Collections.Immutable;

namespace Fehler.Core.Jobs;

/// <summary>What people tell who were there, in the words of the trade.</summary>
public static class Circumstances
{
    /// <summary>What can be told, in the order in which it is asked.</summary>
    public static ImmutableArray<CircumstanceInWords> All { get; } =
    [
        new(Circumstance.EveryTime, "Every time", false),
        new(Circumstance.Sometimes, "Only now and then", false),
        new(Circumstance.OnlyWarm, "Only once it is warm, or shakes", false),
        new(Circumstance.RanUntilNow, "It ran until today", false),
        new(Circumstance.WorkedOn, "Somebody worked on it", false),
        new(Circumstance.NeverRan, "It has never run since it was wired", false),
        new(Circumstance.Water, "Rain, washing down, damp", false),
        new(Circumstance.PartChanged, "Was changed", true),
        new(Circumstance.Burnt, "Smells burnt, is hot or discoloured", true),
    ];

    /// <summary>In words, as the journal shows it.</summary>
    public static string Of(Told told) =>
        All.First(c => c.What == told.What) is { AtDevice: true } at ? $"{told.Device}: {at.Text}"
        : told.Tries > 0 ? FormattableString.Invariant($"It failed {told.Failed} of the last {told.Tries} times")
        : told.Until is { } day ? FormattableString.Invariant($"It ran until {day:yyyy-MM-dd}")
        : All.First(c => c.What == told.What).Text;

    /// <summary>Why these numbers cannot be told; null when they can.</summary>
    public static string? Refusal(Told told) =>
        told is { Tries: not 0 } or { Failed: not 0 } && told.What is not (Circumstance.EveryTime or Circumstance.Sometimes)
            ? "Tries are counted where it fails every time or now and then."
        : told.Tries is < 0 or > MostTries || told.Failed < 0 || told.Failed > told.Tries
            ? $"Of the last tries, up to {MostTries}, some or all failed: say how many of how many."
        : told.Tries > 0 && told.Failed == 0 ? "It failed at none of them: then there is no fault to look for."
        : told.Tries > 0 && told.Failed == told.Tries != (told.What == Circumstance.EveryTime)
            ? "Failed at all of them is every time; at some is now and then."
        : told.Until is not null && told.What != Circumstance.RanUntilNow ? "A day is told with: it ran until then."
        : null;

    private const int MostTries = 1000;
}

/// <summary>What can be told, in words.</summary>
/// <param name="What">What.</param>
/// <param name="Text">In the words of the trade; after the tag of the device where it is about one.</param>
/// <param name="AtDevice">It is about one device.</param>
public sealed record CircumstanceInWords(Circumstance What, string Text, bool AtDevice);
