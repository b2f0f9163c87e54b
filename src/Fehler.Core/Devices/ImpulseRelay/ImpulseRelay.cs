using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// An impulse (latching) relay: every time its coil is energised the contact changes over, and it stays so without voltage,
/// through a power cut as well.
/// </summary>
internal sealed partial class ImpulseRelay : CoilOperated
{
    // Off and on at rest, and the same with the coil still energised; an odd position has its contacts made.
    private const int Off = 0,
        On = 1,
        SwitchedOff = 2,
        SwitchedOn = 3;

    public override bool KeepsPosition => true;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Contacts by terminal numbers; last digits 3-4 close, 1-2 open",
            "13-14"
        );
    }

    public override string Id => "impulse-relay";
    public override Wording Name => "impulse relay";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 19, 8);

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } = [Plate.Contacts];

    private protected override ImmutableArray<Element> Contacts(Device device) => [.. device[Plate.Contacts].Select(Element.FromContact)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "off, coil energised", "on, coil energised"];

    public override ImmutableArray<string> Appearances => ["off", "on", "chatters"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Turn the hand lever to off", false), new("on", "Turn the hand lever to on", false)];

    private protected override bool IsClosed(DeviceState state) => state.Position >= SwitchedOff;

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        state.Position % 2 == 1 == (element.Role == ElementRole.NormallyOpen);

    public override ImmutableArray<Look> Looks(Device device) =>
        [.. base.Looks(device), new("lever", $"Hand lever of {device.Tag}", "off", "on")];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"{device.Tag} remembers with the power off: when the supply comes back the motor starts by itself if it is on."];
}
