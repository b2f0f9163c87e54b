using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class SinglePhaseMotor
{
    private const int Standing = 0,
        Running = 1,
        Backwards = 2;

    /// <summary>A load that no motor turns, over its rated torque.</summary>
    private const double Jammed = 2;

    /// <summary>Turns of the auxiliary winding over those of the main one, and its ohms over the main one's (common practice).</summary>
    private const double Turns = 1.2,
        AuxiliaryOhms = 2;

    /// <summary>
    /// Least starting torque at which it starts, as the cross product of the two windings' currents over the square of the main one's
    /// starting current: a run capacitor of usual size gives some 0.05, a starting capacitor 0.3, none gives nothing.
    /// </summary>
    private const double LeastTorque = 0.025;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        var isMain = element.OwnA == "U1";
        if (domain != Domain.Ac)
        {
            return 1 / (device[Plate.WindingOhms] * (isMain ? 1 : AuxiliaryOhms));
        }

        var rated = device[Plate.Amps] / device[Plate.Volts];
        var main =
            state.Position == Standing
                ? Complex.FromPolarCoordinates(rated * StartMultiple, -Math.Acos(StartCos))
                : Complex.FromPolarCoordinates(rated * Math.Max(0.5, device[Plate.Load]), -Math.Acos(device[Plate.CosPhi]));
        return isMain ? main
            : state.Position != Standing && device[Plate.Auxiliary] == "start" && device[Plate.Switch] == "sound" ? 0
            : main / (Turns * Turns);
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var volts = Magnitude(meter.Volts(0)) / device[Plate.Volts];
        var next =
            device[Plate.Load] >= Jammed ? Standing
            : state.Position != Standing
                ? volts > Keeps ? state.Position
                    : Standing
            : volts <= Starts ? Standing
            : Direction(device, meter);
        return new Transition(state with { Position = next });
    }

    /// <summary>Which way it starts: towards the winding whose current lags.</summary>
    private static int Direction(Device device, IDeviceMeter meter)
    {
        if (!HasAuxiliary(device))
        {
            return device[Plate.Capacitor] == "sound" ? Running : Standing;
        }

        var torque = (meter.Amps(1) * Complex.Conjugate(meter.Amps(0))).Imaginary / Math.Pow(StartMultiple * device[Plate.Amps], 2);
        return torque > LeastTorque ? Running
            : torque < -LeastTorque ? Backwards
            : Standing;
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        var amps = Magnitude(meter.Amps(0)) / device[Plate.Amps];
        return state.Position != Standing && amps > 0.1
            ? state.Position == Running
                ? "runs"
                : "runs reverse"
            : amps > 0.5
                ? "hums, does not start"
                : "stopped";
    }

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (device[Plate.Load] / drawn[Plate.Load]) switch
        {
            > 2.5 => "jammed",
            > 1.3 => "heavy",
            _ => "turns freely",
        };
}
