using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Fuse
{
    /// <summary>
    /// A small control fuse ages and blows of an inrush once in a while; the fuse of a motor seldom does, something blew it (common practice).
    /// </summary>
    private const double BlownByItself = 2,
        OneOfSetByItself = 0.6;

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        // A short circuit between two phases flows through both fuses, and both may go.
        for (var k = 0; elements.Length > 1 && k < elements.Length; k++)
        {
            var (a, b) = (elements[k], elements[(k + 1) % elements.Length]);
            if (elements.Length == 2 && k == 1)
            {
                break;
            }

            yield return new FaultMode(
                $"{device.Tag}/{a.Name}-{b.Name}-blown",
                device.Tag,
                $"Fuses {a.Name} and {b.Name} of {device.Tag} have blown",
                [new FoundInPosition(device.Tag, (1 << k) | (1 << (k + 1) % elements.Length))],
                0.3,
                "Look for a short circuit between the two before anything else, then replace the whole set, same type and rating."
            )
            {
                ProofPoints = Common.Points(device, a),
                ProofLook = device[Plate.Indicator] == "yes" ? (device.Tag, "indicator") : null,
                AskWhy =
                    "Two fuses of a set blow together of a short circuit between them: measure cable and motor before fitting new ones.",
            };
        }

        for (var k = 0; k < elements.Length; k++)
        {
            var which = elements.Length == 1 ? $"Fuse {device.Tag}" : $"Fuse {device.Tag}, pole {elements[k].Name},";
            yield return new FaultMode(
                $"{device.Tag}/{elements[k].Name}-blown",
                device.Tag,
                $"{which} has blown",
                [new FoundInPosition(device.Tag, 1 << k)],
                elements.Length == 1 ? BlownByItself : OneOfSetByItself,
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
