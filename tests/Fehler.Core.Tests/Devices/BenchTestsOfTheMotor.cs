using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Devices;

/// <summary>
/// The motor put on a test bench: from its ohms and from what it draws unloaded and held fast follows the equivalent circuit of one phase
/// (the method of IEEE Std 112, no-load and locked-rotor test, from memory), and from that, by series and parallel impedances alone, what
/// it
/// must do at rated load. Nothing of the program's own model is used, only what can be measured at its terminals.
/// </summary>
public class BenchTestsOfTheMotor
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static readonly Phase AtRest = Measured(Start("M1/stalled"));

    [Fact]
    public void Its_equivalent_circuit_from_bench_tests_gives_the_current_and_power_of_the_nameplate()
    {
        var unloaded = Measured(Starters.Healthy(Circuit.Changed("M1", "load", 0.02)).Running());
        var stator = StatorOhms();
        // Half of the leakage on each side, as the standard takes it for an ordinary cage.
        var leakage = AtRest.Impedance.Imaginary / 2;
        var magnetising = unloaded.Impedance.Imaginary - leakage;
        // Held fast, the magnetising branch stands beside the rotor and takes its share.
        var rotor = (AtRest.Impedance.Real - stator) * Math.Pow((leakage + magnetising) / magnetising, 2);

        var rated = Starters.Healthy(Circuit.Changed("M1", "load", 1)).Running();
        var measured = Measured(rated);
        var slip = 1 - Speed(rated);
        var behindGap = Parallel(new Complex(0, magnetising), new Complex(rotor / slip, leakage));
        var amps = measured.Volts / (new Complex(stator, leakage) + behindGap);
        var rotorAmps = amps * behindGap / new Complex(rotor / slip, leakage);
        var shaft = 3 * Math.Pow(rotorAmps.Magnitude, 2) * rotor * (1 - slip) / slip;

        measured.Amps.Magnitude.ShouldBe(amps.Magnitude, 0.03 * amps.Magnitude);
        measured.Watts.ShouldBe(3 * (measured.Volts * Complex.Conjugate(amps)).Real, 0.03 * measured.Watts);
        // The plate: 4 kW, 8.1 A. Iron, friction and stray loss, some 3 to 8 % of a motor this size (common practice), are part of what
        // turns the shaft here.
        (shaft / 4000).ShouldBeInRange(1.0, 1.09);
        amps.Magnitude.ShouldBe(8.1, 0.05 * 8.1);
    }

    /// <summary>
    /// Common practice: stator copper takes 3 to 8 % of rated power, and a 4 kW, 400 V motor has 1.2 to 3.3 ohm between two terminals.
    /// </summary>
    [Fact]
    public void Its_ohms_are_those_of_its_size()
    {
        (2 * StatorOhms()).ShouldBeInRange(1.2, 3.3);
        (3 * 8.1 * 8.1 * StatorOhms() / 4000).ShouldBeInRange(0.03, 0.08);
    }

    /// <summary>
    /// IEC 60034-12 (from memory): a design N motor of this size starts with at least 1.9 times rated torque; torque in synchronous watts.
    /// </summary>
    [Fact]
    public void Held_fast_it_pulls_about_twice_its_rated_torque()
    {
        var airGap = AtRest.Watts - 3 * Math.Pow(AtRest.Amps.Magnitude, 2) * StatorOhms();
        var rated = 4000.0 / 1440 * 1500;
        (airGap / rated).ShouldBeInRange(1.2, 3.2);
    }

    /// <summary>
    /// Energy: what goes in and does not come out at the shaft is lost, some 10 to 20 % for 4 kW (IEC 60034-30-1, IE1 83.1 % to IE3 88.6 %,
    /// from memory).
    /// </summary>
    [Fact]
    public void At_rated_load_it_wastes_what_a_motor_of_its_size_wastes()
    {
        var rated = Measured(Starters.Healthy(Circuit.Changed("M1", "load", 1)).Running());
        (4000 / rated.Watts).ShouldBeInRange(0.82, 0.90);
    }

    private static double StatorOhms()
    {
        var resting = Starters.Healthy(Circuit).Start();
        return resting.Solution.Network.Ohms(resting.State, Terminal("U"), Terminal("V")).Value / 2;
    }

    private static Phase Measured(Outcome o)
    {
        var (u, v, w) = (o.Solution.Volts(Terminal("U")), o.Solution.Volts(Terminal("V")), o.Solution.Volts(Terminal("W")));
        return new Phase(u - (u + v + w) / 3, o.Solution.Amps("F2", "1-2"));
    }

    private static TerminalId Terminal(string name) => new("M1", name);

    private static Complex Parallel(Complex a, Complex b) => a * b / (a + b);

    private static Outcome Start(string fault)
    {
        var simulator = Starters.With(Circuit, fault);
        return simulator.Do(simulator.Start().State, Starters.Press);
    }

    private static double Speed(Outcome o) =>
        o.State.Devices[o.Solution.Network.Circuit.Devices.IndexOf(o.Solution.Network.Circuit.Device("M1"))].Speed;

    /// <summary>One phase of the equivalent star: volts to its star point, amps into it.</summary>
    private sealed record Phase(Complex Volts, Complex Amps)
    {
        public Complex Impedance => Volts / Amps;

        public double Watts => 3 * (Volts * Complex.Conjugate(Amps)).Real;
    }
}
