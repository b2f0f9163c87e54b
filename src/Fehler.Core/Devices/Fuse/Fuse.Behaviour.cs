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

    private const double MeltsAbove = 1.6,
        FiveSecondGate = 4.06;

    /// <summary>A fuse drops some tenths of a volt at its rated current (common practice).</summary>
    private const double LinkOhms = 0.01,
        LinkVolts = 0.2;

    /// <summary>A blown fuse is an open link.</summary>
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        (state.Position & (1 << PoleIndex(element))) != 0 ? 0 : 1 / Math.Min(LinkOhms, LinkVolts / device[Plate.RatedAmps]);

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (worst, pole) = Worst(device, meter);
        return worst > ClearsAtOnceMultiple
            ? new Transition(state with { Position = state.Position | (1 << pole) }, worst / ClearsAtOnceMultiple)
            : new Transition(state);
    }

    /// <summary>
    /// Melting time of a gG fuse: within 5 s at the upper gate, about four times its rating (IEC 60269-1, from memory), and with the
    /// fifth power of the current about it; nothing melts below 1.6 times (conventional fusing current).
    /// </summary>
    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (worst, pole) = Worst(device, meter);
        return worst > MeltsAbove
            ? new TimedTransition(new(5 * Math.Pow(worst / FiveSecondGate, -5)), state with { Position = state.Position | (1 << pole) })
            : null;
    }

    private static (double Multiple, int Pole) Worst(Device device, IDeviceMeter meter) =>
        Enumerable.Range(0, (int)device[Plate.Poles]).Select(k => (Magnitude(meter.Amps(k)) / device[Plate.RatedAmps], k)).Max();

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 0 ? "all sound" : "blown";

    private static int PoleIndex(Element element) => (int.Parse(element.OwnA, System.Globalization.CultureInfo.InvariantCulture) - 1) / 2;
}
