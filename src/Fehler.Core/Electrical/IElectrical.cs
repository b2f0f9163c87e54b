using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>How a kind of device conducts.</summary>
internal interface IElectrical
{
    /// <summary>Resistance of a closed contact, ohm.</summary>
    const double ContactOhms = 0.02;

    /// <summary>
    /// Admittance of an element that is not a contact, siemens; may depend on the position, on nothing else of the state.
    /// </summary>
    Complex Admittance(Device device, Element element, DeviceState state, Domain domain);

    /// <summary>Resistance of one of its contacts or poles while it is made, ohm.</summary>
    double MadeOhms(Device device, Element element);

    /// <summary>
    /// A pole made for a current: at that current it drops half a volt at most, of a small one less (common practice).
    /// </summary>
    static double PoleOhms(double ratedAmps) => Math.Min(ContactOhms, 0.5 / ratedAmps);

    /// <summary>Sources and windings; most devices have none.</summary>
    void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp);
}

/// <summary>Asks a kind for its electrical side.</summary>
internal static class ElectricalSide
{
    public static Complex Admittance(this DeviceKind kind, Device device, Element element, DeviceState state, Domain domain) =>
        ((IElectrical)kind).Admittance(device, element, state, domain);

    public static double MadeOhms(this DeviceKind kind, Device device, Element element) => ((IElectrical)kind).MadeOhms(device, element);

    public static void Stamp(this DeviceKind kind, Device device, DeviceState state, Domain domain, ICoupledStamp stamp) =>
        ((IElectrical)kind).Stamp(device, state, domain, stamp);
}
