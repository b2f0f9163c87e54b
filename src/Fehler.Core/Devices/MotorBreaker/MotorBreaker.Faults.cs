using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class MotorBreaker
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        Wording replace = $"Replace {device.Tag}, same type and range; set it to the {Term.NameplateCurrent}.";
        yield return new FaultMode(
            $"{device.Tag}/tripped",
            device.Tag,
            $"Motor-protective breaker {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, Tripped)],
            3,
            "Let it cool, find the cause, then off and on again."
        )
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy =
                "A trip is a consequence: a short circuit trips at once, an overload or a lost phase after a while. Measure the "
                + "current in each phase and the motor's insulation.",
        };
        yield return new FaultMode(
            $"{device.Tag}/left-off",
            device.Tag,
            $"Motor-protective breaker {device.Tag} was left off",
            [new FoundInPosition(device.Tag, Off)],
            0.6,
            "Find out who switched it off and why."
        )
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy = "Someone switched it off: ask who, and why, before switching on.",
        };
        yield return new FaultMode(
            $"{device.Tag}/set-low",
            device.Tag,
            $"{device.Tag} is set too low",
            [new ParameterIs(device.Tag, Plate.SettingAmps.Name, device[Plate.SettingAmps] * 0.45)],
            0.4,
            $"Set the dial to the motor's {Term.NameplateCurrent} ({device[Plate.SettingAmps]:0.##} A)."
        )
        {
            ProofLook = (device.Tag, "dial"),
        };
        foreach (var element in Elements(device))
        {
            if (element.Role == ElementRole.Pole)
            {
                yield return Common.Open(device, element, $"Pole {element.Name} of {device.Tag} does not close", 0.5, replace);
                foreach (
                    var mode in Common.HighResistance(
                        device,
                        element,
                        $"Pole {element.Name} of {device.Tag} is burnt (high resistance)",
                        0.2,
                        replace,
                        power: true
                    )
                )
                {
                    yield return mode;
                }
            }
            else
            {
                foreach (
                    var mode in ContactFaults.Of(
                        device,
                        element,
                        $"Auxiliary contact {element.Name} of {device.Tag}",
                        $"Replace the auxiliary contact block of {device.Tag}.",
                        0.7
                    )
                )
                {
                    yield return mode;
                }
            }
        }
    }
}
