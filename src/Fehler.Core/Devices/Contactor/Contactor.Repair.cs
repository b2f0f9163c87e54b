using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Contactor
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind == "interlock-jammed"
            ? base.Repair(device, fault) with
            {
                Parts = [$"Mechanical interlock for {device.Tag}, same type"],
                Cautions = ["Never leave the interlock off to get the machine running."],
            }
            : base.Repair(device, fault);
}
