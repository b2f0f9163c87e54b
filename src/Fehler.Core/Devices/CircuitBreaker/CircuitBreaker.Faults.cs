using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class CircuitBreaker
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        base.FaultModes(device)
            .Append(
                new FaultMode(
                    $"{device.Tag}/tripped",
                    device.Tag,
                    $"Circuit-breaker {device.Tag} has tripped",
                    [new FoundInPosition(device.Tag, 2)],
                    1.5,
                    "Find the cause before switching on again."
                )
                {
                    ProofLook = (device.Tag, "toggle"),
                    AskWhy =
                        $"A breaker trips because of a short circuit, {Term.EarthFault.WithArticle} or an overload: find it before switching on.",
                }
            )
            .Concat(
                Elements(device)
                    .Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)
                    .SelectMany(c =>
                        ContactFaults.Of(
                            device,
                            c,
                            $"Auxiliary contact {c.Name} of {device.Tag}",
                            $"Replace the auxiliary contact of {device.Tag}.",
                            0.6
                        )
                    )
            )
            .Concat(
                Elements(device)
                    .Where(e => e.Role == ElementRole.Load)
                    .Select(c =>
                        Common.Open(device, c, $"Shunt release of {device.Tag} is open", 0.6, $"Replace the shunt release of {device.Tag}.")
                    )
            );
}
