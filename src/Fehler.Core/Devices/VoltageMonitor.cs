using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A voltage-monitoring relay: its contacts are operated while the three line voltages are there, in sequence, within limits and
/// balanced. It lets go after a delay and comes back after another.
/// </summary>
internal sealed class VoltageMonitor : DeviceKind
{
    private const int Dropped = 0, Good = 1;

    private const double InputOhms = 60e3;

    /// <summary>The relay is fed by what it watches: below this share it drops at once.</summary>
    private const double Unfed = 0.4;

    private static readonly Complex A = Complex.FromPolarCoordinates(1, 2 * Math.PI / 3);

    public override string Id => "voltage-monitor";
    public override string Term => "voltage-monitoring relay";
    public override bool SharesTerminals => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("lineVolts", "Rated voltage phase to phase", "V", 400, 50, 1000),
        ParameterSpec.Number("underPercent", "Undervoltage limit", "%", 85, 50, 99),
        ParameterSpec.Number("overPercent", "Overvoltage limit", "%", 112, 101, 150),
        ParameterSpec.Number("unbalancePercent", "Unbalance limit", "%", 8, 2, 30),
        ParameterSpec.Number("dropSeconds", "Delay before it lets go", "s", 1, 0.05, 60),
        ParameterSpec.Number("backSeconds", "Qualifying delay before it comes back", "s", 2, 0.05, 900),
        ParameterSpec.Words("contacts", "Change-over contacts: 11-14 made while good, 11-12 while not", "11-14"),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("L1", "L2", ElementRole.Load), new("L2", "L3", ElementRole.Load), new("L3", "L1", ElementRole.Load),
        .. device.Words("contacts").Select(w => w.Split('-')).Select(e => new Element(e[0], e[1], e[1][^1] == '2' ? ElementRole.NormallyClosed : ElementRole.NormallyOpen)),
    ];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["fault", "good"];
    public override int InitialPosition(Device device) => Good;
    public override ImmutableArray<string> Appearances => ["good", "fault", "off"];

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        Lines(meter).Max() < Unfed * device.Number("lineVolts") ? "off" : Positions(device)[state.Position];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / InputOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter) =>
        Lines(meter).Max() < Unfed * device.Number("lineVolts") ? new Transition(state with { Position = Dropped }) : new Transition(state);

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) => (IsGood(device, meter), state.Position) switch
    {
        (false, Good) => new(device.Number("dropSeconds"), state with { Position = Dropped }),
        (true, Dropped) => new(device.Number("backSeconds"), state with { Position = Good }),
        _ => null,
    };

    public override ImmutableArray<Look> Looks(Device device) => [new("indicator", $"Indicator of {device.Tag}", "good", "fault")];
    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == Good ? "good" : "fault";

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        yield return new FaultMode($"{device.Tag}/set-tight", device.Tag, $"{device.Tag} is set too tight for this supply", [new PositionLocked(device.Tag, Dropped)], 0.6,
            $"Measure the three line voltages; compare with the limits on {device.Tag}; replace it if they are within them.")
        {
            ProofLook = (device.Tag, "indicator"),
        };
        yield return new FaultMode($"{device.Tag}/blind", device.Tag, $"{device.Tag} does not let go when a phase is lost", [new PositionLocked(device.Tag, Good)], 0.2, $"Test it by taking out one fuse; replace {device.Tag}.");
        foreach (var contact in Elements(device).Where(e => e.IsContact))
        {
            foreach (var mode in ContactFaults.Of(device, contact, $"Contact {contact.Name} of {device.Tag}", $"Replace {device.Tag}.", 0.6))
            {
                yield return mode;
            }
        }
    }

    private static List<double> Lines(IDeviceMeter meter) => [.. Enumerable.Range(0, 3).Select(k => Magnitude(meter.Volts(k)))];

    private static bool IsGood(Device device, IDeviceMeter meter)
    {
        var share = Lines(meter).Select(v => 100 * v / device.Number("lineVolts")).ToList();
        var mean = share.Average();
        var (v12, v23, v31) = (meter.Volts(0), meter.Volts(1), meter.Volts(2));
        var clockwise = (v12 + A * v23 + A * A * v31).Magnitude > (v12 + A * A * v23 + A * v31).Magnitude;
        return clockwise && share.Min() >= device.Number("underPercent") && share.Max() <= device.Number("overPercent")
            && 100 * share.Max(s => Math.Abs(s - mean)) / mean <= device.Number("unbalancePercent");
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] is PositionLocked
        ? new RepairNotes
        {
            Steps = ["Measure the three voltages to each other where the relay is connected, under load, before its dials are touched.", fault.Remedy, "Write down the settings as found and as left."],
            Parts = [$"{Term} {device.Tag}: same functions and range"],
            Causes = [new RootCause("The supply is really low, unbalanced or in the wrong sequence", "Volts between all phases; rotation"), new RootCause("Connected where it sees nothing of the fault: behind a transformer or a motor that feeds back", "Trace its three wires"), new RootCause("Set tighter than the supply is", "Thresholds from set point and percent")],
        }
        : base.Repair(device, fault);
}
