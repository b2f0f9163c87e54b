using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// Equivalent circuit of a cage induction motor per phase of an equivalent star: stator R1 + jX1, magnetising jXm, rotor
/// R2/s + jX2 (any textbook on electrical machines). The rotor's bars are deep: their resistance rises with the frequency
/// in them, from R2 near synchronous speed to its locked value, which is what gives a starting torque. Values from the
/// nameplate: locked-rotor impedance from the starting current, rotor resistance from the rated slip, magnetising
/// reactance from the rated power factor.
/// </summary>
internal sealed record Machine(double R1, double R2, double R2Locked, double X1, double X2, double Xm, double RatedTorque)
{
    /// <summary>Locked-rotor power factor of a cage motor: about 0.45 of a small one, 0.3 of some tens of kW (common practice).</summary>
    private static double LockedCos(double kilowatts) => Math.Clamp(0.51 - 0.055 * Math.Log(Math.Max(0.1, kilowatts)), 0.2, 0.55);

    /// <summary>
    /// Most of the locked-rotor resistance that can be the stator's; the rest is the rotor with its current in the tops of the bars.
    /// </summary>
    private const double MostStatorShare = 0.5;

    /// <summary>The machine a complete description states.</summary>
    public static Machine Of(Device device) => device.WorkedOut(Read);

    private static Machine Read(Device device)
    {
        var machine = new Machine(
            device[Motor.Plate.StatorOhms],
            device[Motor.Plate.RotorOhms],
            Math.Max(device[Motor.Plate.RotorLockedOhms], device[Motor.Plate.RotorOhms]),
            device[Motor.Plate.StatorReactance],
            device[Motor.Plate.RotorReactance],
            device[Motor.Plate.MagnetisingReactance],
            1
        );
        return machine with { RatedTorque = machine.AirGapWatts(device[Motor.Plate.Volts] / Math.Sqrt(3), RatedSlip(device)) };
    }

    /// <summary>The machine a nameplate leads to.</summary>
    public static Machine Fit(Device device) =>
        Fit(
            device[Motor.Plate.Volts],
            device[Motor.Plate.Amps],
            device[Motor.Plate.CosPhi],
            RatedSlip(device),
            device[Motor.Plate.StartingMultiple],
            LockedCos(device[Motor.Plate.Kilowatts]),
            WindingOhms(device)
        );

    /// <summary>
    /// Direct-current resistance per phase of an equivalent star, ohm: the stator's copper takes some 8 % of a small motor's rated power
    /// and 3 % of a large one's at its rated current (common practice).
    /// </summary>
    private static double WindingOhms(Device device)
    {
        var kilowatts = device[Motor.Plate.Kilowatts];
        var share = Math.Clamp(0.062 - 0.0075 * Math.Log(kilowatts), 0.02, 0.09);
        return share * kilowatts * 1000 / (3 * Math.Pow(device[Motor.Plate.Amps], 2));
    }

    /// <summary>Writes the machine into the description.</summary>
    public Device Describe(Device device) =>
        device
            .With(Motor.Plate.StatorOhms.Name, Rounded(R1))
            .With(Motor.Plate.RotorOhms.Name, Rounded(R2))
            .With(Motor.Plate.RotorLockedOhms.Name, Rounded(R2Locked))
            .With(Motor.Plate.StatorReactance.Name, Rounded(X1))
            .With(Motor.Plate.RotorReactance.Name, Rounded(X2))
            .With(Motor.Plate.MagnetisingReactance.Name, Rounded(Xm));

    private static double Rounded(double ohms) =>
        double.Parse(
            ohms.ToString("G5", System.Globalization.CultureInfo.InvariantCulture),
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static double RatedSlip(Device device) => 1 - device[Motor.Plate.Rpm] / device[Motor.Plate.SynchronousRpm];

    /// <summary>Zero-, positive- and negative-sequence admittance at a slip, siemens.</summary>
    public (Complex Zero, Complex Positive, Complex Negative) Sequence(double slip) =>
        (1 / new Complex(R1, 0.3 * X1), 1 / Impedance(slip), 1 / Impedance(2 - slip));

    /// <summary>Power that a sequence voltage sends over the air gap, watt: the torque times synchronous speed.</summary>
    public double AirGapWatts(double volts, double slip)
    {
        var s = Bounded(slip);
        var rotor = new Complex(RotorOhms(s) / s, X2);
        var magnetising = new Complex(0, Xm);
        var stator = volts / Impedance(slip).Magnitude;
        var current = stator * (magnetising / (magnetising + rotor)).Magnitude;
        return 3 * current * current * RotorOhms(s) / s;
    }

    private Complex Impedance(double slip)
    {
        var rotor = new Complex(RotorOhms(slip) / Bounded(slip), X2);
        var magnetising = new Complex(0, Xm);
        return new Complex(R1, X1) + magnetising * rotor / (magnetising + rotor);
    }

    /// <summary>
    /// Rotor resistance at a slip. Skin effect: it grows about with the rotor's frequency at first and with its root above supply
    /// frequency, where the negative sequence is.
    /// </summary>
    private double RotorOhms(double slip)
    {
        var frequency = Math.Abs(slip);
        return R2 + (R2Locked - R2) * (frequency <= 1 ? frequency : Math.Sqrt(frequency));
    }

    private static double Bounded(double slip) => Math.Abs(slip) < 1e-5 ? 1e-5 : slip;

    private static Machine Fit(double volts, double amps, double cos, double slip, double start, double lockedCos, double copper)
    {
        var phase = volts / Math.Sqrt(3);
        var locked = phase / (start * amps);
        var r = locked * lockedCos;
        var x = locked * Math.Sqrt(1 - lockedCos * lockedCos);
        var r1 = Math.Min(copper, MostStatorShare * r);
        var xm = 12 * locked;
        var machine = new Machine(r1, r - r1, r - r1, x / 2, x / 2, xm, 1);
        // Rotor resistance follows the rated slip, magnetising reactance the rated reactive current; some rounds agree on both.
        for (var i = 0; i < 60; i++)
        {
            var current = phase / machine.Impedance(slip);
            machine = machine with
            {
                R2 = Math.Clamp(machine.R2 * Math.Pow(current.Real / (amps * cos), 0.5), 0.05 * r, 1.2 * r),
                Xm = Math.Clamp(
                    machine.Xm * Math.Pow(-current.Imaginary / (amps * Math.Sqrt(1 - cos * cos)), 0.5),
                    4 * locked,
                    60 * locked
                ),
            };
        }

        // A small motor's rotor may need more running resistance than the locked impedance has left: the stator then gives way.
        machine = machine.R2 > machine.R2Locked ? machine with { R2Locked = machine.R2, R1 = Math.Max(0.2 * r, r - machine.R2) } : machine;
        return machine with { RatedTorque = machine.AirGapWatts(phase, slip) };
    }
}
