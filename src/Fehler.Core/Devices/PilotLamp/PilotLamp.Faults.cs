using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class PilotLamp
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        [
            Common.Open(
                device,
                Elements(device)[0],
                $"{Term.Lamp.Capital} {device.Tag} is dead",
                1.5,
                $"Replace the {Term.Lamp} {device.Tag}, same voltage."
            ) with
            {
                ProofPoints = (device.At("X1"), device.At("X2")),
                IsIdleThoughFed = true,
            },
            .. Common.Bridged(
                $"{device.Tag}/shorted",
                device.Tag,
                $"{Term.Lamp.Capital} {device.Tag} or its holder is shorted",
                device.At("X1"),
                device.At("X2"),
                device.At("X2"),
                0.15,
                $"Take the {Term.Lamp} out, measure its holder by itself; replace what is shorted, then the fuse."
            ),
        ];
}
