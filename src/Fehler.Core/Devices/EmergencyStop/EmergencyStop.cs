using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>An emergency stop: stays operated until it is released on purpose.</summary>
internal sealed partial class EmergencyStop : ControlSwitch
{
    public override string Id => "emergency-stop";
    public override Wording Name => "emergency stop";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.MushroomButton;

    private protected override string DefaultContact => "11-12";

    public override ImmutableArray<string> Positions(Device device) => ["released", "operated"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("operated", "Operate", false), new("released", "Release", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("operator", $"Operator of {device.Tag}", "released", "operated")];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"Never bridge {device.Tag}: volts across it, or ohms when dead, tell the same."];
}
