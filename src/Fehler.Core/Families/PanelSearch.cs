using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Families;

/// <summary>A family with options that make what was counted in a panel.</summary>
/// <param name="Family">The family.</param>
/// <param name="Options">Options that differ from its defaults; tag and title as they were given.</param>
/// <param name="Circuit">The circuit they make.</param>
/// <param name="Differs">What the circuit has otherwise than it was counted, a line each; empty when all agrees.</param>
public sealed record PanelMatch(FamilyDescription Family, JsonObject Options, Circuit Circuit, ImmutableArray<string> Differs);

/// <summary>What was found for a count.</summary>
/// <param name="Matches">The likeliest first.</param>
/// <param name="TellsApart">What to count next, because it tells most of the matches apart; null when nothing would.</param>
public sealed record PanelFound(ImmutableArray<PanelMatch> Matches, PanelSort? TellsApart);

/// <summary>
/// Finds the families, with the options that matter, whose circuits have what stands in a panel. Nothing is known here of any family: circuits
/// are built and counted. From a family's defaults the one change of an option that brings the count nearest is made, again and again, until
/// none helps; of two ways with the same count the one with fewer changes stands.
/// </summary>
public static class PanelSearch
{
    private const double WrongCoil = 2,
        ChangedOption = 0.05;
    private const int MostChanges = 12,
        MostMatches = 4;

    /// <summary>Further from the count than the best by this much is no match.</summary>
    private const double Worse = 1.5;

    /// <summary>
    /// What is counted in the circuit of a family with some options never changes, and building circuits is what a search spends its time on;
    /// null where the options do not go together.
    /// </summary>
    private static readonly ConcurrentDictionary<string, PanelTally?> Tallies = new();

    /// <summary>Some megabytes; a search fills a few hundred.</summary>
    private const int MostTallies = 50_000;

    private static readonly ConcurrentDictionary<string, ImmutableArray<Change>> Telling = new();

    /// <exception cref="RefusedException">It is not a count.</exception>
    public static PanelFound Find(PanelCount count, string tag, string title, CancellationToken cancellation)
    {
        count.Check();
        var all = FamilyCatalogue
            .All.AsParallel()
            .WithCancellation(cancellation)
            .Select(f => Nearest(f, count))
            .OfType<Candidate>()
            .ToList();
        var best = all.Min(m => m.Cost);
        var near = all.Where(m => m.Cost <= best + Worse).OrderBy(m => m.Cost).Take(MostMatches).ToList();
        return new PanelFound([.. near.Select(c => c.Named(tag, title, count))], TellsApart(near, count));
    }

    private static Candidate? Nearest(FamilyDescription family, PanelCount count)
    {
        var best = Tried(family, [], count);
        for (var i = 0; best is not null && i < MostChanges; i++)
        {
            var better = TellingOf(family, count)
                .Select(c => Tried(family, c.On(best.Options), count))
                .OfType<Candidate>()
                .MinBy(m => m.Cost);
            if (better is null || better.Cost >= best.Cost)
            {
                break;
            }

            best = better;
        }

        return best;
    }

    /// <summary>The family with these options; null where they do not go together.</summary>
    private static Candidate? Tried(FamilyDescription family, JsonObject options, PanelCount count) =>
        TallyOf(family, options) is not { } tally
            ? null
            : new Candidate(
                family,
                options,
                tally,
                count.Differences(tally).Sum(d => Math.Abs(d.Drawn - d.Counted))
                    + (count.HasCoil(tally) ? 0 : WrongCoil)
                    + ChangedOption * options.Count
            );

    private static PanelTally? TallyOf(FamilyDescription family, JsonObject options)
    {
        if (Tallies.Count > MostTallies)
        {
            Tallies.Clear();
        }

        return Tallies.GetOrAdd(
            $"{family.Id} {string.Join(' ', options.OrderBy(o => o.Key, StringComparer.Ordinal))}",
            _ =>
            {
                try
                {
                    return PanelTally.Of(Built(family, options, "X", "X"));
                }
                catch (RefusedException)
                {
                    return null;
                }
            }
        );
    }

