using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Suppressor
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        new()
        {
            Steps = [fault.Remedy, "On direct current: the diode's bar to plus. Measure the coil with the suppressor off."],
            Parts = [$"Suppressor for {device.Tag}: same sort (RC, diode or varistor) and voltage"],
            Causes =
            [
                new RootCause("Put in the wrong way round, or for another voltage", "Bar to plus; voltage printed on it"),
                new RootCause("Voltage peaks from the supply", "Other suppressors and lamps that fail"),
            ],
        };
}
