using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal abstract partial class ControlSwitch
{
    private protected IEnumerable<FaultMode> BlockFaults(Device device, string term) =>
        Elements(device)
            .SelectMany(contact =>
                ContactFaults
                    .Of(device, contact, $"Contact {contact.Name} of {term} {device.Tag}", $"Replace the contact block of {device.Tag}.", 1)
                    .Append(
                        new FaultMode(
                            $"{device.Tag}/{contact.Name}-exchanged",
                            device.Tag,
                            $"{term} {device.Tag} has the wrong contact at {contact.Name}: it "
                                + $"{(contact.Role == ElementRole.NormallyClosed ? "closes" : "opens")} when operated (NO and NC "
                                + "exchanged)",
                            [new ContactInverted(device.Tag, contact.Name)],
                            0.15,
                            $"Fit the contact block that the drawing shows at {device.Tag}, or land the wires on the right one."
                        )
                        {
                            ProofPoints = Common.Points(device, contact),
                        }
                    )
            );
}
