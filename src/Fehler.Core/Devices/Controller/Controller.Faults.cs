using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Controller
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        Elements(device)
            .SelectMany(e =>
                e.Role == ElementRole.Load
                    ?
                    [
                        Common.Open(
                            device,
                            e,
                            $"Input {e.A} of {device.Tag} is dead",
                            0.3,
                            $"Check its indicator; replace the input module of {device.Tag}."
                        ),
                    ]
                    : ContactFaults.Of(device, e, $"Output {e.B} of {device.Tag}", $"Replace the output module of {device.Tag}.", 0.5)
            );
}
