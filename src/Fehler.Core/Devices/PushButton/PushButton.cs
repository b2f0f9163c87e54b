using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A push-button that returns when it is let go. A Stop opens, a Start closes.</summary>
internal sealed partial class PushButton : ControlSwitch
{
    public override string Id => "push-button";
    public override Wording Name => $"{Term.PushButton}";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Button;

    private protected override string DefaultContact => "13-14";

    public override ImmutableArray<string> Positions(Device device) => ["released", "pressed", "block pressed"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [
            new("pressed", "Press and hold", true),
            new("block pressed", "Take the cover off and press the contact block itself", true, DeadOnly: true) { IsPastOperator = true },
        ];

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        state.Position != 0 == (element.Role == ElementRole.NormallyOpen);
}
