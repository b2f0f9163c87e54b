using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class HeaterBank
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        Elements(device)
            .SelectMany(e =>
                new[]
                {
                    Common.Open(device, e, $"Heater element {e.A} of {device.Tag} is open", 1, "Replace the element.") with
                    {
                        ProofPoints = (device.Terminal(e.A), device.At(e.OwnA == "U" ? "V" : "U")),
                    },
                }.Concat(
                    Common.Bridged(
                        $"{device.Tag}/{e.A}-earth",
                        device.Tag,
                        $"Heater element {e.A} of {device.Tag} has {Term.EarthFault.WithArticle}",
                        device.Terminal(e.A),
                        null,
                        device.At("PE"),
                        0.5,
                        "Replace the element."
                    )
                )
            );
}
