namespace Fehler.Core.Upkeep;

/// <summary>How often a part fails here and what to hold of it.</summary>
/// <param name="FailuresAYear">Of all that are installed, a year.</param>
/// <param name="NeededMeanwhile">Expected number that fails while one that was ordered is on its way.</param>
/// <param name="Hold">Least number on the shelf with which, nineteen times in twenty, none is missing.</param>
/// <param name="ChanceWithout">Chance that one is needed while another is on its way, with nothing on the shelf.</param>
/// <remarks>
/// Failures come by chance, so many a part-year (Poisson). Few of one part were seen fail: its rate is drawn towards that of its noun in
/// this plant (a gamma prior worth half a failure, Jeffreys' weight), and as failures come in it speaks for itself.
/// </remarks>
public sealed record SpareAdvice(double FailuresAYear, double NeededMeanwhile, int Hold, double ChanceWithout)
{
    /// <summary>Nineteen times in twenty.</summary>
    private const double Service = 0.95;

    /// <summary>Half a failure: what the plant's experience with alike parts is worth.</summary>
    private const double PriorFailures = 0.5;

    private const double WeeksAYear = 52.18;

    /// <summary>What to hold of a part.</summary>
    /// <param name="installed">How many are fitted in the plant.</param>
    /// <param name="failures">How many of them failed in the time that is looked at.</param>
    /// <param name="years">How long that is.</param>
    /// <param name="alikeFailuresAYear">What one part of this noun fails a year in this plant.</param>
    /// <param name="leadWeeks">From ordering to having it.</param>
    public static SpareAdvice Of(int installed, int failures, double years, double alikeFailuresAYear, double leadWeeks)
    {
        var each = (PriorFailures + failures) / (PriorFailures / alikeFailuresAYear + installed * years);
        var meanwhile = each * installed * leadWeeks / WeeksAYear;
        var (hold, term) = (0, Math.Exp(-meanwhile));
        for (var sum = term; sum < Service && hold < installed; sum += term)
        {
            term *= meanwhile / ++hold;
        }

        return new SpareAdvice(each * installed, meanwhile, hold, 1 - Math.Exp(-meanwhile));
    }

    /// <summary>What one part of a noun fails a year, from all of that noun in the plant; never nothing.</summary>
    public static double RateOf(int failures, double partYears) => (failures + PriorFailures) / (partYears + 1);
}
