using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class TimerRelay
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] switch
        {
            ParameterIs when fault.Kind is "short" or "long" => new RepairNotes
            {
                Steps = [fault.Remedy, "Time it with a watch, three times."],
                Causes =
                [
                    new RootCause("Somebody turned it, or range and scale do not belong together", "Read the log; range switch and dial"),
                ],
                Isolated = false,
            },
            PositionLocked => base.Repair(device, fault) with
            {
                Parts = [$"{Term.TimeRelay.Capital} {device.Tag}: same function, range and voltage"],
                Causes =
                [
                    new RootCause("Set to another function or range", "Function switch and range against the drawing"),
                    RepairNotes.Heat,
                    new RootCause("Voltage peaks of coils without suppressor", "Suppressors on the contactors beside it"),
                ],
            },
            _ => base.Repair(device, fault),
        };
}
