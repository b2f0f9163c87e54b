using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class OverloadRelay
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        var setting = device[Plate.SettingAmps];
        yield return new FaultMode(
            $"{device.Tag}/tripped",
            device.Tag,
            $"Overload {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, Tripped)],
            4,
            "Let it cool, find the cause, then reset."
        )
        {
            ProofLook = (device.Tag, "flag"),
            AskWhy =
                "A trip is a consequence: measure the current in each phase against the nameplate, look for a lost phase, a "
                + "jammed load, a wrong setting, a hot panel.",
        };
        yield return new FaultMode(
            $"{device.Tag}/no-reset",
            device.Tag,
            $"Overload {device.Tag} will not reset",
            [new PositionLocked(device.Tag, Tripped)],
            0.5,
            $"Let it cool; check that the reset rod reaches; replace {device.Tag}."
        )
        {
            ProofLook = (device.Tag, "flag"),
        };
        yield return new FaultMode(
            $"{device.Tag}/set-low",
            device.Tag,
            $"Overload {device.Tag} is set too low",
            [new ParameterIs(device.Tag, Plate.SettingAmps.Name, setting * 0.45)],
            0.5,
            $"Set the dial to the motor's {Term.NameplateCurrent} ({setting:0.##} A)."
        )
        {
            ProofLook = (device.Tag, "dial"),
        };
        yield return new FaultMode(
            $"{device.Tag}/set-high",
            device.Tag,
            $"Overload {device.Tag} is set too high: it does not protect the motor",
            [new ParameterIs(device.Tag, Plate.SettingAmps.Name, setting * 1.6)],
            0.3,
            $"Set the dial to the motor's {Term.NameplateCurrent} ({setting:0.##} A)."
        )
        {
            ProofLook = (device.Tag, "dial"),
        };
        yield return new FaultMode(
            $"{device.Tag}/wrong-class",
            device.Tag,
            $"Overload {device.Tag} is of a quicker class than the start needs",
            [new ParameterIs(device.Tag, Plate.TripClass.Name, Math.Max(5, device[Plate.TripClass] / 3))],
            0.1,
            $"Compare class and starting time; fit a relay of class {device[Plate.TripClass]:0}."
        )
        {
            ProofLook = (device.Tag, "class"),
        };
        if (device[Plate.Reset] == "hand")
        {
            yield return new FaultMode(
                $"{device.Tag}/resets-itself",
                device.Tag,
                $"Overload {device.Tag} is set to automatic reset: after a trip it comes back by itself",
                [new ParameterIs(device.Tag, Plate.Reset.Name, "automatic")],
                0.15,
                "Set it to reset by hand; a machine must not start because a relay has cooled."
            )
            {
                ProofLook = (device.Tag, "reset-mode"),
            };
        }

        foreach (var heater in elements.Take(3))
        {
            yield return Common.Open(
                device,
                heater,
                $"Heater {heater.Name} of {device.Tag} is open",
                0.3,
                $"Replace the overload relay {device.Tag}; set it to the {Term.NameplateCurrent}."
            );
            foreach (
                var mode in Common.HighResistance(
                    device,
                    heater,
                    $"Terminal of heater {heater.Name} of {device.Tag} is burnt (high resistance)",
                    0.2,
                    $"Replace the overload relay {device.Tag}.",
                    power: true
                )
            )
            {
                yield return mode;
            }
        }

        foreach (var contact in elements.Skip(3))
        {
            foreach (
                var mode in ContactFaults.Of(
                    device,
                    contact,
                    $"Overload contact {contact.Name} of {device.Tag}",
                    $"Replace the overload relay {device.Tag}; set it to the {Term.NameplateCurrent}.",
                    0.8
                )
            )
            {
                yield return mode;
            }
        }
    }
}
