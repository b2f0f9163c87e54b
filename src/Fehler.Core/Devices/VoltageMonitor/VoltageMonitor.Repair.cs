using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class VoltageMonitor
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] is PositionLocked
            ? new RepairNotes
            {
                Steps =
                [
                    "Measure the three voltages to each other where the relay is connected, under load, before its dials are touched.",
                    fault.Remedy,
                    "Write down the settings as found and as left.",
                ],
                Parts = [$"{Name} {device.Tag}: same functions and range"],
                Causes =
                [
                    new RootCause("The supply is really low, unbalanced or in the wrong sequence", "Volts between all phases; rotation"),
                    new RootCause(
                        "Connected where it sees nothing of the fault: behind a transformer or a motor that feeds back",
                        "Trace its three wires"
                    ),
                    new RootCause("Set tighter than the supply is", "Thresholds from set point and percent"),
                ],
            }
            : base.Repair(device, fault);
}
