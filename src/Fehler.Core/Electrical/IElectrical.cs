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

    /// <summary>
    /// The device with one standard deviation more resistance in its copper than the description leads to: how far makes differ, or what
    /// is left to a known winding by temperature. The device itself where it has none.
    /// </summary>
    Device WithMoreCopper(Device device);

    /// <summary>
    /// The device as one that stands in a panel may be: what make, age and place do to it, drawn by chance. For simulated panels only; the
    /// diagnosis knows the description.
    /// </summary>
    Device AsInstalled(Device device, Scatter scatter);

    /// <summary>Sources and windings; most devices have none.</summary>
    void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp);
}

/// <summary>Asks a kind for its electrical side.</summary>
internal static class ElectricalSide
{
    public static Complex Admittance(this DeviceKind kind, Device device, Element element, DeviceState state, Domain domain) =>
        ((IElectrical)kind).Admittance(device, element, state, domain);

    public static double MadeOhms(this DeviceKind kind, Device device, Element element) => ((IElectrical)kind).MadeOhms(device, element);

    public static Device WithMoreCopper(this DeviceKind kind, Device device) => ((IElectrical)kind).WithMoreCopper(device);

    public static Device AsInstalled(this DeviceKind kind, Device device, Scatter scatter) =>
        ((IElectrical)kind).AsInstalled(device, scatter);

    public static void Stamp(this DeviceKind kind, Device device, DeviceState state, Domain domain, ICoupledStamp stamp) =>
        ((IElectrical)kind).Stamp(device, state, domain, stamp);
}
