using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class ImpulseRelay
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] is PositionLocked
            ? base.Repair(device, fault) with
            {
                Causes =
                [
                    new RootCause(
                        "A button or its cable keeps the coil live: it cannot toggle again",
                        "Volts at the coil with nobody pressing: none"
                    ),
                    RepairNotes.ManyOperations,
                ],
            }
            : base.Repair(device, fault);
}
