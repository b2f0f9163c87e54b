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

    private const double HeaterOhms = 0.03;

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "flag"
            ? state.Position == Tripped
                ? "tripped"
                : "not tripped"
            : ThermalTrip.DialSeen(device[Plate.SettingAmps] / drawn[Plate.SettingAmps]);

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / HeaterOhms;

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == Tripped)
        {
            return device[Plate.Reset] == "automatic" ? new TimedTransition(new(CoolingSeconds), state with { Position = Set }) : null;
        }

        var currents = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device[Plate.SettingAmps]).ToList();
        var seconds = ThermalTrip.TimeToTrip(
            currents.Max(),
            currents.Min(),
            device[Plate.TripClass],
            device[Plate.PhaseLossSensitive] == "yes"
        );
        return seconds.IsFinite ? new TimedTransition(seconds, state with { Position = Tripped }) : null;
    }
}
