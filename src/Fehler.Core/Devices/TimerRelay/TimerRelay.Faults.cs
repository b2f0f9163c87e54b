using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class TimerRelay
{
    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        yield return new FaultMode(
            $"{device.Tag}/never",
            device.Tag,
            $"{Term.TimeRelay.Capital} {device.Tag} never times out",
            [new PositionLocked(device.Tag, Running)],
            0.8,
            $"Check the dial; replace {device.Tag}."
        );
        yield return new FaultMode(
            $"{device.Tag}/at-rest",
            device.Tag,
            $"{Term.TimeRelay.Capital} {device.Tag} does nothing",
            [new PositionLocked(device.Tag, Rest)],
            0.6,
            $"Replace {device.Tag}."
        );
        yield return new FaultMode(
            $"{device.Tag}/at-once",
            device.Tag,
            $"{Term.TimeRelay.Capital} {device.Tag} has timed out from the start",
            [new PositionLocked(device.Tag, Done)],
            0.4,
            $"Check the dial; replace {device.Tag}."
        );
        yield return new FaultMode(
            $"{device.Tag}/short",
            device.Tag,
            $"{Term.TimeRelay.Capital} {device.Tag} is set much too short",
            [new ParameterIs(device.Tag, Plate.Seconds.Name, Math.Max(0.05, device[Plate.Seconds] * 0.1))],
            0.4,
            $"Set {device.Tag} to the time that the load needs to run up."
        )
        {
            ProofLook = (device.Tag, "dial"),
        };
        yield return new FaultMode(
            $"{device.Tag}/long",
            device.Tag,
            $"{Term.TimeRelay.Capital} {device.Tag} is set much too long",
            [new ParameterIs(device.Tag, Plate.Seconds.Name, device[Plate.Seconds] * 10)],
            0.3,
            $"Set {device.Tag} to the time that the load needs to run up."
        )
        {
            ProofLook = (device.Tag, "dial"),
        };
        foreach (var contact in Contacts(device))
        {
            if (device[Plate.Function] == "star-delta")
            {
                foreach (
                    var mode in ContactFaults.Of(
                        device,
                        contact,
                        $"Contact {contact.Name} of {device.Tag}",
                        $"Replace the {Term.TimeRelay} {device.Tag}.",
                        0.5
                    )
                )
                {
                    yield return mode;
                }
            }
        }
    }

    public override IEnumerable<FaultMode> FaultModes(Device device) => base.FaultModes(device).DistinctBy(f => (f.Id, f.Variant));
}
