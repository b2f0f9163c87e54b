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
                ProofPoints = (device.Terminal("X1"), device.Terminal("X2")),
            },
        ];
}
