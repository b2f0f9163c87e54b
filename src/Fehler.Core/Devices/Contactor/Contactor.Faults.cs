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
            );
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
