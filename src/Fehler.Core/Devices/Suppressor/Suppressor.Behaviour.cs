using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Suppressor
{
    private const double SeriesOhms = 100,
        Farads = 0.1e-6,
        IdleOhms = 50e6;

    /// <summary>At supply frequency only the capacitor carries anything; for direct current and the ohmmeter all three are open.</summary>
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ac && device[Plate.Type] == "rc" ? 1 / new Complex(SeriesOhms, -1 / (2 * Math.PI * 50 * Farads)) : 1 / IdleOhms;
}
