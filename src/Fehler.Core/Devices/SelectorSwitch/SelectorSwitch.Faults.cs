using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class SelectorSwitch
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        BlockFaults(device, "selector")
            .Concat(
                Positions(device)
                    .Select((p, i) => (p, i))
                    .Where(x => x.i != InitialPosition(device))
                    .Select(x => new FaultMode(
                        $"{device.Tag}/left-{x.p}",
                        device.Tag,
                        $"Selector {device.Tag} was left in {x.p}",
                        [new FoundInPosition(device.Tag, x.i)],
                        0.8,
                        $"Ask who turned {device.Tag} and why, then turn it back."
                    )
                    {
                        ProofLook = (device.Tag, "handle"),
                    })
            );
}
