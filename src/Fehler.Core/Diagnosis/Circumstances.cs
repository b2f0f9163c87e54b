using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What people tell who were there, as evidence: how likely it is to be told that with a fault. All figures are common practice and rough on
/// purpose: what was told moves the suspicion by a factor of some ten, and two readings outweigh it.
/// </summary>
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

    /// <summary>How likely it is to be told this with a fault, and with one that comes and goes.</summary>
    /// <param name="told">What was told.</param>
    /// <param name="fault">The fault; null when nothing is wrong now.</param>
    /// <param name="circuit">The circuit.</param>
    internal static Judgement Judged(Told told, FaultMode? fault, Circuit circuit)
    {
        const double likely = 1,
            fairly = 0.5,
            seldom = 0.1;
        if (fault is null)
        {
            // What cured itself is told of as coming and going, if at all.
            return new Judgement(told.What is Circumstance.Sometimes or Circumstance.OnlyWarm ? fairly : seldom * 2, Said(told));
        }

        var isLoose = fault.Alterations.Any(a => a is ConductorOpen or ConductorSeriesOhms);
        var isLeak = !fault.IsWiring && fault.Alterations.OfType<Bridge>().Any();
        var isSetting = fault.Alterations.OfType<ParameterIs>().Any();
        var isThere = fault.Units.Contains(told.Device);
        var isAtItsEnds = circuit.Conductors.Any(c =>
            fault.Units.Contains(c.Id) && (c.From.Device == told.Device || c.To.Device == told.Device)
        );
        var (steady, comesAndGoes) = told.What switch
        {
            Circumstance.EveryTime => (likely, seldom),
            Circumstance.Sometimes => (seldom, likely),
            Circumstance.OnlyWarm => (seldom, likely),
            Circumstance.RanUntilNow => Same(fault.IsWiring ? seldom : likely),
            Circumstance.WorkedOn or Circumstance.NeverRan => Same(
                fault.IsWiring ? likely
                : isLoose || isSetting ? fairly
                : seldom
            ),
            Circumstance.Water => Same(isLeak ? likely : 1.5 * seldom),
            Circumstance.PartChanged => Same(
                isAtItsEnds ? likely
                : isThere ? fairly
                : seldom
            ),
            _ => Same(isThere || isAtItsEnds ? likely : seldom),
        };
        return new Judgement(steady, Said(told)) { ComingAndGoingFit = comesAndGoes };

        static (double, double) Same(double fit) => (fit, fit);
    }

    private static string Said(Told told) => Of(told);
}

/// <summary>What can be told, in words.</summary>
/// <param name="What">What.</param>
/// <param name="Text">In the words of the trade; after the tag of the device where it is about one.</param>
/// <param name="AtDevice">It is about one device.</param>
public sealed record CircumstanceInWords(Circumstance What, string Text, bool AtDevice);
