using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A selector that stays where it is turned. With two positions it is off or on; with three, contacts numbered 1x close on the
/// left and the others on the right.
/// </summary>
internal sealed class SelectorSwitch : ControlSwitch
{
    private const int Right = 2;

    public override string Id => "selector-switch";
    public override string Term => "selector switch";
    private protected override string DefaultContact => "13-14";

    public override ImmutableArray<ParameterSpec> Parameters =>
    [
        .. base.Parameters,
        ParameterSpec.Number("positions", "Positions it can be turned to", "", 2, 2, 3),
        ParameterSpec.Number("foundIn", "Position it normally stands in, from 0", "", 0, 0, 2),
    ];

    public override int InitialPosition(Device device) => (int)Math.Min(device.Number("foundIn"), device.Number("positions") - 1);

    public override ImmutableArray<string> Positions(Device device) => device.Number("positions") == 3 ? ["middle", "left", "right"] : ["off", "on"];

    public override bool IsMade(Device device, Element element, DeviceState state)
    {
        var operated = device.Number("positions") == 3
            ? state.Position == (element.A[0] == '1' ? 1 : Right)
            : state.Position == 1;
        return operated == (element.Role == ElementRole.NormallyOpen);
    }

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [.. Positions(device).Select(p => new Actuation(p, $"Turn to {p}", false))];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", [.. Positions(device)])];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override IEnumerable<FaultMode> FaultModes(Device device) => BlockFaults(device, "selector").Concat(
        Positions(device).Select((p, i) => (p, i)).Where(x => x.i != InitialPosition(device)).Select(x =>
            new FaultMode($"{device.Tag}/left-{x.p}", device.Tag, $"Selector {device.Tag} was left in {x.p}", [new FoundInPosition(device.Tag, x.i)], 0.8, $"Ask who turned {device.Tag} and why, then turn it back.")
            {
                ProofLook = (device.Tag, "handle"),
            }));
}
