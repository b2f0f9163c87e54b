using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class Supply
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        new()
        {
            Steps =
            [
                "Measure at the next place upstream, phase to phase and to neutral, until it is right again: the fault lies between.",
                fault.Remedy,
            ],
            Parts = ["Fuses of the feeder, by what is found"],
            Causes =
            [
                new RootCause("Fuse or breaker pole of the feeder", "Volts across each, under load"),
                new RootCause("A joint that burns", "Volts that collapse under load; heat; smell"),
                new RootCause("The utility's supply", "Are other machines affected?"),
            ],
            Cautions = ["Upstream the fault level is higher and other people's locks count: only who is allowed to opens it."],
        };
}
