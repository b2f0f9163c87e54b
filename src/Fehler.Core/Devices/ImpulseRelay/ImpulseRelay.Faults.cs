using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class ImpulseRelay
{
    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device) =>
        [
            new(
                $"{device.Tag}/stays-off",
                device.Tag,
                $"Impulse relay {device.Tag} does not toggle: it stays off",
                [new PositionLocked(device.Tag, Off)],
                1,
                $"Replace the impulse relay {device.Tag}."
            ),
            new(
                $"{device.Tag}/stays-on",
                device.Tag,
                $"Impulse relay {device.Tag} does not toggle: it stays on",
                [new PositionLocked(device.Tag, On)],
                0.7,
                $"Replace the impulse relay {device.Tag}."
            )
            {
                ProofLook = (device.Tag, "lever"),
            },
        ];
}
