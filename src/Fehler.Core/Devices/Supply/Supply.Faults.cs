using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Supply
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        if (Phases(device) == 3)
        {
            yield return new FaultMode(
                $"{device.Tag}/sequence",
                device.Tag,
                "Two phases of the supply are exchanged",
                [new ParameterIs(device.Tag, Plate.Sequence.Name, device[Plate.Sequence] == "L1-L3-L2" ? "L1-L2-L3" : "L1-L3-L2")],
                0.1,
                "Find who worked on the feeder; exchange two phases where they were exchanged, not at the motor."
            )
            {
                ProofLook = (device.Tag, "rotation"),
            };
        }

        var elements = Elements(device);
        for (var k = 0; k < Phases(device); k++)
        {
            yield return new FaultMode(
                $"{device.Tag}/L{k + 1}-missing",
                device.Tag,
                $"Phase L{k + 1} is missing from the supply",
                [new ElementOpen(device.Tag, elements[k].Name)],
                0.8,
                "Find where the phase is lost upstream: supply fuse, breaker pole, joint."
            )
            {
                ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal(Phases(device) == 1 ? "N" : $"L{(k + 1) % 3 + 1}")),
            };
        }

        foreach (var share in new[] { 0.55, 0.72 })
        {
            yield return new FaultMode(
                $"{device.Tag}/low-voltage",
                device.Tag,
                "Supply voltage is low",
                [new ParameterIs(device.Tag, Plate.LineVolts.Name, device[Plate.LineVolts] * share)],
                0.1,
                "Measure the supply under load at the source; find the overload or bad joint upstream."
            )
            {
                Variant = $"{share * 100:0} %",
                SizeFactor = 1.1,
                ProofPoints = (device.Terminal("L1"), device.Terminal(Phases(device) == 1 ? "N" : "L2")),
            };
        }
    }
}
