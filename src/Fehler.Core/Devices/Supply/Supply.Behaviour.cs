using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Supply
{
    private const double EarthingOhms = 0.1;

    /// <summary>
    /// What an unearthed system's cables leak to earth, F per phase: some hundred metres of power cable (common practice).
    /// </summary>
    private const double SystemFarads = 0.1e-6;

    private const int Lost = 1,
        FirstMissing = 2;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        element.Role == ElementRole.Link ? 1 / (element.B == "N" ? device[Plate.SourceOhms] : EarthingOhms)
        : domain == Domain.Ac ? new Complex(1e-7, 2 * Math.PI * device[Plate.Frequency] * SystemFarads)
        : 1e-7;

    /// <summary>A supply is within a tenth of its voltage (IEC 60038, from memory), and seldom at it.</summary>
    public override Device AsInstalled(Device device, Scatter scatter) =>
        scatter.Multiplied(scatter.Multiplied(device, Plate.LineVolts, 1.03), Plate.SourceOhms, 1.4);

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var on = state.Position != Lost && domain == Domain.Ac;
        var phasors = Phasors(device);
        for (var k = 0; k < phasors.Length; k++)
        {
            // Switched off elsewhere the source's own windings stay connected; a phase that is missing is an open line.
            if (state.Position != FirstMissing + k)
            {
                stamp.Source(k, on ? phasors[k] : 0, device[Plate.SourceOhms] * new Complex(1, 0.4));
            }
        }
    }

    /// <summary>L1, L2, L3 follow each other by 120 degrees between lines: a clockwise field.</summary>
    private static Complex[] Phasors(Device device)
    {
        var phasors = InSequence(device)
            .Select((p, k) => device[Plate.LowPhase] == $"L{k + 1}" ? p * (1 - device[Plate.LowPercent] / 100) : p)
            .ToArray();
        return phasors.Length == 3 && device[Plate.Sequence] == "L1-L3-L2" ? [phasors[0], phasors[2], phasors[1]] : phasors;
    }

    private static Complex[] InSequence(Device device)
    {
        var volts = device[Plate.LineVolts];
        static Complex At(double magnitude, double degrees) => Complex.FromPolarCoordinates(magnitude, degrees * Math.PI / 180);
        return device[Plate.System] switch
        {
            "single-phase" => [At(volts, 0)],
            // The middle of side L1-L3 is the neutral; L2 is the high leg, 0.866 of the line voltage above it.
            "high-leg" => [At(volts / 2, 0), At(volts * Math.Sqrt(3) / 2, -90), At(volts / 2, 180)],
            _ => [At(volts / Math.Sqrt(3), 0), At(volts / Math.Sqrt(3), -120), At(volts / Math.Sqrt(3), 120)],
        };
    }

    /// <summary>Which way the three phases follow each other: the sign of the area that their phasors span.</summary>
    public override string Measured(Device device, Look look, DeviceState state, IDeviceMeter meter)
    {
        var (a, b, c) = (meter.Volts("L1", "L2"), meter.Volts("L2", "L3"), meter.Volts("L3", "L1"));
        var least = 0.6 * device[Plate.LineVolts];
        return a.Magnitude < least || b.Magnitude < least || c.Magnitude < least ? "a phase is missing"
            : (a * Complex.Conjugate(b)).Imaginary > 0 ? "L1-L2-L3"
            : "L1-L3-L2";
    }
}
