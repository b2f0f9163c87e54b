using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class CircuitBreaker
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind == "tripped"
            ? new RepairNotes
            {
                Steps =
                [
                    $"Isolate what follows; measure it to {Term.Earth} and across before the breaker is closed again.",
                    "Disconnect branch by branch until the fault is found.",
                    fault.Remedy,
                ],
                Parts = [$"{device.Kind.ReplaceableUnit} {device.Tag}, same rating and curve, if it does not hold without load"],
                Causes =
                [
                    new RootCause($"Short circuit or {Term.EarthFault} behind it", "Ohms behind it with the loads lifted"),
                    new RootCause("Too many loads, or an inrush it is not made for", "Clamp current; curve against transformer or motor"),
                ],
                Cautions = ["Never close a breaker again and again to see whether it holds."],
            }
            : base.Repair(device, fault);
}
