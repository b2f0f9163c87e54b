using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>The search for what has tripped or blown a device that is known to stand so.</summary>
/// <param name="Weights">What every hypothesis weighs in this search; the last is "none of these".</param>
/// <param name="Causes">What may be behind it, the likeliest first.</param>
internal sealed record TripSearch(double[] Weights, ImmutableArray<TripCause> Causes)
{
    /// <summary>
    /// How much less a trip by itself counts once the search is for its cause, what such a trip has to hold for the search to end, and how
    /// many causes are named.
    /// </summary>
    private const double ByItselfShare = 0.1,
        NothingBehindShare = 0.9;
    private const int MostCauses = 6;

    /// <summary>
    /// What tripped or blew did so because of something. Once it is known to stand tripped, having done so by itself counts for little, and
    /// the search goes on among what would have tripped it, until nothing of that is left or one of it is found.
    /// </summary>
    public static TripSearch? Behind(FaultMode lead, DiagnosisSession session, double[] posterior)
    {
        if (lead is not { AskWhy: not null, Alterations: [FoundInPosition trip] })
        {
            return null;
        }

        var index = session.Circuit.Devices.ToList().FindIndex(d => d.Tag == trip.Device);
        // Once it has been reset it stands tripped with none: what explained the trip is what is left of them all.
        var stands = session.Hypotheses.Select((h, i) => h.State.Devices[index].Position == trip.Position ? posterior[i] : 0).Sum() > 0.5;
        var weights = session
            .Hypotheses.Select(
                (h, i) =>
                    h.Fault is null || (stands && h.State.Devices[index].Position != trip.Position) ? 0
                    : h.Fault.IsIn(trip.Device) ? ByItselfShare * posterior[i]
                    : posterior[i] * ByDeadReadings(h, session)
            )
            .Append(0)
            .ToArray();
        var sum = weights.Sum();
        weights = [.. weights.Select(w => w / sum)];
        var causes = session
            .Hypotheses.Select((h, i) => (h.Fault, Share: weights[i]))
            .Where(x => x.Fault is { Parts.IsEmpty: true } f && f.Unit != trip.Device)
            .GroupBy(x => x.Fault!.Id)
            .Select(g => new TripCause(g.First().Fault!.Unit, g.First().Fault!.Title, g.Sum(x => x.Share)))
            .OrderByDescending(c => c.Probability)
            .ToList();
        return causes.Sum(c => c.Probability) < 1 - NothingBehindShare ? null : new TripSearch(weights, [.. causes.Take(MostCauses)]);
    }

    /// <summary>
    /// How much more a short circuit counts among what may have blown a fuse when the 0 V that speaks against it most is taken for the slip of a
    /// lead: behind a blown fuse everything shows 0 V, and a lead that touches nothing too. That nothing is shorted is said by a reading on the
    /// dead circuit (common practice: insulation before the new fuse), or by a current or a full voltage, which no slip shows.
    /// </summary>
    private static double ByDeadReadings(Hypothesis h, DiagnosisSession session) =>
        h.Fault is { IsShort: true }
            ? Math.Max(
                1,
                SlippedShare
                    / session
                        .Observations.Where(o => o.Entry is Reading r && r.Quantity.IsVolts() && MeterFault.ShowsNothing(r))
                        .Select(o => o.FitOf(h))
                        .OfType<double>()
                        .DefaultIfEmpty(1)
                        .Min()
            )
            : 1;

    /// <summary>Share of readings that are mistakes on a bad day (common practice).</summary>
    private const double SlippedShare = 0.1;
}
