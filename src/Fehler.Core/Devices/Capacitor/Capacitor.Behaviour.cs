using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Capacitor
{
    /// <summary>What its dielectric leaks, ohm: an ohmmeter shows OL once it is charged.</summary>
    private const double LeakOhms = 100e6;

    /// <summary>One that has lost more than a third of its capacitance shows it by its can, more often than not (common practice).</summary>
    private const double Bulges = 0.67;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ac
            ? new Complex(1 / LeakOhms, 2 * Math.PI * device[Plate.Frequency] * device[Plate.Microfarads] * 1e-6)
            : 1 / LeakOhms;

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        device[Plate.Microfarads] < Bulges * drawn[Plate.Microfarads] ? "bulged or leaking" : "sound";
}
