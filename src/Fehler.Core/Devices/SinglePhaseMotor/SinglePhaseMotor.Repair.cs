using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class SinglePhaseMotor
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind == "capacitor"
            ? new RepairNotes
            {
                Steps = ["Discharge it through a resistor; measure its capacitance, or compare with a good one.", fault.Remedy],
                Parts = [$"Capacitor for {device.Tag}: same capacitance, same or higher voltage, same duty (start or run)"],
                Causes = [new RootCause("Age and heat", "Bulged or leaking can"), new RootCause("Too many starts", "Starts an hour")],
            }
            : base.Repair(device, fault);
}
