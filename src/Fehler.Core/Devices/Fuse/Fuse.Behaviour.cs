using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Fuse
{
    /// <summary>
    /// From here on a fuse is taken to clear at once: six times its rating melts a gG fuse within some tenths of a second
    /// (common practice). A motor's start is six times the motor's current and three times that of its fuses.
    /// </summary>
    private const double ClearsAtOnceMultiple = 6;

    private const double LinkOhms = 0.01;

    /// <summary>A blown fuse is an open link.</summary>
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        (state.Position & (1 << PoleIndex(element))) != 0 ? 0 : 1 / LinkOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (worst, pole) = Enumerable
            .Range(0, (int)device[Plate.Poles])
            .Select(k => (Magnitude(meter.Amps(k)) / device[Plate.RatedAmps], k))
            .Max();
        return worst > ClearsAtOnceMultiple
            ? new Transition(state with { Position = state.Position | (1 << pole) }, worst / ClearsAtOnceMultiple)
            : new Transition(state);
    }

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 0 ? "all sound" : "blown";

    private static int PoleIndex(Element element) => (int.Parse(element.A, System.Globalization.CultureInfo.InvariantCulture) - 1) / 2;
}
