using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal abstract partial class DirectSource
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        new()
        {
            Steps =
            [
                "Lift its load: many supplies switch themselves off on a short circuit and come back without it.",
                "Then: input present, output none, load lifted: replace it. Output back: find the load that is shorted, a "
                    + "suppressor put in the wrong way round first.",
                fault.Remedy,
            ],
            Parts = [$"{Name} {device.Tag}: same input, output volts and amps"],
            Causes =
            [
                new RootCause("A shorted load or a suppressor the wrong way round", "Ohms of each load both ways"),
                RepairNotes.Heat,
                new RootCause("Age: capacitors dry out", "Volts DC steady, and AC volts on its output small"),
            ],
            Cautions = ["It keeps its charge for a while after switching off."],
        };
}
