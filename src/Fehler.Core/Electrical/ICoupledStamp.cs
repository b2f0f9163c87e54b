using System.Numerics;

namespace Fehler.Core.Electrical;

/// <summary>Where a device with more than two-terminal parts enters its equations.</summary>
public interface ICoupledStamp
{
    /// <summary>
    /// Windings that act on each other: current into winding i = sum over j of <paramref name="admittance"/>[i n + j] times
    /// the voltage over winding j, of n windings. Ends are terminals or inner nodes of the device.
    /// </summary>
    void Windings((string From, string To)[] windings, Complex[] admittance);

    /// <summary>A voltage source with its impedance between two terminals.</summary>
    void Source(int element, Complex volts, Complex ohms);
}
