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
                    .Append(ContactFaults.Exchanged(device, contact, $"Contact {contact.Name} of {term} {device.Tag}", 0.15))
            );
}
