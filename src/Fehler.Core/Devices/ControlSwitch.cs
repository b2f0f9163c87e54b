using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>What push-buttons and emergency stops have in common: a contact block behind an operator.</summary>
public abstract class ControlSwitch : DeviceKind
{
    private protected abstract string DefaultContact { get; }

    public override ImmutableArray<ParameterSpec> Parameters =>
        [ParameterSpec.Words("contacts", "Contacts by terminal numbers; last digits 1-2 open, 3-4 close", DefaultContact)];

    public override ImmutableArray<Element> Elements(Device device) =>
        [.. device.Words("contacts").Select(name =>
        {
            var ends = name.Split('-');
            return new Element(ends[0], ends[1], name.EndsWith('2') ? ElementRole.NormallyClosed : ElementRole.NormallyOpen);
        })];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    private protected IEnumerable<FaultMode> BlockFaults(Device device, string term) =>
        Elements(device).SelectMany(contact =>
            ContactFaults.Of(device, contact, $"Contact {contact.Name} of {term} {device.Tag}", $"Replace the contact block of {device.Tag}.", 1)
                .Append(new FaultMode($"{device.Tag}/{contact.Name}-exchanged", device.Tag,
                    $"{term} {device.Tag} has the wrong contact at {contact.Name}: it {(contact.Role == ElementRole.NormallyClosed ? "closes" : "opens")} when operated (NO and NC exchanged)",
                    [new ContactInverted(device.Tag, contact.Name)], 0.15, $"Fit the contact block that the drawing shows at {device.Tag}, or land the wires on the right one.")
                {
                    ProofPoints = Common.Points(device, contact),
                }));
}
