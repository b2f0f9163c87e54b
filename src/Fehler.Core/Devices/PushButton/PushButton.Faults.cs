using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class PushButton
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        BlockFaults(device, "button")
            .Append(
                new FaultMode(
                    $"{device.Tag}/sticks-pressed",
                    device.Tag,
                    $"Operator of {device.Tag} sticks pressed",
                    [new PositionLocked(device.Tag, 1)],
                    0.4,
                    $"Free or replace the operator of {device.Tag}; check that the cover does not press it."
                )
                {
                    ProofPoints = Common.Points(device, Elements(device)[0]),
                }
            )
            .Append(
                new FaultMode(
                    $"{device.Tag}/operator-misses",
                    device.Tag,
                    $"Operator of {device.Tag} does not reach its contact block with the cover on",
                    [new DoesNotReach(device.Tag, 1)],
                    0.5,
                    $"Seat the contact block of {device.Tag} or adjust the operator; test with the cover on."
                )
                {
                    ProofPoints = Common.Points(device, Elements(device)[0]),
                }
            );
}
