using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// An impulse (latching) relay: every time its coil is energised the contact changes over, and it stays so without voltage,
/// through a power cut as well.
/// </summary>
internal sealed class ImpulseRelay : CoilOperated
{
    // Off and on at rest, and the same with the coil still energised; an odd position has its contacts made.
    private const int Off = 0, On = 1, SwitchedOff = 2, SwitchedOn = 3;

    public override string Id => "impulse-relay";
    public override string Term => "impulse relay";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 19, 8);

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } =
        [ParameterSpec.Words("contacts", "Contacts by terminal numbers; last digits 3-4 close, 1-2 open", "13-14")];

    private protected override ImmutableArray<Element> Contacts(Device device) => [.. device.Words("contacts").Select(Auxiliary)];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "off, coil energised", "on, coil energised"];
    public override ImmutableArray<string> Appearances => ["off", "on", "chatters"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Turn the hand lever to off", false), new("on", "Turn the hand lever to on", false)];

    private protected override bool IsClosed(DeviceState state) => state.Position >= SwitchedOff;

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        state.Position % 2 == 1 == (element.Role == ElementRole.NormallyOpen);

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var pulled = IsPulled(device, state, meter);
        return new Transition(state with
        {
            Position = state.Position switch
            {
                Off when pulled => SwitchedOn,
                On when pulled => SwitchedOff,
                SwitchedOn when !pulled => On,
                SwitchedOff when !pulled => Off,
                var unchanged => unchanged,
            },
        });
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => state.Position % 2 == 1 ? "on" : "off";

    public override ImmutableArray<Look> Looks(Device device) => [.. base.Looks(device), new("lever", $"Hand lever of {device.Tag}", "off", "on")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        look.Id == "lever" ? state.Position % 2 == 1 ? "on" : "off" : base.Seen(device, look, state, drawn);

    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device) =>
    [
        new($"{device.Tag}/stays-off", device.Tag, $"Impulse relay {device.Tag} does not toggle: it stays off", [new PositionLocked(device.Tag, Off)], 1, $"Replace the impulse relay {device.Tag}."),
        new($"{device.Tag}/stays-on", device.Tag, $"Impulse relay {device.Tag} does not toggle: it stays on", [new PositionLocked(device.Tag, On)], 0.7, $"Replace the impulse relay {device.Tag}.")
        {
            ProofLook = (device.Tag, "lever"),
        },
    ];

    public override IEnumerable<string> Cautions(Device device) =>
        [$"{device.Tag} remembers with the power off: when the supply comes back the motor starts by itself if it is on."];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] is PositionLocked
        ? base.Repair(device, fault) with
        {
            Causes = [new RootCause("A button or its cable keeps the coil live: it cannot toggle again", "Volts at the coil with nobody pressing: none"), RepairNotes.ManyOperations],
        }
        : base.Repair(device, fault);
}
