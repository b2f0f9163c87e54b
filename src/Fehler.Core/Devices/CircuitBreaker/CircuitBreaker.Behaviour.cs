using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class CircuitBreaker
{
    /// <summary>Magnetic release of a type C breaker: at most 10 times rated current (IEC 60898-1, from memory).</summary>
    private const double MagneticMultiple = 10;

    /// <summary>A shunt release trips from about 70 % of its voltage (IEC 60947-2, from memory).</summary>
    private const double ShuntReleases = 0.7;

    private const double Ultimate = 1.3,
        HeatingSeconds = 66;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        20 / Math.Pow(device[Plate.ShuntVolts], 2);

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position != 1)
        {
            return new Transition(state);
        }

        var elements = Elements(device);
        if (elements[^1].Role == ElementRole.Load && ShuntVolts(meter, elements.Length - 1) > ShuntReleases * device[Plate.ShuntVolts])
        {
            return new Transition(state with { Position = 2 });
        }

        var worst = Worst(device, meter);
        return worst > MagneticMultiple ? new Transition(state with { Position = 2 }, worst / MagneticMultiple) : new Transition(state);
    }

    /// <summary>
    /// Its bimetal: no trip within an hour at 1.13 times, a trip within an hour at 1.45 times and between 1 and 60 s at 2.55 times the
    /// rated current from cold (IEC 60898-1, from memory). One time constant of 66 s about 1.3 times puts the last at 20 s.
    /// </summary>
    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position == 1 && Worst(device, meter) is > Ultimate and var m
            ? new TimedTransition(new(HeatingSeconds * Math.Log(m * m / (m * m - Ultimate * Ultimate))), state with { Position = 2 })
            : null;

    private static double Worst(Device device, IDeviceMeter meter) =>
        Enumerable.Range(0, (int)device[SwitchPlate.Poles]).Max(k => Magnitude(meter.Amps(k))) / device[SwitchPlate.RatedAmps];

    /// <summary>Alternating or direct: the release does not mind.</summary>
    private static double ShuntVolts(IDeviceMeter meter, int coil) => Math.Max(Magnitude(meter.Volts(coil)), Math.Abs(meter.DcVolts(coil)));
}
