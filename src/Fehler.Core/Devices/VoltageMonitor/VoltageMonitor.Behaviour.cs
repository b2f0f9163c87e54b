using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class VoltageMonitor
{
    private const double InputOhms = 60e3;

    /// <summary>The relay is fed by what it watches: below this share it drops at once.</summary>
    private const double Unfed = 0.4;

    private static readonly Complex A = Complex.FromPolarCoordinates(1, 2 * Math.PI / 3);

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        Lines(meter).Max() < Unfed * device[Plate.LineVolts] ? "off" : Positions(device)[state.Position];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / InputOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter) =>
        Lines(meter).Max() < Unfed * device[Plate.LineVolts] ? new Transition(state with { Position = Dropped }) : new Transition(state);

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) =>
        (IsGood(device, meter), state.Position) switch
        {
            (false, Good) => new(new(device[Plate.DropSeconds]), state with { Position = Dropped }),
            (true, Dropped) => new(new(device[Plate.BackSeconds]), state with { Position = Good }),
            _ => null,
        };

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == Good ? "good" : "fault";

    private static List<double> Lines(IDeviceMeter meter) => [.. Enumerable.Range(0, 3).Select(k => Magnitude(meter.Volts(k)))];

    /// <summary>Negative over positive sequence from which a relay calls a phase lost, not unbalanced (common practice).</summary>
    private const double LostShare = 0.3;

    private static bool IsGood(Device device, IDeviceMeter meter) => Verdict(device, meter) == "good";

    /// <summary>What it finds wrong first: in the order in which such relays judge.</summary>
    private static string Verdict(Device device, IDeviceMeter meter)
    {
        var share = Lines(meter).Select(v => 100 * v / device[Plate.LineVolts]).ToList();
        if (share.Max() < 100 * Unfed)
        {
            return "off";
        }

        var mean = share.Average();
        var (v12, v23, v31) = (meter.Volts(0), meter.Volts(1), meter.Volts(2));
        var (positive, negative) = ((v12 + A * v23 + A * A * v31).Magnitude, (v12 + A * A * v23 + A * v31).Magnitude);
        return Math.Min(positive, negative) > LostShare * Math.Max(positive, negative) ? "phase lost"
            : positive < negative ? "wrong sequence"
            : device[Plate.Neutral] == "yes" && !IsNeutralGood(device, meter) ? "neutral lost"
            : share.Min() < device[Plate.UnderPercent] ? "undervoltage"
            : share.Max() > device[Plate.OverPercent] ? "overvoltage"
            : 100 * share.Max(s => Math.Abs(s - mean)) / mean > device[Plate.UnbalancePercent] ? "unbalance"
            : "good";
    }

    /// <summary>Each phase to neutral within the limits of the set point over the root of three.</summary>
    private static bool IsNeutralGood(Device device, IDeviceMeter meter) =>
        Enumerable
            .Range(3, 3)
            .Select(k => 100 * Magnitude(meter.Volts(k)) * Math.Sqrt(3) / device[Plate.LineVolts])
            .All(s => s >= device[Plate.UnderPercent] && s <= device[Plate.OverPercent]);

    public override string Measured(Device device, Look look, DeviceState state, IDeviceMeter meter) =>
        Verdict(device, meter) is var verdict && verdict == "good" && state.Position == Dropped ? "fault" : verdict;
}
