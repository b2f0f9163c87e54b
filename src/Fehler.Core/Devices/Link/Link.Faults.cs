using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Link
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var isFitted = InitialPosition(device) == Fitted;
        yield return new FaultMode(
            $"{device.Tag}/left-{(isFitted ? "out" : "fitted")}",
            device.Tag,
            isFitted ? $"Link {device.Tag} was left out" : $"Link {device.Tag} was left fitted: what it bridges does nothing",
            [new FoundInPosition(device.Tag, isFitted ? Out : Fitted)],
            0.5,
            $"Ask who {(isFitted ? "took" : "fitted")} {device.Tag} and why, then {(isFitted ? "fit it" : "take it out")}."
        )
        {
            ProofLook = (device.Tag, "link"),
        };
        if (isFitted)
        {
            yield return Common.Open(
                device,
                Elements(device)[0],
                $"Link {device.Tag} makes no contact",
                0.4,
                $"Clean and tighten the link {device.Tag}."
            );
        }
    }
}
