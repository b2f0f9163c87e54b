using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class SinglePhaseMotor
{
    private const int Standing = 0,
        Running = 1;

    /// <summary>A load that no motor turns, over its rated torque.</summary>
    private const double Jammed = 2;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        if (domain != Domain.Ac)
        {
            return 1 / device[Plate.WindingOhms];
        }

        var rated = device[Plate.Amps] / device[Plate.Volts];
        return state.Position == Running
            ? Complex.FromPolarCoordinates(rated * Math.Max(0.5, device[Plate.Load]), -Math.Acos(device[Plate.CosPhi]))
            : Complex.FromPolarCoordinates(rated * StartMultiple, -Math.Acos(StartCos));
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var volts = Magnitude(meter.Volts(0)) / device[Plate.Volts];
        var able =
            device[Plate.Load] < Jammed
            && (state.Position == Running ? volts > Keeps : volts > Starts && device[Plate.Capacitor] == "sound");
        return new Transition(state with { Position = able ? Running : Standing });
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position == Running && Magnitude(meter.Amps(0)) > 0.1 * device[Plate.Amps] ? "runs"
        : Magnitude(meter.Amps(0)) > 0.5 * device[Plate.Amps] ? "hums, does not start"
        : "stopped";

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (device[Plate.Load] / drawn[Plate.Load]) switch
        {
            > 2.5 => "jammed",
            > 1.3 => "heavy",
            _ => "turns freely",
        };
}
