using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class EmergencyStop
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        BlockFaults(device, "emergency stop")
            .Append(
                new FaultMode(
                    $"{device.Tag}/left-operated",
                    device.Tag,
                    $"Emergency stop {device.Tag} was left operated",
                    [new FoundInPosition(device.Tag, 1)],
                    1.5,
                    $"Find out why {device.Tag} was operated; make sure nobody is in danger; then release it."
                )
                {
                    ProofLook = (device.Tag, "operator"),
                    AskWhy = "Someone operated it: ask why before releasing it.",
                }
            );
}
