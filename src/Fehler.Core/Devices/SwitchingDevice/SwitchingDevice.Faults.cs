using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal abstract partial class SwitchingDevice
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (var pole in Elements(device).Where(e => e.Role == ElementRole.Pole))
        {
            yield return Common.Open(
                device,
                pole,
                $"Pole {pole.Name} of the {Name} {device.Tag} does not close",
                0.4,
                $"Replace the {Name} {device.Tag}, same type and rating."
            );
        }

        foreach (var pole in Elements(device).Where(e => e.Role == ElementRole.Pole))
        {
            foreach (
                var mode in Common.HighResistance(
                    device,
                    pole,
                    $"Pole {pole.Name} of the {Name} {device.Tag} is burnt (high resistance)",
                    0.15,
                    $"Replace the {Name} {device.Tag}, same type and rating.",
                    power: true
                )
            )
            {
                yield return mode;
            }
        }
    }
}
