using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class ControlTransformer
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind == "wrong-tap"
            ? new RepairNotes
            {
                Steps = [fault.Remedy, "Measure the secondary with and without load afterwards."],
                Causes = [new RootCause("Fitted as it came, for another supply", "Taps against the measured supply")],
            }
            : new RepairNotes
            {
                Steps =
                [
                    "Lift the secondary: a short circuit behind it looks like a dead transformer.",
                    $"Ohms of primary and secondary by themselves, each to {Term.Earth} and to each other.",
                    fault.Remedy,
                    $"Land the secondary's {Term.EarthLink} again where the drawing has one.",
                ],
                Parts = [$"Control transformer {device.Tag}: same voltages, same VA or more"],
                Causes =
                [
                    new RootCause(
                        "Short circuit in the control circuit with a fuse that is too large",
                        "Fuse rating against VA; coils, lamps, suppressors behind it"
                    ),
                    new RootCause("Too many coils pulling in together", "VA of all pull-ins against its rating"),
                    RepairNotes.Heat,
                ],
            };
}
