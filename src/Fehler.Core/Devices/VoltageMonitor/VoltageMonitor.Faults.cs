using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class VoltageMonitor
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        yield return new FaultMode(
            $"{device.Tag}/set-tight",
            device.Tag,
            $"{device.Tag} is set too tight for this supply",
            [new PositionLocked(device.Tag, Dropped)],
            0.6,
            $"Measure the three line voltages; compare with the limits on {device.Tag}; replace it if they are within them."
        )
        {
            ProofLook = (device.Tag, "indicator"),
        };
        yield return new FaultMode(
            $"{device.Tag}/blind",
            device.Tag,
            $"{device.Tag} does not let go when a phase is lost",
            [new PositionLocked(device.Tag, Good)],
            0.2,
            $"Test it by taking out one fuse; replace {device.Tag}."
        );
        foreach (var contact in Elements(device).Where(e => e.IsContact))
        {
            foreach (
                var mode in ContactFaults.Of(device, contact, $"Contact {contact.Name} of {device.Tag}", $"Replace {device.Tag}.", 0.6)
            )
            {
                yield return mode;
            }
        }
    }
}
