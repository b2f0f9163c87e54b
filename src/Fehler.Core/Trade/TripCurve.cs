using Fehler.Core.Circuits;

namespace Fehler.Core.Trade;

/// <summary>How long a thermal trip takes at a current: one thermal time constant, laid through the published gates of its class.</summary>
/// <remarks>
/// t = tau ln((m² - h) / (m² - u²)), calibrated at 7.2 times the setting, cold, so that it lies within the band of each class there
/// (10: 4 to 10 s, 20: 6 to 20 s, 30: 9 to 30 s; IEC 60947-4-1, from memory) and within the class's own number of seconds at 6 times
/// (NEMA ICS 2, from memory).
/// </remarks>
public static class TripCurve
{
    /// <summary>
    /// Current it carries for ever, as a multiple of the setting: between 1.05 (no trip) and 1.2 (trip), IEC 60947-4-1, from memory.
    /// </summary>
    public const double Ultimate = 1.12;

    /// <summary>
    /// With one phase lost a sensitive relay trips at 1.15 times, an insensitive one at 1.32 times (IEC 60947-4-1, from memory).
    /// </summary>
    private const double UltimatePhaseLossSensitive = 1.08,
        UltimateTwoPoles = 1.25;

    /// <summary>Time from cold at 7.2 times the setting over the class.</summary>
    private const double ColdShare = 0.65;

    /// <summary>
    /// Between these shares of the time of the curve a sound trip acts: the gates of class 10 at 7.2 times, 4 and 10 s, over 6.5 s.
    /// </summary>
    public const double Soonest = 4 / 6.5,
        Latest = 10 / 6.5;

    /// <summary>The multiple of its setting that it just carries.</summary>
    public static double UltimateOf(bool isPhaseLost, bool phaseLossSensitive) =>
        !isPhaseLost ? Ultimate
        : phaseLossSensitive ? UltimatePhaseLossSensitive
        : UltimateTwoPoles;

    /// <summary>Time until it trips; never at or below the current it carries for ever.</summary>
    /// <param name="multiple">Highest current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="isPhaseLost">One of its three elements carries next to nothing.</param>
    /// <param name="phaseLossSensitive">Whether a lost phase makes it trip earlier.</param>
    /// <param name="heat">What earlier current has left in it: 0 cold, 1 after hours at its setting (the square of the multiple).</param>
    public static Seconds Time(double multiple, double tripClass, bool isPhaseLost = false, bool phaseLossSensitive = true, double heat = 0)
    {
        var ultimate = UltimateOf(isPhaseLost, phaseLossSensitive);
        if (multiple <= ultimate)
        {
            return Seconds.Never;
        }

        var (square, trips) = (multiple * multiple, ultimate * ultimate);
        return new(heat >= trips ? 0 : TimeConstant(tripClass) * Math.Log((square - heat) / (square - trips)));
    }

    /// <summary>Thermal time constant of a class, s.</summary>
    public static double TimeConstant(double tripClass) => ColdShare * tripClass / Math.Log(7.2 * 7.2 / (7.2 * 7.2 - Ultimate * Ultimate));
}
