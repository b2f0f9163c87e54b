using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Devices;

/// <summary>The devices around the motor beside Ohm's law and the rules of the trade; only what is measured at terminals is the program's.</summary>
public class ByHandControlTests
{
    /// <summary>Balanced load: I = P / (√3 V). One line open: two elements in series on one line voltage give half of the power.</summary>
    [Fact]
    public void A_heater_bank_draws_its_kilowatts_and_half_of_them_on_two_phases()
    {
        var circuit = new DirectOnLine
        {
            Tag = "H",
            Title = "Kiln heater",
            Driven = Driven.HeaterBank,
            MotorKilowatts = 6,
        }.Build();
        var o = new Operated(circuit).Do("S2 pressed", "S2 released");
        var full = 6000 / (Math.Sqrt(3) * 400);
        o.Amps("KM1", "1-2").ShouldBe(full * o.Volts("E1:U", "E1:V") / 400, 0.01);
        var two = new Operated(circuit, "F1/5-6-blown").Do("S2 pressed", "S2 released");
        var ohms = 400 * 400 / 6000.0;
        two.Amps("KM1", "1-2").ShouldBe(two.Volts("E1:U", "E1:V") / (2 * ohms), 0.01);
        two["E1"].ShouldBe("heats weakly");
    }

    /// <summary>I = P / V; a cold filament has about a tenth of its hot ohms (common practice), an LED lamp reads OL.</summary>
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_lamp_draws_its_watts_and_reads_a_tenth_of_them_cold(bool filament)
    {
        var circuit = new DirectOnLine
        {
            Tag = "L",
            Title = "Lamp",
            PowerLamp = true,
            FilamentLamps = filament,
        }.Build();
        var watts = circuit.Device("H3").Kind.WithDefaults(circuit.Device("H3")).Given("watts").Number!.Value;
        var o = new Operated(circuit);
        o.Amps("H3", "X1-X2").ShouldBe(watts / 230 * o.Volts("H3:X1", "H3:X2") / 230, 1e-4);
        var reading = circuit.Compiled().BenchCheck.Items.Single(i => i.Device == "H3" && i.IsMeasured);
        if (filament)
        {
            reading.IsGood(new(0.1 * 230 * 230 / watts)).ShouldBeTrue();
            reading.IsGood(new(230 * 230 / watts)).ShouldBeFalse();
        }
        else
        {
            reading.Good.ShouldBe("OL");
        }
    }

    /// <summary>A resistor and a capacitor in series: I = V / √(R² + 1/(ωC)²), 7.2 mA for 100 Ω and 0.1 µF at 230 V and 50 Hz.</summary>
    [Fact]
    public void A_suppressor_leaks_some_milliamperes()
    {
        var o = new Operated(FamilySamples.Of("plc")).Do("S2 pressed", "S2 released");
        var reactance = 1 / (2 * Math.PI * 50 * 0.1e-6);
        o.Amps("R1", "1-2").ShouldBe(o.Volts("R1:1", "R1:2") / Math.Sqrt(100 * 100 + reactance * reactance), 1e-5);
    }

    /// <summary>A controller's 24 V input takes some 5 mA (type 1 of IEC 61131-2, from memory: at least 2 mA at 15 V).</summary>
    [Fact]
    public void A_controller_input_takes_five_milliamperes()
    {
        var o = new Operated(FamilySamples.Of("plc"));
        o.Outcome.Solution.Amps(TerminalId.Parse("A1:I0")).Value.ShouldBe(0.005, 0.0005);
    }

    /// <summary>Half-wave rectification gives 0.45, full-wave 0.9 of the alternating voltage (√2/π and 2√2/π of it).</summary>
    [Theory]
    [InlineData("half wave", 1)]
    [InlineData("full wave", 2)]
    public void A_rectifier_gives_its_mean_value(string bridge, int halves)
    {
        var hoist = FamilySamples.Of("hoist");
        var circuit = hoist with
        {
            Devices =
            [
                .. hoist.Devices.Select(d =>
                    d.Tag == "V1" ? d.With("bridge", bridge)
                    : d.Tag == "Y1" ? d.With("coilVolts", halves * 180.0)
                    : d
                ),
            ],
        };
        var o = new Operated(circuit).Do("S2 pressed", "S2 released", "S13 pressed");
        o.DcVolts("V1:L+", "V1:M").ShouldBe(halves * 400 * Math.Sqrt(2) / Math.PI, 4);
        o["Y1"].ShouldBe("lifted");
        o["M1"].ShouldBe("runs");
    }

    /// <summary>A shorted load folds a good supply back (common practice): next to nothing at its output while the short is there.</summary>
    [Fact]
    public void A_short_behind_a_DC_supply_folds_it_back()
    {
        var circuit = FamilySamples.Of("dol-dc-behind-transformer");
        var o = new Operated(circuit, new Bridge(TerminalId.Parse("PS1:L+"), TerminalId.Parse("PS1:M"), 0.2));
        Math.Abs(o.DcVolts("PS1:L+", "PS1:M")).ShouldBeLessThan(3);
        o["PS1"].ShouldBe("overloaded");
        o.Volts("PS1:L", "PS1:N").ShouldBeGreaterThan(200, "its input is there");
    }

