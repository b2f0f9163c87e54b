using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Fuse
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] is FoundInPosition
            ? new RepairNotes
            {
                Steps =
                [
                    $"Find what blew it before a new one goes in: measure behind it to {Term.Earth} and phase to phase, loads lifted in turn.",
                    "Replace the fuses of a set together: the others were hurt too.",
                    "Look at the holder: springs tight, no burnt contact.",
                ],
                Parts =
                [
                    $"Fuses for {device.Tag}: {device[Plate.Poles]:0} × {device[Plate.RatedAmps]:0.##} A, same characteristic and size",
                ],
                Causes =
                [
                    new RootCause($"Short circuit or {Term.EarthFault} behind it", "Ohms behind it, isolated, loads lifted"),
                    new RootCause(
                        "A load that stays at its starting current: stalled motor, coil that does not close, shorted coil or suppressor",
                        "Clamp current at the first moments; coil ohms as a value"
                    ),
                    new RootCause("A worn-out or wrong fuse: age, rating, characteristic", "Rating on the cap against the drawing"),
                    new RootCause("A loose holder that heats it", "Discoloured cap or spring"),
                ],
                Cautions = ["A blown fuse is a consequence. Never put in a larger one, never bridge it."],
            }
            : base.Repair(device, fault);
}
