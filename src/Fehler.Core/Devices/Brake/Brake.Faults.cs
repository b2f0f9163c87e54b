using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Brake
{
    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device) =>
        [
            new(
                $"{device.Tag}/not-lifted",
                device.Tag,
                $"Brake {device.Tag} does not lift: worn, jammed or air gap too wide",
                [new PositionLocked(device.Tag, Out)],
                1,
                $"Secure the load; adjust or replace the brake {device.Tag}."
            ),
            new(
                $"{device.Tag}/not-holding",
                device.Tag,
                $"Brake {device.Tag} does not hold: lining worn or lever left lifted",
                [new PositionLocked(device.Tag, In)],
                0.6,
                $"Secure the load first; adjust or replace the brake {device.Tag}."
            ),
        ];
}
