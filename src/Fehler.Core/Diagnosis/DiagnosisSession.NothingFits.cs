using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <content>What is thought of when no single fault fits: two faults at once, wirings that differ, wires exchanged.</content>
public sealed partial class DiagnosisSession
{
    /// <summary>Probability of two faults at once, and how badly the leading single one has to fit before they are thought of.</summary>
    private const double PairPrior = 0.1,
        PairsBelow = 0.1;

    /// <summary>
    /// How well the leading single fault fits all evidence, each piece measured against the single fault that fits it best.
    /// </summary>
    private double FitOfLeading() => Fit(Leading(_hypotheses.Take(_singles)));

    private double Fit(Hypothesis hypothesis) => _observations.Aggregate(1.0, (fit, o) => fit * FitBesideBest(o, hypothesis));

    private double FitBesideBest(Observation observation, Hypothesis hypothesis) =>
        Math.Min(1, observation.By(hypothesis).Fit / _hypotheses.Take(_singles).Where(IsUpToDate).Max(h => observation.By(h).Fit));

    private Hypothesis Leading(IEnumerable<Hypothesis> hypotheses) => hypotheses.Where(IsUpToDate).MaxBy(h => h.LogWeight)!;

    /// <summary>Numbers of the wires that were read where the leading single fault explains it much worse than some other one does.</summary>
    private HashSet<string> OddWires()
    {
        var leading = Leading(_hypotheses.Take(_singles));
        return
        [
            .. _observations
                .Where(o => FitBesideBest(o, leading) < OddBelow)
                .Select(o => o.Entry)
                .OfType<Reading>()
                .SelectMany(r => new[] { r.From, r.To })
                .Select(Circuit.WireAt),
        ];
    }

    private const double OddBelow = 0.1;

    /// <summary>
    /// No single fault fits: pairs are followed through the journal so far and stand beside the single ones, and so do wirings that differ
    /// from the drawing; where no pair fits either, any two control wires exchanged.
    /// </summary>
    private void SuspectMore()
    {
        var known = _hypotheses.Skip(_singles).ToLookup(h => h.Fault!.Id);
        var chosen = PairChoice.Of(_hypotheses[.._singles], _observations, f => Math.Log(f.Weight / Beginning.TotalWeight)).ToList();
        var pairs = Suspected(chosen, p => PairPrior * p.Weight / (Beginning.TotalWeight * Beginning.TotalWeight));
        var differences = Suspected(Compiled.Faults.Differences, d => d.Weight / Beginning.TotalWeight);
        _hypotheses = [.. _hypotheses.Take(_singles), .. pairs, .. differences];
        Bring(pairs);
        if (Fit(Leading(_hypotheses)) < PairsBelow)
        {
            var next = _exchanged.NotThoughtOf(OddWires(), _hypotheses.Max(h => h.LogWeight));
            _exchanged.Keep(AtOnce.Of(next, f => Beginning.Once(f, f.Weight / Beginning.TotalWeight).ToArray()).SelectMany(h => h));
        }

        _hypotheses = [.. _hypotheses, .. _exchanged.Kept];
        WakeWhatMatters();
        _hypotheses = [.. _hypotheses.Except(_exchanged.Forget(_hypotheses.Max(h => h.LogWeight)))];

        Hypothesis[] Suspected(IReadOnlyList<FaultMode> faults, Func<FaultMode, double> prior) =>
            [
                .. AtOnce
                    .Of(faults, f => known.Contains(f.Id) ? [.. known[f.Id]] : Beginning.Suspected(f, prior(f)).ToArray())
                    .SelectMany(h => h),
            ];
    }
}
