using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class OverloadRelay
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

    /// <summary>Time a bimetal relay takes to cool so far that it resets by itself (common practice: some minutes).</summary>
    private const double CoolingSeconds = 180;

    private const double HeaterOhms = 0.03;

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "flag"
            ? state.Position == Tripped
                ? "tripped"
                : "not tripped"
            : (device[Plate.SettingAmps] / drawn[Plate.SettingAmps]) switch
            {
                < 0.9 => "lower",
                > 1.1 => "higher",
                _ => "as it should be",
            };

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / HeaterOhms;

    /// <summary>
    /// One thermal time constant: t = tau ln(m² / (m² - u²)), calibrated to the middle of the class band at 7.2 times
    /// the setting, cold (class 10: 4 to 10 s; IEC 60947-4-1, from memory).
    /// </summary>
    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == Tripped)
        {
            return device[Plate.Reset] == "automatic" ? new TimedTransition(CoolingSeconds, state with { Position = Set }) : null;
        }

        var currents = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device[Plate.SettingAmps]).ToList();
        var seconds = TripSeconds(currents.Max(), currents.Min(), device[Plate.TripClass], device[Plate.PhaseLossSensitive] == "yes");
        return double.IsFinite(seconds) ? new TimedTransition(seconds, state with { Position = Tripped }) : null;
    }

    /// <summary>Time to trip from cold, seconds; infinite below the ultimate current.</summary>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="lowest">Lowest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="phaseLossSensitive">Whether a lost phase makes it trip earlier.</param>
    internal static double TripSeconds(double highest, double lowest, double tripClass, bool phaseLossSensitive)
    {
        var phaseLost = lowest < 0.3 * highest;
        var ultimate =
            !phaseLost ? Ultimate
            : phaseLossSensitive ? UltimatePhaseLossSensitive
            : UltimateTwoPoles;
        if (highest <= ultimate)
        {
            return double.PositiveInfinity;
        }

        var tau = 0.7 * tripClass / Math.Log(7.2 * 7.2 / (7.2 * 7.2 - Ultimate * Ultimate));
        return tau * Math.Log(highest * highest / (highest * highest - ultimate * ultimate));
    }
}
