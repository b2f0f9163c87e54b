using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A timing relay. On-delay: the delayed contacts change over when the coil has been energised for the set time. Off-delay: they
/// change at once and go back after it. Star-delta: 17-18 makes at once (star), opens after the time, and after the
/// dwell 17-28 makes (delta).
/// </summary>
internal sealed class TimerRelay : CoilOperated
{
    private const int Rest = 0, Running = 1, Done = 2, Dwelling = 3;

    public override string Id => "timer-relay";
    public override string Term => "timing relay";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 4, 4);
    public override bool SharesTerminals => true;

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } =
    [
        ParameterSpec.Word("function", "What is delayed", "on-delay", "on-delay", "off-delay", "star-delta"),
        ParameterSpec.Words("contacts", "Contacts by terminal numbers; last digits 5-6 open delayed, 7-8 close delayed, 1-2 and 3-4 act at once", "57-58"),
        ParameterSpec.Number("seconds", "Time set on the dial", "s", 6, 0.05, 3600),
        ParameterSpec.Number("dwellSeconds", "Star-delta: pause between star and delta", "s", 0.05, 0, 10),
    ];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "timing", "timed out", "dwell"];
    public override ImmutableArray<Actuation> Actuations(Device device) => [];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Appearances => ["off", "timing", "on"];

    private protected override ImmutableArray<Element> Contacts(Device device) => device.Word("function") == "star-delta"
        ? [new("17", "18", ElementRole.NormallyOpen), new("17", "28", ElementRole.NormallyOpen)]
        : [.. device.Words("contacts").Select(Auxiliary)];

    private protected override bool IsClosed(DeviceState state) => state.Position != Rest;

    public override bool IsMade(Device device, Element element, DeviceState state)
    {
        if (device.Word("function") == "star-delta")
        {
            return element.B == "18" ? state.Position == Running : state.Position == Done;
        }

        var delayed = element.B[^1] is '6' or '8';
        var operated = state.Position == Done || (state.Position == Running && (!delayed || device.Word("function") == "off-delay"));
        return operated == (element.Role == ElementRole.NormallyOpen);
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var on = IsPulled(device, state, meter);
        // Off-delay: "timed out" is energised, "timing" is running off with the coil dead.
        var next = device.Word("function") == "off-delay"
            ? on ? Done : state.Position == Done ? Running : state.Position
            : !on ? Rest : state.Position == Rest ? Running : state.Position;
        return new Transition(state with { Position = next });
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) => state.Position switch
    {
        Running when device.Word("function") == "star-delta" => new(device.Number("seconds"), state with { Position = Dwelling }),
        Running => new(device.Number("seconds"), state with { Position = device.Word("function") == "off-delay" ? Rest : Done }),
        Dwelling => new(device.Number("dwellSeconds"), state with { Position = Done }),
        _ => null,
    };

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position switch { Rest => "off", Done => "on", _ => "timing" };

    public override ImmutableArray<Look> Looks(Device device) =>
    [
        .. base.Looks(device),
        new("dial", FormattableString.Invariant($"Dial of {device.Tag}: set to {device.Number("seconds"):0.##} s?"), "as it should be", "shorter", "longer"),
    ];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => look.Id == "dial"
        ? (device.Number("seconds") / drawn.Number("seconds")) switch { < 0.8 => "shorter", > 1.25 => "longer", _ => "as it should be" }
        : base.Seen(device, look, state, drawn);

    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        yield return new FaultMode($"{device.Tag}/never", device.Tag, $"Timing relay {device.Tag} never times out", [new PositionLocked(device.Tag, Running)], 0.8, $"Check the dial; replace {device.Tag}.");
        yield return new FaultMode($"{device.Tag}/at-rest", device.Tag, $"Timing relay {device.Tag} does nothing", [new PositionLocked(device.Tag, Rest)], 0.6, $"Replace {device.Tag}.");
        yield return new FaultMode($"{device.Tag}/at-once", device.Tag, $"Timing relay {device.Tag} has timed out from the start", [new PositionLocked(device.Tag, Done)], 0.4, $"Check the dial; replace {device.Tag}.");
        yield return new FaultMode($"{device.Tag}/short", device.Tag, $"Timing relay {device.Tag} is set much too short",
            [new ParameterIs(device.Tag, "seconds", Math.Max(0.05, device.Number("seconds") * 0.1))], 0.4, $"Set {device.Tag} to the time that the load needs to run up.")
        {
            ProofLook = (device.Tag, "dial"),
        };
        yield return new FaultMode($"{device.Tag}/long", device.Tag, $"Timing relay {device.Tag} is set much too long",
            [new ParameterIs(device.Tag, "seconds", device.Number("seconds") * 10)], 0.3, $"Set {device.Tag} to the time that the load needs to run up.")
        {
            ProofLook = (device.Tag, "dial"),
        };
        foreach (var contact in Contacts(device))
        {
            if (device.Word("function") == "star-delta")
            {
                foreach (var mode in ContactFaults.Of(device, contact, $"Contact {contact.Name} of {device.Tag}", $"Replace the timing relay {device.Tag}.", 0.5))
                {
                    yield return mode;
                }
            }
        }
    }

    public override IEnumerable<FaultMode> FaultModes(Device device) => base.FaultModes(device).DistinctBy(f => (f.Id, f.Variant));

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] switch
    {
        ParameterIs when fault.Kind is "short" or "long" => new RepairNotes
        {
            Steps = [fault.Remedy, "Time it with a watch, three times."],
            Causes = [new RootCause("Somebody turned it, or range and scale do not belong together", "Read the log; range switch and dial")],
            Isolated = false,
        },
        PositionLocked => base.Repair(device, fault) with
        {
            Parts = [$"Time relay {device.Tag}: same function, range and voltage"],
            Causes = [new RootCause("Set to another function or range", "Function switch and range against the drawing"), RepairNotes.Heat, new RootCause("Voltage peaks of coils without suppressor", "Suppressors on the contactors beside it")],
        },
        _ => base.Repair(device, fault),
    };
}
