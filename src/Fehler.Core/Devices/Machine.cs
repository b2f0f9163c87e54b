using System.Numerics;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// Single-cage equivalent circuit of an induction motor per phase of an equivalent star: stator R1 + jX1, magnetising
/// jXm, rotor R2/s + jX2 (any textbook on electrical machines). Values from the nameplate: locked-rotor impedance from
/// the starting current, rotor resistance from the rated slip, magnetising reactance from the rated power factor.
/// </summary>
internal sealed record Machine(double R1, double R2, double X1, double X2, double Xm, double RatedTorque)
{
    /// <summary>Locked-rotor power factor of a small cage motor (common practice).</summary>
    private const double LockedCos = 0.42;

    private static readonly ConditionalWeakTable<Device, Machine> Stated = [];

    /// <summary>The machine a complete description states.</summary>
    public static Machine Of(Device device) => Stated.GetValue(device, Read);

    private static Machine Read(Device device)
    {
        var machine = new Machine(
            device.Number("statorOhms"), device.Number("rotorOhms"), device.Number("statorReactance"),
            device.Number("rotorReactance"), device.Number("magnetisingReactance"), 1);
        return machine with { RatedTorque = machine.AirGapWatts(device.Number("volts") / Math.Sqrt(3), RatedSlip(device)) };
    }

    /// <summary>The machine a nameplate leads to.</summary>
    public static Machine Fit(Device device) => Fit(
        device.Number("volts"), device.Number("amps"), device.Number("cosPhi"), RatedSlip(device), device.Number("startingMultiple"));

    /// <summary>Writes the machine into the description.</summary>
    public Device Describe(Device device) => device
        .With("statorOhms", Rounded(R1)).With("rotorOhms", Rounded(R2)).With("statorReactance", Rounded(X1))
        .With("rotorReactance", Rounded(X2)).With("magnetisingReactance", Rounded(Xm));

    private static double Rounded(double ohms) => double.Parse(ohms.ToString("G5", System.Globalization.CultureInfo.InvariantCulture), System.Globalization.CultureInfo.InvariantCulture);

    private static double RatedSlip(Device device) => 1 - device.Number("rpm") / device.Number("synchronousRpm");

    /// <summary>Zero-, positive- and negative-sequence admittance at a slip, siemens.</summary>
    public (Complex Zero, Complex Positive, Complex Negative) Sequence(double slip) =>
        (1 / new Complex(R1, 0.3 * X1), 1 / Impedance(slip), 1 / Impedance(2 - slip));

    /// <summary>Power that a sequence voltage sends over the air gap, watt: the torque times synchronous speed.</summary>
    public double AirGapWatts(double volts, double slip)
    {
        var s = Bounded(slip);
        var rotor = new Complex(R2 / s, X2);
        var magnetising = new Complex(0, Xm);
        var stator = volts / Impedance(slip).Magnitude;
        var current = stator * (magnetising / (magnetising + rotor)).Magnitude;
        return 3 * current * current * R2 / s;
    }

    private Complex Impedance(double slip)
    {
        var rotor = new Complex(R2 / Bounded(slip), X2);
        var magnetising = new Complex(0, Xm);
        return new Complex(R1, X1) + magnetising * rotor / (magnetising + rotor);
    }

    private static double Bounded(double slip) => Math.Abs(slip) < 1e-5 ? 1e-5 : slip;

    private static Machine Fit(double volts, double amps, double cos, double slip, double start)
    {
        var phase = volts / Math.Sqrt(3);
        var locked = phase / (start * amps);
        var r = locked * LockedCos;
        var x = locked * Math.Sqrt(1 - LockedCos * LockedCos);
        var r1 = 0.45 * r;
        var xm = 12 * locked;
        var machine = new Machine(r1, r - r1, x / 2, x / 2, xm, 1);
        // Rotor resistance follows the rated slip, magnetising reactance the rated reactive current; some rounds agree on both.
        for (var i = 0; i < 60; i++)
        {
            var current = phase / machine.Impedance(slip);
            machine = machine with
            {
                R2 = Math.Clamp(machine.R2 * Math.Pow(current.Real / (amps * cos), 0.5), 0.2 * r, 1.2 * r),
                Xm = Math.Clamp(machine.Xm * Math.Pow(-current.Imaginary / (amps * Math.Sqrt(1 - cos * cos)), 0.5), 4 * locked, 60 * locked),
            };
        }

        // The locked-rotor current is what the nameplate gives: the stator takes what the rotor leaves.
        machine = machine with { R1 = Math.Max(0.2 * r, r - machine.R2) };
        return machine with { RatedTorque = machine.AirGapWatts(phase, slip) };
    }
}
