using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Puts a chosen test into words: where the leads go, what a good circuit shows, what each answer would leave.</summary>
/// <param name="circuit">The circuit.</param>
/// <param name="weighed">Hypotheses that were weighed.</param>
/// <param name="running">Tags of what was seen working last and has not been switched off since; empty when nothing was.</param>
/// <param name="stalled">Tags of what stands and hums; empty when nothing does.</param>
/// <param name="rough">Tags of what was seen running rough last; empty when nothing was.</param>
internal sealed class ProposalWriter(Circuit circuit, WeighedHypotheses weighed, string running, string stalled, string rough)
{
    /// <param name="c">The test.</param>
    /// <param name="proof">It shows the leading suspect directly.</param>
    /// <param name="before">The reading that it repeats; null for a new one.</param>
    public Proposal Describe(Candidate c, bool proof, Reading? before)
    {
        var watched = Watched(c);
        c = Named(c, watched);
        var outcomes = Groups(c).Select(g => Outcome(c, g)).OrderByDescending(o => o.Probability).Take(5).ToImmutableArray();
        var state = Words.Setup(circuit, c.Setup);
        return new Proposal
        {
            Kind = c.Kind,
            Quantity = c.Quantity,
            From = c.From,
            To = c.To,
            Setup = c.Setup,
            Device = c.Device,
            Look = c.Look,
            Steps = c.Steps,
            Watched = watched,
            Title =
                c.Kind == ProposalKind.Reading
                    ? c.Quantity.IsAmps()
                        ? $"{Words.Of(c.Quantity)} at {Words.Point(circuit, c.From)}, {state}"
                        : $"{Words.Of(c.Quantity)} from {Words.Point(circuit, c.From)} to {Words.Point(circuit, c.To)}, {state}"
                    : c.Text,
            Good = c.Kind == ProposalKind.Reading ? Words.Of(c.Good, c.Quantity) : c.GoodText,
            GoodValue = c is { Kind: ProposalKind.Reading, Good.Kind: PredictionKind.Value } ? Math.Round(c.Good.Value, 3) : null,
            Outcomes = outcomes,
            Bits = c.Bits,
            Minutes = c.Minutes,
            IsProof = proof,
            Before = before is null ? "" : ReadingText.Show(before.Value, before.Quantity),
            Why =
                c.Why.Length > 0 ? c.Why
                : before is not null && proof
                    ? $"Once more before anything is replaced: it showed {ReadingText.Show(before.Value, before.Quantity)}, and another reading "
                        + "of this job turned out to be a mistake. Touch the leads together first."
                : before is not null
                    ? $"Once more: it showed {ReadingText.Show(before.Value, before.Quantity)}, and what else was recorded speaks against "
                        + "that. A lead may have been beside its terminal."
                : proof && c.Bits <= TestChoice.LeastBits ? "Shows the leading suspect directly."
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"Takes about {c.Minutes:0.#} min and is worth {c.Bits:0.00} of the {weighed.Grouping.Entropy:0.00} "
                        + $"bits still open; it splits {weighed.Units.Distinct().Count(u => u.Length > 0)} units "
                        + $"{string.Join(" / ", outcomes.Select(o => $"{o.Probability * 100:0} %"))}."
                ),
            Cautions = Cautions(c),
        };
    }

    /// <summary>A device that looks the same to all but this share is not worth a glance.</summary>
    private const double LeastWatched = 0.04;

    private ImmutableArray<string> Watched(Candidate c) =>
        [
            .. c
                .Foreseen.Take(1)
                .SelectMany(a => a.Appearances.Keys)
                .Select(tag => (Tag: tag, Otherwise: 1 - LargestShare(h => c.Foreseen[h].Appearances.GetValueOrDefault(tag, ""))))
                .Where(x => x.Otherwise > LeastWatched)
                .OrderByDescending(x => Math.Round(x.Otherwise, 6))
                .Select(x => x.Tag),
        ];

    /// <summary>Of what is seen after an operation only what tells the answers apart is named: nobody reads, or looks at, a dozen devices.</summary>
    private static Candidate Named(Candidate c, ImmutableArray<string> watched) =>
        watched.IsEmpty || c.GoodArrival is not { } good
            ? c
            : c with
            {
                Shown = [.. c.Foreseen.Select(a => Words.Of(a.Appearances.Where(s => watched.Contains(s.Key))))],
                GoodText = Words.Of(good.Appearances.Where(s => watched.Contains(s.Key))),
            };

    /// <summary>Share of the hypotheses that agree on the likeliest answer.</summary>
    private double LargestShare(Func<int, string> answer) =>
        Enumerable.Range(0, weighed.Live.Length).GroupBy(answer).Max(g => g.Sum(h => weighed.Weights[h]));

    private List<List<int>> Groups(Candidate c) =>
        c.Kind == ProposalKind.Reading ? weighed.Grouping.Groups(c.Table, c.Column) : OutcomeGrouping.Groups(c.Shown!);

    private ProposalOutcome Outcome(Candidate c, List<int> group)
    {
        var weight = group.Sum(h => weighed.Weights[h]);
        var leaves = group
            .GroupBy(h => weighed.Units[h])
            .Select(g => (Unit: g.Key, Probability: g.Sum(h => weighed.Weights[h]) / weight))
            .OrderByDescending(u => u.Probability)
            .Take(4)
            .ToImmutableArray();
        string shows;
        if (c.Kind != ProposalKind.Reading)
        {
            shows = c.Shown![group[0]];
        }
        else if (c.Foretold(group[0]).Kind == PredictionKind.OverLimit)
        {
            shows = "OL";
        }
        else
        {
            var values = group.Where(h => c.Foretold(h).Kind == PredictionKind.Value).Select(h => Math.Abs(c.Foretold(h).Value)).ToList();
            shows = values.Count == 0 ? "nothing that holds (stray)" : Range(c.Quantity, values.Min(), values.Max());
        }

        var isGood = c.Kind == ProposalKind.Reading ? group.Exists(h => !c.Foretold(h).DiffersFrom(c.Good)) : shows == c.GoodText;
        return new ProposalOutcome(shows, weight, leaves, isGood);
    }

    private static string Range(Quantity quantity, double low, double high)
    {
        var (a, b) = (
            Words.Of(new Prediction(PredictionKind.Value, low), quantity),
            Words.Of(new Prediction(PredictionKind.Value, high), quantity)
        );
        return a == b || high - low < 0.1 * high
            ? b
            : $"{a.Replace("about ", "", StringComparison.Ordinal)} to {b.Replace("about ", "", StringComparison.Ordinal)}";
    }

    /// <summary>Of the likeliest suspects some leave a motor humming with what is held or operated.</summary>
    private bool HumsMeanwhile(Candidate c)
    {
        var steps =
            c.Kind == ProposalKind.Operation ? c.Steps
            : c.Setup.Dead || c.Setup.Change != SetupChange.None ? []
            : c.Setup.Held;
        return !steps.IsEmpty
            && weighed.Live.Take(AskedAboutHumming).Select((h, i) => h.Stalls(steps) ? weighed.Weights[i] : 0).Sum() > HumsAbove;
    }

    private const int AskedAboutHumming = 20;
    private const double HumsAbove = 0.1;

    /// <summary>Letting a Start go starts nothing, and a Stop neither.</summary>
    private bool Starts(Step step) =>
        step.Device.Length > 0
        && circuit.Device(step.Device) is var device
        && device.Kind.Elements(device).FirstOrDefault()?.Role != ElementRole.NormallyClosed
        && step.Position != device.Kind.Positions(device)[device.Kind.InitialPosition(device)];

    private ImmutableArray<string> Cautions(Candidate c)
    {
        var cautions = ImmutableArray.CreateBuilder<string>();
        if (running.Length > 0 && c.Setup.Change == SetupChange.Isolate)
        {
            cautions.Add($"{running} was seen running: stop it by its own Stop before anything is isolated.");
        }

        if (
            c.Kind == ProposalKind.Reading
            && CostModel.SecondPersonAt(circuit, c.From, c.To, c.Setup).Select(p => p.Name).ToList() is [_, ..] places
        )
        {
            cautions.Add($"A second person at {string.Join(" and ", places)}, in sight or on the radio.");
        }

        if (stalled.Length > 0)
        {
            cautions.Add($"{stalled} stands and hums: switch it off at once, it burns within a minute.");
        }
        else if (rough.Length > 0 && c.Setup.Change != SetupChange.Isolate)
        {
            cautions.Add($"{rough} was seen running rough: no longer than this takes, then stop it; on two lines it overheats.");
        }
        else if (HumsMeanwhile(c))
        {
            cautions.Add("A motor may stand and hum: let go and stop it at once, no longer than the reading takes.");
        }

        if (c is { Kind: ProposalKind.Reading, Quantity: Quantity.Volts or Quantity.DcVolts })
        {
            cautions.Add("Live work: insulated probes, one hand where you can, local rules for live testing.");
        }

        if (c is { Kind: ProposalKind.Reading, Quantity: Quantity.Amps or Quantity.StartingAmps })
        {
            cautions.Add("Clamp around one lead only; keep clear of bare terminals and of what turns.");
        }

        if (c.Setup.Change == SetupChange.Isolate)
        {
            cautions.Add("Isolate, lock off and prove dead at the point of work first.");
        }

        if (c is { Kind: ProposalKind.Reading, Quantity: Quantity.Insulation })
        {
            cautions.Add(
                "500 V DC on the motor and its cable: nobody at either end, electronics and surge protection disconnected; "
                    + "discharge afterwards."
            );
        }

        if (c.Setup.Change == SetupChange.Energise || c.Steps.Any(Starts) || (c.Quantity.IsLive() && c.Setup.Held.Length > 0))
        {
            cautions.Add("The motor may start: warn everyone and stand clear.");
        }

        return cautions.ToImmutable();
    }
}
