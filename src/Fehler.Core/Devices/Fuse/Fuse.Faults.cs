using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Fuse
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        for (var k = 0; k < elements.Length; k++)
        {
            var which = elements.Length == 1 ? $"Fuse {device.Tag}" : $"Fuse {device.Tag}, pole {elements[k].Name},";
            yield return new FaultMode(
                $"{device.Tag}/{elements[k].Name}-blown",
                device.Tag,
                $"{which} has blown",
                [new FoundInPosition(device.Tag, 1 << k)],
                2,
                elements.Length == 1
                    ? "Find the cause, then fit a fuse of the same type and rating."
                    : "Find the cause, then replace the whole set, same type and rating."
            )
            {
                ProofPoints = Common.Points(device, elements[k]),
                ProofLook = device[Plate.Indicator] == "yes" ? (device.Tag, "indicator") : null,
                AskWhy =
                    $"A fuse blows because of something: check coil ohms, conductors to {Term.Earth} and the motor before fitting a new one.",
            };
            foreach (
                var mode in Common.HighResistance(
                    device,
                    elements[k],
                    $"{which} makes bad contact in its holder",
                    0.15,
                    "Clean or replace the fuse holder.",
                    power: elements.Length > 1
                )
            )
            {
                yield return mode;
            }
        }
    }
}
