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
        look.Id switch
        {
            "flag" => state.Position == Tripped ? "tripped" : "not tripped",
            "class" => (device[Plate.TripClass] / drawn[Plate.TripClass]) switch
            {
                < 0.9 => "quicker",
                > 1.1 => "slower",
                _ => look.Answers[0],
            },
            "reset-mode" => device[Plate.Reset] == drawn[Plate.Reset] ? look.Answers[0] : look.Answers[1],
            _ => ThermalTrip.DialSeen(device[Plate.SettingAmps] / drawn[Plate.SettingAmps]),
        };

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        1 / Math.Min(HeaterOhms, HeaterWatts / Math.Pow(device[Plate.SettingAmps], 2));

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == Tripped)
        {
            return device[Plate.Reset] != "automatic" ? null
                : ThermalTrip.TimeToResetByItself(state.Heat, device[Plate.TripClass]) is { Value: > 0 } cooling
                    ? new TimedTransition(cooling, state with { Position = Set }, IsLeft: true)
                : new TimedTransition(new(CoolingSeconds), state with { Position = Set });
        }

        var (highest, lowest) = Currents(device, meter);
        if (device[Plate.Type] == "electronic" && lowest < PhaseLost * highest && highest > ElectronicWorks)
        {
            return new TimedTransition(new(ElectronicPhaseLossSeconds), state with { Position = Tripped });
        }

        // Three pots of solder, each by itself: a lost phase is nothing to the others. Electronics see it by themselves, above.
        var seesLostPhase = device[Plate.Type] == "bimetal";
        var seconds = ThermalTrip.TimeToTrip(
            highest,
            seesLostPhase ? lowest : highest,
            device[Plate.TripClass],
            seesLostPhase && device[Plate.PhaseLossSensitive] == "yes",
            state.Heat
        );
        return seconds.IsFinite ? new TimedTransition(seconds, state with { Position = Tripped }, IsLeft: true) : null;
    }

    public override double Heated(Device device, DeviceState state, IDeviceMeter meter, Seconds time) =>
        ThermalTrip.Heated(state.Heat, Currents(device, meter).Highest, device[Plate.TripClass], time);

    public override Wording? Refuses(Device device, DeviceState state, string position) =>
        state.Position == Tripped && position == Positions(device)[Set]
            ? ThermalTrip.TooHot(device.Tag, state.Heat, device[Plate.TripClass])
            : null;

    private static (double Highest, double Lowest) Currents(Device device, IDeviceMeter meter)
    {
        var amps = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device[Plate.SettingAmps]).ToList();
        return (amps.Max(), amps.Min());
    }
}
