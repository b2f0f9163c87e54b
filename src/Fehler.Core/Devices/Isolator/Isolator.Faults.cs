using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Isolator
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        base.FaultModes(device)
            .Append(
                new FaultMode(
                    $"{device.Tag}/left-off",
                    device.Tag,
                    $"{Term.Isolator.Capital} {device.Tag} was left off",
                    [new FoundInPosition(device.Tag, 0)],
                    0.6,
                    "Find out why it is off and whether someone works on the circuit before it is switched on."
                )
                {
                    ProofLook = (device.Tag, "handle"),
                    AskWhy = "Someone switched it off: ask who, and why, before switching on.",
                }
            );
}
