using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class OverloadRelay
{
    /// <summary>Time a bimetal relay takes to cool so far that it resets by itself (common practice: some minutes).</summary>
    private const double CoolingSeconds = 180;

    /// <summary>
    /// An electronic relay that sees a phase missing trips within about three seconds, from some 40 % of its setting on (common practice).
    /// </summary>
    private const double PhaseLost = 0.3,
        ElectronicWorks = 0.4,
        ElectronicPhaseLossSeconds = 3;

    /// <summary>A heater turns about two watts into heat at its setting, whatever that is (common practice).</summary>
    private const double HeaterOhms = 0.03,
        HeaterWatts = 2;

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "flag"
            ? state.Position == Tripped
                ? "tripped"
                : "not tripped"
            : ThermalTrip.DialSeen(device[Plate.SettingAmps] / drawn[Plate.SettingAmps]);

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        1 / Math.Min(HeaterOhms, HeaterWatts / Math.Pow(device[Plate.SettingAmps], 2));

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == Tripped)
        {
            return device[Plate.Reset] == "automatic" ? new TimedTransition(new(CoolingSeconds), state with { Position = Set }) : null;
        }

        var currents = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device[Plate.SettingAmps]).ToList();
        var (highest, lowest) = (currents.Max(), currents.Min());
        var seconds = device[Plate.Type] switch
        {
            // Three pots of solder, each by itself: a lost phase is nothing to the others.
            "melting alloy" => ThermalTrip.TimeToTrip(highest, highest, device[Plate.TripClass], phaseLossSensitive: false),
            "electronic" when lowest < PhaseLost * highest && highest > ElectronicWorks => new(ElectronicPhaseLossSeconds),
            "electronic" => ThermalTrip.TimeToTrip(highest, highest, device[Plate.TripClass], phaseLossSensitive: false),
            _ => ThermalTrip.TimeToTrip(highest, lowest, device[Plate.TripClass], device[Plate.PhaseLossSensitive] == "yes"),
        };
        return seconds.IsFinite ? new TimedTransition(seconds, state with { Position = Tripped }) : null;
    }
}
