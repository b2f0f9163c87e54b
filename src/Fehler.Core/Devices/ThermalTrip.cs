using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <summary>A bimetal trip, as overload relays and motor breakers have it: when it trips, how its dial looks, what follows a trip.</summary>
internal static class ThermalTrip
{
    /// <summary>
    /// Current it carries for ever, as a multiple of the setting: between 1.05 (no trip) and 1.2 (trip), IEC 60947-4-1, from memory.
    /// </summary>
    private const double Ultimate = 1.12;

    /// <summary>
    /// With one phase lost a sensitive relay trips at 1.15 times, an insensitive one at 1.32 times (IEC 60947-4-1, from memory).
    /// </summary>
    private const double UltimatePhaseLossSensitive = 1.08,
        UltimateTwoPoles = 1.25;

    /// <summary>Time from cold at 7.2 times the setting over the class.</summary>
    private const double ColdShare = 0.65;

    /// <summary>
    /// What is left of its heat when it can be reset by hand, and when it resets by itself, over the heat at its setting: one to some
    /// minutes after a trip (common practice).
    /// </summary>
    private const double ResetsByHandBelow = 0.8,
        ResetsByItselfBelow = 0.64;

    /// <summary>Time left until it trips; never below the ultimate current.</summary>
    /// <remarks>
    /// One thermal time constant: t = tau ln((m² - h) / (m² - u²)), calibrated at 7.2 times the setting, cold, so that it lies within the band
    /// of each class there (10: 4 to 10 s, 20: 6 to 20 s, 30: 9 to 30 s; IEC 60947-4-1, from memory) and within the class's own number of
    /// seconds at 6 times (NEMA ICS 2, from memory).
    /// </remarks>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="lowest">Lowest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="phaseLossSensitive">Whether a lost phase makes it trip earlier.</param>
    /// <param name="heat">What earlier starts and running have left in it, see <see cref="DeviceState.Heat"/>.</param>
    public static Seconds TimeToTrip(double highest, double lowest, double tripClass, bool phaseLossSensitive, double heat = 0)
    {
        var phaseLost = lowest < 0.3 * highest;
        var ultimate =
            !phaseLost ? Ultimate
            : phaseLossSensitive ? UltimatePhaseLossSensitive
            : UltimateTwoPoles;
        if (highest <= ultimate)
        {
            return Seconds.Never;
        }

        var (square, trips) = (highest * highest, ultimate * ultimate);
        return new(heat >= trips ? 0 : TimeConstant(tripClass) * Math.Log((square - heat) / (square - trips)));
    }

    /// <summary>How warm it is after a time at one current.</summary>
    /// <param name="heat">How warm it was.</param>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="time">How long.</param>
    public static double Heated(double heat, double highest, double tripClass, Seconds time) =>
        Math.Round(highest * highest + (heat - highest * highest) * Math.Exp(-time.Value / TimeConstant(tripClass)), 8);

    /// <summary>Time without current until it resets by itself.</summary>
    public static Seconds TimeToResetByItself(double heat, double tripClass) => TimeToCool(heat, ResetsByItselfBelow, tripClass);

    /// <summary>Why it does not stay reset yet; null when it does.</summary>
    public static Wording? TooHot(string tag, double heat, double tripClass)
    {
        if (heat <= ResetsByHandBelow)
        {
            return null;
        }

        var halfMinutes = Math.Ceiling(TimeToCool(heat, ResetsByHandBelow, tripClass).Value / 30);
        return $"{tag} is too hot to reset: let it cool for about {30 * halfMinutes:0} s";
    }

    private static Seconds TimeToCool(double heat, double to, double tripClass) =>
        new(heat <= to ? 0 : TimeConstant(tripClass) * Math.Log(heat / to));

    private static double TimeConstant(double tripClass) => ColdShare * tripClass / Math.Log(7.2 * 7.2 / (7.2 * 7.2 - Ultimate * Ultimate));

    /// <summary>How a dial looks beside what is drawn.</summary>
    /// <param name="share">Setting over the one that is drawn.</param>
    public static string DialSeen(double share) =>
        share switch
        {
            < 0.9 => "lower",
            > 1.1 => "higher",
            _ => "as it should be",
        };

    /// <summary>A trip is a consequence: what it is of decides what is repaired.</summary>
    public static RepairNotes Aftermath(double settingAmps, ImmutableArray<Wording> parts) =>
        new()
        {
            Steps =
            [
                "Write down what the device shows before anything is reset.",
                "Feel the motor; let motor and relay cool.",
                $"Compare the dial with the nameplate: {settingAmps:0.##} A as described here.",
                "Look for the cause below, then reset, with everybody clear of the machine.",
                "Clamp each phase at the first start: starting current, how long it takes, running current.",
            ],
            Parts = parts,
            Causes =
            [
                new RootCause(
                    "The load is jammed, stiff or too heavy",
                    "Turn the shaft by hand; running current in all phases high and alike"
                ),
                new RootCause(
                    "A phase is missing: fuse, contact, joint, winding",
                    "One phase carries nothing, the others some 1.7 times; volts across each pole"
                ),
                new RootCause("Low or unbalanced voltage", "Volts between phases under load"),
                new RootCause(
                    $"{Term.EarthFault.Capital} or shorted turns in the motor or its cable",
                    "One phase carries more than the others; insulation, windings"
                ),
                new RootCause("Set too low, wrong heater or class", "Dial, class and starting time"),
                new RootCause("Hot cabinet, or too many starts", "Temperature; starts an hour"),
            ],
            Cautions = [$"A reset may start the motor. Do not reset again and again: each time heats the motor further."],
            Isolated = false,
        };
}
