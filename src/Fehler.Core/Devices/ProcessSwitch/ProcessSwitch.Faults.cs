using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class ProcessSwitch
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        BlockFaults(device, $"{device[Plate.Senses]} switch")
            .Concat([
                new FaultMode(
                    $"{device.Tag}/never-operates",
                    device.Tag,
                    $"{device.Tag} does not operate: lever loose, float stuck, wrong set point",
                    [new PositionLocked(device.Tag, 0)],
                    0.8,
                    $"Adjust or replace {device.Tag}."
                )
                {
                    ProofPoints = Common.Points(device, Elements(device)[0]),
                },
                new FaultMode(
                    $"{device.Tag}/stays-operated",
                    device.Tag,
                    $"{device.Tag} stays operated: lever bent, float stuck, wrong set point",
                    [new PositionLocked(device.Tag, 1)],
                    1.2,
                    $"Adjust or replace {device.Tag}."
                )
                {
                    ProofLook = (device.Tag, "operator"),
                },
            ]);
}
