using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A lockable switch-disconnector; opening it isolates what follows.</summary>
internal sealed partial class Isolator : SwitchingDevice
{
    public override string Id => "isolator";
    public override Wording Name => $"{Term.Isolator}";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Blade;

    public override ImmutableArray<string> Positions(Device device) => ["off", "on"];

    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 0);

    public override ImmutableArray<Actuation> Actuations(Device device) => [new("off", "Switch off", false), new("on", "Switch on", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", "on", "off")];
}
