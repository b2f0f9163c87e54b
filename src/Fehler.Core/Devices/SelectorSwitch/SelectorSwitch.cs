using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A selector that stays where it is turned. With two positions it is off or on; with three, contacts numbered 1x close on the
/// left and the others on the right, unless the description lists the positions of each.
/// </summary>
internal sealed partial class SelectorSwitch : ControlSwitch
{
    private const int Right = 2;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Positions = ParameterSpec.Number("positions", "Positions it can be turned to", "", 2, 2, 3);
        public static readonly NumberSpec FoundIn = ParameterSpec.Number(
            "foundIn",
            "Position it normally stands in, from 0",
            "",
            0,
            0,
            2
        ) with
        {
            Group = PlateGroup.Expert,
        };
    }

    public override string Id => "selector-switch";
    public override Wording Name => "selector switch";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Selector;

    private protected override string DefaultContact => "13-14";

    public override ImmutableArray<ParameterSpec> Parameters => [.. base.Parameters, Plate.Positions, Plate.FoundIn];

    public override int InitialPosition(Device device) => (int)Math.Min(device[Plate.FoundIn], device[Plate.Positions] - 1);

    public override ImmutableArray<string> Positions(Device device) =>
        device[Plate.Positions] == 3 ? ["middle", "left", "right"] : ["off", "on"];

    public override bool IsMade(Device device, Element element, DeviceState state)
    {
        if (element.MadeIn.Length > 0)
        {
            return element.MadeIn.Split(' ').Contains(Positions(device)[state.Position]);
        }

        var operated = device[Plate.Positions] == 3 ? state.Position == (element.OwnA[0] == '1' ? 1 : Right) : state.Position == 1;
        return operated == (element.Role == ElementRole.NormallyOpen);
    }

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [.. Positions(device).Select(p => new Actuation(p, $"Turn to {p}", false))];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", [.. Positions(device)])];
}
