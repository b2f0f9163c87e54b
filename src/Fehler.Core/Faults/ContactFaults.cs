using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>How a control contact fails, whichever device carries it.</summary>
internal static class ContactFaults
{
    /// <summary>A block of the other kind was fitted, or the wires were landed on the one beside it.</summary>
    public static FaultMode Exchanged(Device device, Element contact, Wording name, double weight) =>
        new(
            $"{device.Tag}/{contact.Name}-exchanged",
            device.Tag,
            $"{name} is of the wrong kind: it "
                + $"{(contact.Role == ElementRole.NormallyClosed ? "closes" : "opens")} when operated (NO and NC exchanged)",
            [new ContactInverted(device.Tag, contact.Name)],
            weight,
            $"Fit the contact block that the drawing shows at {device.Tag}, or land the wires on the right one."
        )
        {
            ProofPoints = Common.Points(device, contact),
        };

    public static IEnumerable<FaultMode> Of(Device device, Element contact, Wording name, Wording remedy, double weight)
    {
        yield return contact.Role == ElementRole.NormallyClosed
            ? Common.Open(device, contact, $"{name} is open", 1.5 * weight, remedy)
            : Common.Open(device, contact, $"{name} does not close", 1.5 * weight, remedy);
        yield return contact.Role == ElementRole.NormallyClosed
            ? Common.Made(device, contact, $"{name} does not open, or is bypassed", 0.3 * weight, remedy)
            : Common.Made(device, contact, $"{name} is stuck closed, or bypassed", 0.3 * weight, remedy);
        foreach (
            var mode in Common.HighResistance(
                device,
                contact,
                $"{name} is dirty or burnt (high resistance)",
                0.6 * weight,
                remedy,
                power: false
            )
        )
        {
            yield return mode;
        }
    }
}
