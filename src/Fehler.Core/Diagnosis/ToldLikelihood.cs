using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What people tell who were there, as evidence: how likely it is to be told that with a fault. All figures are common practice and rough on
/// purpose: what was told moves the suspicion by a factor of some ten, and two readings outweigh it.
/// </summary>
internal static class ToldLikelihood
{
    /// <summary>How often what comes and goes shows itself at a try, where nothing else is known.</summary>
    private const double ShareOfTries = 0.5;

    /// <summary>How likely it is to be told this with a fault, and with one that comes and goes.</summary>
    /// <param name="told">What was told.</param>
    /// <param name="fault">The fault; null when nothing is wrong now.</param>
    /// <param name="circuit">The circuit.</param>
    public static Judgement Judged(Told told, FaultMode? fault, Circuit circuit)
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
            // Ten of ten say more than two of two: what comes half of the time would seldom have come in each of them.
            Circumstance.EveryTime => (likely, told.Tries > 0 ? Math.Max(Math.Pow(ShareOfTries, told.Tries), seldom / 5) : seldom),
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

    private static string Said(Told told) => Circumstances.Of(told);
}
