using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class MotorBreaker
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind is "tripped" or "set-low" or "left-off"
            ? ThermalTrip.Aftermath(device[Plate.SettingAmps], []) with
            {
                Steps =
                [
                    "Write down whether it shows a short circuit or an overload.",
                    $"After a short circuit: isolate, measure cable and motor to {Term.Earth} and phase to phase before it is closed again.",
                    fault.Remedy,
                ],
                Cautions = ["Closing it may start the motor. Never close it a second time on a short circuit."],
            }
            : base.Repair(device, fault);
}
