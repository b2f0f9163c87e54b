using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A miniature or moulded-case circuit-breaker; one pole's short circuit opens all poles.</summary>
internal sealed partial class CircuitBreaker : SwitchingDevice
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec ShuntVolts = ParameterSpec.Number(
            "shuntVolts",
            "Voltage of the shunt release at C1-C2; 0: none",
            "V",
            0,
            0,
            690
        ) with
        {
            Group = PlateGroup.Contacts,
        };
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Auxiliary contacts that follow the poles; last digits 3-4 close, 1-2 open"
        );
    }

    public override ImmutableArray<ParameterSpec> Parameters => [.. base.Parameters, Plate.ShuntVolts, Plate.Contacts];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            .. base.OwnElements(device),
            .. device[Plate.Contacts].Select(Element.FromContact),
            .. device[Plate.ShuntVolts] > 0 ? [new Element("C1", "C2", ElementRole.Load)] : Array.Empty<Element>(),
        ];

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        element.Role == ElementRole.NormallyClosed ? state.Position != 1 : state.Position == 1;

    public override string Id => "circuit-breaker";
    public override Wording Name => "circuit-breaker";

    public override LadderShape LadderShapeOf(Element? element) =>
        element?.Role == ElementRole.Pole ? LadderShape.Breaker : base.LadderShapeOf(element);

    private protected override Duty Duty => Duty.Fuses;

    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "tripped"];

    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 1);

    public override ImmutableArray<Actuation> Actuations(Device device) => [new("off", "Switch off", false), new("on", "Switch on", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("toggle", $"Toggle of {device.Tag}", "on", "off", "tripped")];
}
