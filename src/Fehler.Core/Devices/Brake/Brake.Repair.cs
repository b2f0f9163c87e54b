using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Brake
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind is "not-lifted" or "not-holding"
            ? new RepairNotes
            {
                Steps = [fault.Remedy, "Set the air gap and the torque as the maker says; replace worn linings on both sides."],
                Parts = [$"Linings and springs for {device.Tag}", "Feeler gauge"],
                Causes =
                [
                    new RootCause("Air gap too large: the magnet no longer pulls", "Feeler gauge"),
                    new RootCause("No voltage or half of it at the brake's coil", "Volts DC at the coil; the rectifier ahead of it"),
                    new RootCause("Oil or rust on the linings", "Look inside"),
                ],
                Cautions = ["Put the load down or hold it by other means before the brake is touched."],
            }
            : base.Repair(device, fault);
}
