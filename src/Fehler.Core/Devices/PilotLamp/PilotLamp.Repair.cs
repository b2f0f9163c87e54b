using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class PilotLamp
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        new()
        {
            Steps = [fault.Remedy, $"Prove it by its test button or by operating the circuit: a dark {Term.Lamp} is not a dead circuit."],
            Parts = [$"{Term.Lamp.Capital} for {device.Tag}, same voltage"],
            Causes =
            [
                RepairNotes.Vibration,
                new RootCause("Voltage too high for it", $"Volts at the {Term.Lamp} against what is printed on it"),
            ],
            Isolated = false,
        };
}
