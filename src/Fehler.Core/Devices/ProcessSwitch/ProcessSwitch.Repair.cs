using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class ProcessSwitch
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] is PositionLocked
            ? base.Repair(device, fault) with
            {
                Steps =
                [
                    fault.Remedy,
                    "Move what moves it by hand, slowly, both ways, with a meter on the contact: where does it switch?",
                    "Fasten and mark its place; check that nothing runs past it.",
                ],
                Causes =
                [
                    new RootCause("Bent, loose or out of place", "Compare with its mark; look at the cam or float"),
                    new RootCause("Resin, sawdust or ice in it", "Open it"),
                    RepairNotes.Moisture,
                ],
                Cautions =
                [
                    "Never bridge a limit or a safety switch, not even for a test: volts across it or ohms when dead tell the same.",
                ],
            }
            : base.Repair(device, fault);
}
