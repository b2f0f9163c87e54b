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
        All.First(c => c.What == told.What) is { AtDevice: true } at
            ? $"{told.Device}: {at.Text}"
            : All.First(c => c.What == told.What).Text;
}

/// <summary>What can be told, in words.</summary>
/// <param name="What">What.</param>
/// <param name="Text">In the words of the trade; after the tag of the device where it is about one.</param>
/// <param name="AtDevice">It is about one device.</param>
public sealed record CircumstanceInWords(Circumstance What, string Text, bool AtDevice);
