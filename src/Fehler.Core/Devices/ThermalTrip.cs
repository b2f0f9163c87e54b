using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Trade;

namespace Fehler.Core.Devices;

/// <summary>A bimetal trip, as overload relays and motor breakers have it: when it trips, how its dial looks, what follows a trip.</summary>
internal static class ThermalTrip
{
    /// <summary>
    /// What is left of its heat when it can be reset by hand, and when it resets by itself, over the heat at its setting: one to some
    /// minutes after a trip (common practice).
    /// </summary>
    private const double ResetsByHandBelow = 0.8,
        ResetsByItselfBelow = 0.64;

    /// <summary>Time left until it trips; never below the ultimate current.</summary>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="lowest">Lowest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="phaseLossSensitive">Whether a lost phase makes it trip earlier.</param>
    /// <param name="heat">What earlier starts and running have left in it, see <see cref="DeviceState.Heat"/>.</param>
    public static Seconds TimeToTrip(double highest, double lowest, double tripClass, bool phaseLossSensitive, double heat = 0) =>
        TripCurve.Time(highest, tripClass, lowest < 0.3 * highest, phaseLossSensitive, heat);

    /// <summary>How warm it is after a time at one current.</summary>
    /// <param name="heat">How warm it was.</param>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="time">How long.</param>
    public static double Heated(double heat, double highest, double tripClass, Seconds time) =>
        Math.Round(highest * highest + (heat - highest * highest) * Math.Exp(-time.Value / TripCurve.TimeConstant(tripClass)), 8);

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
        new(heat <= to ? 0 : TripCurve.TimeConstant(tripClass) * Math.Log(heat / to));

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