    /// <summary>
    /// NEMA MG 1 (from memory): unbalance is the greatest deviation from the mean over the mean. Worked on the three voltages that the
    /// relay has, its verdict turns where this figure crosses its limit.
    /// </summary>
    [Theory]
    [InlineData(0.9, "unbalance")]
    [InlineData(1.1, "good")]
    public void A_monitor_judges_unbalance_as_the_standard_works_it_out(double limitOverUnbalance, string shown)
    {
        var sample = FamilySamples.Of("impulse-watched");
        Circuit With(double limit) =>
            sample with
            {
                Devices =
                [
                    .. sample.Devices.Select(d =>
                        d.Tag == "KF1" ? d.With("unbalancePercent", limit).With("neutral", "no").With("underPercent", 60.0)
                        : d.Tag == "INC" ? d.With("lowPhase", "L2").With("lowPercent", 12.0)
                        : d
                    ),
                ],
                Paths = [.. sample.Paths.Where(p => p.Name != "Monitored neutral")],
                Conductors = [.. sample.Conductors.Where(c => c.From.ToString() != "KF1:N" && c.To.ToString() != "KF1:N")],
            };

        var o = new Operated(With(30));
        double[] volts = [o.Volts("KF1:L1", "KF1:L2"), o.Volts("KF1:L2", "KF1:L3"), o.Volts("KF1:L3", "KF1:L1")];
        var unbalance = 100 * volts.Max(v => Math.Abs(v - volts.Average())) / volts.Average();
        unbalance.ShouldBeInRange(2, 10);
        new Operated(With(unbalance * limitOverUnbalance)).Do("wait 5").Look("KF1", "indicator").ShouldBe(shown);
    }

    /// <summary>460, 467 and 450 V: mean 459, unbalance 1.96 % (NEMA MG 1, worked example, from memory): the formula used above.</summary>
    [Fact]
    public void The_formula_of_unbalance_gives_the_worked_example()
    {
        double[] volts = [460, 467, 450];
        volts.Average().ShouldBe(459);
        (100 * volts.Max(v => Math.Abs(v - volts.Average())) / volts.Average()).ShouldBe(1.96, 0.005);
    }

    /// <summary>P = V I cos φ at the plate's load; a standing rotor draws some five times the plate (common practice).</summary>
    [Fact]
    public void A_single_phase_motor_draws_its_plate_and_five_times_as_much_standing()
    {
        var sample = FamilySamples.Of("single-phase");
        var circuit = sample with { Devices = [.. sample.Devices.Select(d => d.Tag == "M1" ? d.With("load", 1.0) : d)] };
        var plate = circuit.Device("M1").Given("amps").Number!.Value;
        new Operated(circuit).Do("S2 pressed", "S2 released").Amps("M1", "U1-U2").ShouldBe(plate, 0.05 * plate);
        (new Operated(circuit, "M1/stalled").Do("S2 pressed").Amps("M1", "U1-U2") / plate).ShouldBeInRange(4, 6);
    }

    /// <summary>A timer acts when its time is over, not before: star to delta after the seconds on its dial.</summary>
    [Fact]
    public void A_timer_acts_at_its_time()
    {
        var seconds = FamilySamples.Of("star-delta").Device("KT1").Given("seconds").Number!.Value;
        var o = new Operated(FamilySamples.Of("star-delta")).Do(
            "S2 pressed",
            "S2 released",
            FormattableString.Invariant($"wait {seconds - 0.2}")
        );
        (o["KM3"], o["KM2"]).ShouldBe(("in", "out"));
        o.Do("wait 0.4");
        (o["KM3"], o["KM2"]).ShouldBe(("out", "in"));
    }

    /// <summary>Made for a current, a pole drops half a volt at most at it, a fuse some tenths (common practice).</summary>
    [Fact]
    public void Closed_poles_and_fuses_drop_tenths_of_a_volt()
    {
        var o = new Operated(FamilySamples.Of("star-delta")).Do("S2 pressed", "S2 released", "wait 30");
        foreach (var (from, to) in new[] { ("Q1:1", "Q1:2"), ("F1:1", "F1:2"), ("KM1:1", "KM1:2"), ("F2:1", "F2:2") })
        {
            o.Volts(from, to).ShouldBeInRange(0.001, 0.5, $"{from} {to}");
        }
    }

    /// <summary>Every kind of device is in the table of what is modelled, with its accuracy and what it was checked against.</summary>
    [Fact]
    public void Every_kind_of_device_is_in_the_published_table()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root!.FullName, "Fehler.slnx")))
        {
            root = root.Parent;
        }

        var table = File.ReadAllLines(Path.Combine(root.FullName, "docs", "method.md"))
            .Where(l => l.StartsWith("| `", StringComparison.Ordinal))
            .ToList();
        foreach (var kind in DeviceKinds.All)
        {
            table.ShouldContain(row => row.Split('|')[1].Contains($"`{kind.Id}`"), kind.Id);
        }
    }
}
