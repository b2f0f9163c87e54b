using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal abstract partial class CoilOperated
{
    /// <summary>
    /// Pull-in and drop-out as shares of rated coil voltage. IEC 60947-4-1 (from memory) asks for pull-in from 85 %
    /// and drop-out between 20 and 75 % (direct current: 10 and 75 %); a usual contactor does it at about 75 % and 50 %,
    /// with direct current at 70 % and 25 %.
    /// </summary>
    private const double PullsInAc = 0.75,
        DropsOutAc = 0.50,
        PullsInDc = 0.70,
        DropsOutDc = 0.25,
        Buzzes = 0.45;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        var volts = device[CoilPlate.Volts];
        if (domain == Domain.Ohms && device[CoilPlate.Input] == "electronic")
        {
            return 0;
        }

        if (domain != Domain.Ac || IsDirect(device))
        {
            return 1 / device[CoilPlate.Ohms];
        }

        var closed = IsClosed(state);
        return Complex.FromPolarCoordinates(
            device[closed ? CoilPlate.SealedVa : CoilPlate.PullInVa] / (volts * volts),
            -Math.Acos(device[closed ? CoilPlate.SealedCos : CoilPlate.PullInCos])
        );
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Held
            ? new Transition(state with { Position = In })
            : new Transition(state with { Position = IsPulled(device, state, meter) ? In : Out });

    /// <summary>Whether the magnet closes or holds the armature.</summary>
    private protected bool IsPulled(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (pullsIn, dropsOut) = IsDirect(device) ? (PullsInDc, DropsOutDc) : (PullsInAc, DropsOutAc);
        return Pull(device, state, meter) >= (IsClosed(state) ? dropsOut : pullsIn);
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position != Out ? "in"
        : Pull(device, state, meter) >= Buzzes && !IsDirect(device) ? "buzzes"
        : "out";

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        device[CoilPlate.Volts] == drawn[CoilPlate.Volts] ? "as drawn" : "another voltage";

    /// <summary>
    /// How strongly the magnet pulls, 1 at rated voltage. An open coil has its voltage and no current; shorted turns draw a
    /// multiple of the current, which bucks the flux. Both leave less than the voltage promises.
    /// </summary>
    private double Pull(Device device, DeviceState state, IDeviceMeter meter)
    {
        var direct = IsDirect(device);
        var rated =
            Admittance(device, Elements(device)[CoilElement], state, direct ? Domain.Dc : Domain.Ac).Magnitude * device[CoilPlate.Volts];
        var volts = (direct ? Math.Abs(meter.DcVolts(CoilElement)) : Magnitude(meter.Volts(CoilElement))) / device[CoilPlate.Volts];
        var amps = (direct ? Math.Abs(meter.DcAmps(CoilElement)) : Magnitude(meter.Amps(CoilElement))) / rated;
        return volts < 1e-6 || amps < 1e-6 ? 0 : volts * Math.Min(amps / volts, volts / amps);
    }
}
