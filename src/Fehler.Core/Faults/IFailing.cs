using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>How a kind of device fails. Conductors have their own, see <see cref="FaultCatalogue"/>.</summary>
internal interface IFailing
{
    IEnumerable<FaultMode> FaultModes(Device device);
}

/// <summary>Asks a kind how it fails.</summary>
internal static class FailingSide
{
    public static IEnumerable<FaultMode> FaultModes(this DeviceKind kind, Device device) => ((IFailing)kind).FaultModes(device);
}
