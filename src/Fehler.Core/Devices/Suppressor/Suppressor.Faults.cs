using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Suppressor
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (
            var mode in Common.Bridged(
                $"{device.Tag}/shorted",
                device.Tag,
                $"Suppressor {device.Tag} is shorted",
                device.At("1"),
                device.At("2"),
                device.At("2"),
                0.6,
                $"Take {device.Tag} off, measure the coil without it, fit a new one of the same type."
            )
        )
        {
            yield return mode;
        }

        if (device[Plate.Type] == "diode")
        {
            yield return new FaultMode(
                $"{device.Tag}/reversed",
                device.Tag,
                $"Diode {device.Tag} is fitted the wrong way round",
                [new Bridge(device.At("1"), device.At("2"), 0.4)],
                0.3,
                $"Fit {device.Tag} with its bar to the positive side."
            )
            {
                ProofPoints = (device.At("1"), device.At("2")),
                SizeFactor = 1.5,
            };
        }
    }
}
