using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Procedures;

/// <summary>How a kind of device is repaired.</summary>
internal interface IRepaired
{
    /// <summary>How one of its faults is repaired, and why it usually comes.</summary>
    RepairNotes Repair(Device device, FaultMode fault);
}

/// <summary>Asks a kind how it is repaired.</summary>
internal static class RepairedSide
{
    public static RepairNotes Repair(this DeviceKind kind, Device device, FaultMode fault) => ((IRepaired)kind).Repair(device, fault);
}
