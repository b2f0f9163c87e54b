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
        if (elements[^1].Role == ElementRole.Load && Magnitude(meter.Volts(elements.Length - 1)) > ShuntReleases * device[Plate.ShuntVolts])
        {
            return new Transition(state with { Position = 2 });
        }

        var worst = Enumerable.Range(0, (int)device[SwitchPlate.Poles]).Max(k => Magnitude(meter.Amps(k))) / device[SwitchPlate.RatedAmps];
        return worst > MagneticMultiple ? new Transition(state with { Position = 2 }, worst / MagneticMultiple) : new Transition(state);
    }
}
