using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class EarthLink
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        [
            Common.Open(
                device,
                Elements(device)[0],
                $"{Term.Earthing.Capital} link {device.Tag} is open: the control supply floats",
                0.2,
                $"Close and tighten the {Term.Earthing} link {device.Tag}."
            ),
        ];
}
