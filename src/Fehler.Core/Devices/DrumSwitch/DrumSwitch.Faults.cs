using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class DrumSwitch
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (var contact in Elements(device))
        {
            yield return Common.Open(
                device,
                contact,
                $"Cam contact {contact.Name} of {device.Tag} does not make",
                0.6,
                $"Replace the drum switch {device.Tag}."
            );
            foreach (
                var mode in Common.HighResistance(
                    device,
                    contact,
                    $"Cam contact {contact.Name} of {device.Tag} is burnt (high resistance)",
                    0.3,
                    $"Replace the drum switch {device.Tag}.",
                    power: true
                )
            )
            {
                yield return mode;
            }
        }
    }
}
