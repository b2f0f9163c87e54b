using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A control relay (contactor relay): a coil and auxiliary contacts, no poles.</summary>
internal sealed class ControlRelay : CoilOperated
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Contacts by terminal numbers; last digits 3-4 close, 1-2 open",
            "13-14"
        );
    }

    public override string Id => "control-relay";
    public override Wording Name => "control relay";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 40, 6);

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } = [Plate.Contacts];

    private protected override ImmutableArray<Element> Contacts(Device device) => [.. device[Plate.Contacts].Select(Element.FromContact)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
}
