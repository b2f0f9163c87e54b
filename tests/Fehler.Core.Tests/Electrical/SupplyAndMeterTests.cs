using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Electrical;

public class SupplyAndMeterTests
{
    /// <summary>Geometry; common practice.</summary>
    [Theory]
    [InlineData(400, 231)]
    [InlineData(208, 120)]
    [InlineData(480, 277)]
    public void Phase_to_earth_is_the_line_voltage_over_root_three(double line, double phase)
    {
        var circuit = new DirectOnLine
        {
            Tag = "S",
            Title = "Supply",
            LineVolts = line,
        }.Build();
        var rest = Starters.Healthy(circuit).Start();
        rest.Volts("INC:L1", "INC:PE").ShouldBe(phase, 0.5);
        rest.Volts("INC:L1", "INC:L2").ShouldBe(line, 0.5);
    }

    /// <summary>
    /// Circuit theory: across an open device in a complete path stands the control voltage, across a closed one almost none.
    /// </summary>
    [Theory]
    [InlineData("S1/21-22-open", "S1:21", "S1:22")]
    [InlineData("F2/95-96-open", "F2:95", "F2:96")]
    [InlineData("5.1/open", "F2:96", "KM1:A1")]
    public void Across_the_open_device_stands_the_control_voltage_with_start_held(string fault, string from, string to)
    {
        var simulator = Starters.With(Starters.LineToNeutral, fault);
        simulator.Do(simulator.Start().State, Starters.Press).Volts(from, to).ShouldBe(230, 2);
        var good = Starters.Healthy(Starters.LineToNeutral);
        good.Do(good.Start().State, Starters.Press).Volts(from, to).ShouldBeLessThan(0.1);
    }

    /// <summary>One break of a shared wire number kills one side of it and leaves the other.</summary>
    [Fact]
    public void Two_terminals_of_one_wire_number_read_differently_when_the_conductor_between_them_is_broken()
    {
        var outcome = Starters.With(Starters.LineToNeutral, "3.3/open").Start();
        outcome.Volts("S1:22", "INC:N").ShouldBe(230, 2);
        outcome.Solution.IsFirm(TerminalId.Parse("KM1:13"), TerminalId.Parse("S1:22")).ShouldBeFalse();
    }

    [Fact]
    public void A_point_that_nothing_holds_is_stray_and_one_behind_a_lamp_is_not()
    {
        var rest = Starters.Healthy(Starters.LineToNeutral).Start();
        rest.Solution.IsFirm(TerminalId.Parse("S1:22"), TerminalId.Parse("INC:N")).ShouldBeTrue();
        rest.Solution.IsFirm(TerminalId.Parse("F2:98"), TerminalId.Parse("INC:N")).ShouldBeTrue();
        var open = Starters.With(Starters.LineToNeutral, "S1/21-22-open").Start();
        open.Solution.IsFirm(TerminalId.Parse("S1:22"), TerminalId.Parse("INC:N")).ShouldBeFalse();
    }

    /// <summary>Circuit theory: phase to phase, a star reads 2R and a delta 2R/3; with one delta winding open 2R, R, R.</summary>
    [Theory]
    [InlineData("star", 2, 2, 2)]
    [InlineData("delta", 2.0 / 3, 2.0 / 3, 2.0 / 3)]
    public void Windings_read_as_they_are_connected(string connection, double uv, double vw, double wu)
    {
        var circuit = new DirectOnLine
        {
            Tag = "W",
            Title = "Windings",
            MotorDelta = connection == "delta",
        }.Build();
        var r = circuit.Device("M1").Given("windingOhms").Number!.Value * (connection == "delta" ? 3 : 1);
        Ohms(circuit, []).ShouldBe([uv * r, vw * r, wu * r], 0.03);
    }

    [Fact]
    public void An_open_delta_winding_reads_2R_R_R()
    {
        var circuit = new DirectOnLine
        {
            Tag = "W",
            Title = "Windings",
            MotorDelta = true,
        }.Build();
        var r = circuit.Device("M1").Given("windingOhms").Number!.Value * 3;
        Ohms(circuit, [new ElementOpen("M1", "U-~u")]).ShouldBe([2 * r, r, r], 0.03);
    }

    /// <summary>IEC 60228, from memory.</summary>
    [Theory]
    [InlineData(1.5, 12.1)]
    [InlineData(2.5, 7.41)]
    [InlineData(4, 4.61)]
    [InlineData(6, 3.08)]
    public void Conductors_have_the_resistance_of_the_standard(double section, double ohmsPerKilometre) =>
        new Conductor("1.1", "1", new("A", "1"), new("B", "1"), 1000, section).Ohms.Value.ShouldBe(ohmsPerKilometre, 0.005);

    /// <summary>
    /// Common practice: an open Start reads the coil through the rest of the circuit, not OL, when the neutral side is joined.
    /// </summary>
    [Fact]
    public void The_coil_reads_its_direct_current_resistance_and_not_volts_over_amps()
    {
        var circuit = Starters.LineToNeutral;
        var simulator = Starters.Healthy(circuit);
        var state = simulator.Do(simulator.Start().State, new Step("Q1", "off")).State;
        var ohms = simulator.Network.Ohms(state, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"));
        ohms.Value.ShouldBe(circuit.Device("KM1").Given("coilOhms").Number!.Value, 1);
        (230.0 * 230 / circuit.Device("KM1").Given("coilSealedVa").Number!.Value / ohms.Value).ShouldBeGreaterThan(5);
    }

    private static double[] Ohms(Circuit circuit, IEnumerable<Alteration> fault)
    {
        var simulator = Starters.With(circuit, [.. fault]);
        var state = simulator.Do(simulator.Start().State, new Step("Q1", "off")).State;
        return
        [
            .. new[] { ("U", "V"), ("V", "W"), ("W", "U") }.Select(p =>
                simulator.Network.Ohms(state, new("M1", p.Item1), new("M1", p.Item2)).Value
            ),
        ];
    }
}
