using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal abstract partial class DirectSource
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var (plus, minus) = (device.At("L+"), device.At("M"));
        yield return new FaultMode(
            $"{device.Tag}/dead",
            device.Tag,
            $"The {Name} {device.Tag} gives nothing although it is fed",
            [new PositionLocked(device.Tag, Off)],
            1.2,
            $"Take the load off {device.Tag} and measure again: a shorted load folds a good one back. If it still gives "
                + "nothing, replace it."
        )
        {
            ProofPoints = (plus, minus),
        };
        yield return Common.Open(
            device,
            Elements(device)[Output],
            $"Output of the {Name} {device.Tag} is open",
            0.4,
            $"Replace {device.Tag}."
        ) with
        {
            ProofPoints = (plus, minus),
        };
        yield return Common.Open(
            device,
            Elements(device)[Input],
            $"Input of the {Name} {device.Tag} is open",
            0.4,
            $"Check its own fuse; replace {device.Tag}."
        ) with
        {
            // Across its input stands what feeds it, open or not: that it is fed and gives nothing shows it.
            ProofPoints = (plus, minus),
        };
        foreach (
            var mode in Common.Bridged(
                $"{device.Tag}/shorted",
                device.Tag,
                $"Output of the {Name} {device.Tag} is shorted inside",
                plus,
                minus,
                minus,
                0.2,
                $"Replace {device.Tag}."
            )
        )
        {
            yield return mode;
        }
    }
}
