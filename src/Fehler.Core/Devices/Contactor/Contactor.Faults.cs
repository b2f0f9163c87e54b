using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Contactor
{
    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        foreach (var mode in base.ArmatureFaults(device))
        {
            yield return mode;
        }

        if (CoupledTo(device).Any())
        {
            yield return new FaultMode(
                $"{device.Tag}/interlock-jammed",
                device.Tag,
                $"Mechanical interlock holds {device.Tag} out",
                [new PositionLocked(device.Tag, Out)],
                0.3,
                $"Free or replace the mechanical interlock of {device.Tag}."
            )
            {
                ProofLook = ProofByHand(device),
            };
        }

        var poles = Elements(device).Where(e => e.Role == ElementRole.Pole).ToList();
        foreach (var pole in poles)
        {
            yield return Common.Open(
                device,
                pole,
                $"Pole {pole.Name} of {device.Tag} stays open",
                0.8,
                $"Replace the main contacts or the contactor {device.Tag}."
            );
            yield return Common.Made(
                device,
                pole,
                $"Pole {pole.Name} of {device.Tag} is welded",
                0.5,
                $"Replace the contactor {device.Tag}; find out what overloaded it."
            );
            foreach (
                var mode in Common.HighResistance(
                    device,
                    pole,
                    $"Pole {pole.Name} of {device.Tag} is burnt (high resistance)",
                    0.3,
                    $"Replace the main contacts or the contactor {device.Tag}.",
                    power: true
                )
            )
            {
                yield return mode;
            }
        }

        // Two of three welded: the motor gets two phases with the contactor out, hums and burns.
        for (var k = 0; poles.Count == 3 && k < 3; k++)
        {
            var (a, b) = (poles[k], poles[(k + 1) % 3]);
            yield return new FaultMode(
                $"{device.Tag}/{a.Name}-{b.Name}-welded",
                device.Tag,
                $"Poles {a.Name} and {b.Name} of {device.Tag} are welded",
                [new ElementMade(device.Tag, a.Name), new ElementMade(device.Tag, b.Name)],
                0.12,
                $"Replace the contactor {device.Tag}; find out what overloaded it."
            )
            {
                ProofPoints = Common.Points(device, a),
            };
        }

        var auxiliaries = Contacts(device).Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed).ToList();
        if (auxiliaries.Count > 1)
        {
            yield return new FaultMode(
                $"{device.Tag}/block-loose",
                device.Tag,
                $"The auxiliary block of {device.Tag} is not seated: none of its contacts closes",
                [.. auxiliaries.Select(c => new ElementOpen(device.Tag, c.Name))],
                0.3,
                $"Seat the auxiliary block of {device.Tag} until it latches, or replace it."
            )
            {
                ProofPoints = Common.Points(device, auxiliaries[0]),
            };
        }

        if (poles.Count > 1)
        {
            yield return new FaultMode(
                $"{device.Tag}/all-welded",
                device.Tag,
                $"All poles of {device.Tag} are welded",
                [.. poles.Select(p => new ElementMade(device.Tag, p.Name))],
                0.3,
                $"Replace the contactor {device.Tag}; find out what overloaded it."
            )
            {
                ProofPoints = Common.Points(device, poles[0]),
            };
        }
    }
}