    /// <exception cref="RefusedException">The options do not go together.</exception>
    private static Circuit Built(FamilyDescription family, JsonObject options, string tag, string title) =>
        FamilyCatalogue.Build(family.Id, Named(options, tag, title).Deserialize<JsonElement>());

    private static JsonObject Named(JsonObject options, string tag, string title) =>
        new Change("title", JsonValue.Create(title)).On(new Change("tag", JsonValue.Create(tag)).On(options));

    /// <summary>Changes of one option that can be seen in a count, and the control supplies that give the voltage on a coil's label.</summary>
    private static IEnumerable<Change> TellingOf(FamilyDescription family, PanelCount count) =>
        Telling
            .GetOrAdd(family.Id, _ => [.. Visible(family)])
            .Concat(
                count.CoilVolts > 0
                    ? family
                        .Options.Where(o => o.Name == "control")
                        .SelectMany(Values)
                        .Select(v => new Change("control", v) { And = new Change("controlVolts", JsonValue.Create(count.CoilVolts)) })
                    : []
            );

    private static IEnumerable<Change> Visible(FamilyDescription family)
    {
        var plain = TallyOf(family, [])!;
        foreach (var option in family.Options)
        {
            foreach (var change in Values(option).Select(v => new Change(option.Name, v)))
            {
                // What cannot stand by itself may be told by what it needs: it is kept.
                if (
                    option.Name == "control"
                    || TallyOf(family, change.On([])) is not { } changed
                    || !changed.Counts.SequenceEqual(plain.Counts)
                )
                {
                    yield return change;
                }
            }
        }
    }

    private static IEnumerable<JsonNode> Values(OptionDescription option) =>
        option.Type switch
        {
            "choice" => option.Choices.Select(c => JsonValue.Create(c.Value)!),
            "yes-no" => [JsonValue.Create(true), JsonValue.Create(false)],
            "whole" => Enumerable.Range((int)option.Minimum, (int)(option.Maximum - option.Minimum) + 1).Select(n => JsonValue.Create(n)!),
            // Zero leaves out what the number is of: a lock-out without a time has no timer.
            "number" when option is { Default: "0", Minimum: 0 } => [JsonValue.Create(0.0), JsonValue.Create(Math.Min(5, option.Maximum))],
            _ => [],
        };

    private static PanelSort? TellsApart(List<Candidate> near, PanelCount count) =>
        PanelSort
            .All.Select((s, i) => (Sort: s, Kinds: near.Select(c => c.Tally.Counts[i]).Distinct().Count()))
            .Where(x => x.Kinds > 1 && !count.Counts.ContainsKey(x.Sort.Id))
            .OrderByDescending(x => x.Kinds)
            .Select(x => x.Sort)
            .FirstOrDefault();

    /// <summary>A family with some options, and how far it is from the count.</summary>
    private sealed record Candidate(FamilyDescription Family, JsonObject Options, PanelTally Tally, double Cost)
    {
        public PanelMatch Named(string tag, string title, PanelCount count) =>
            new(
                Family,
                PanelSearch.Named(Options, tag, title),
                Built(Family, Options, tag, title),
                [
                    .. count.Differences(Tally).Select(d => d.ToString()),
                    .. count.HasCoil(Tally) ? [] : new[] { FormattableString.Invariant($"no coil of {count.CoilVolts:0} V") },
                ]
            );
    }

    /// <summary>One option with another value, and what only makes sense with it.</summary>
    private sealed record Change(string Name, JsonNode Value)
    {
        public Change? And { get; init; }

        public JsonObject On(JsonObject options)
        {
            var changed = (JsonObject)options.DeepClone();
            changed[Name] = Value.DeepClone();
            return And?.On(changed) ?? changed;
        }
    }
}
