using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Devices;

/// <summary>Currents, times and settings of what protects a motor, beside the gates of the standards (all from memory).</summary>
public class ProtectionCurveTests
{
    /// <summary>IEC 60947-4-1: band of each class at 7.2 times; NEMA ICS 2: at 6 times within the class's number of seconds.</summary>
    [Theory]
    [InlineData(10, 4, 10)]
    [InlineData(20, 6, 20)]
    [InlineData(30, 9, 30)]
    public void Every_class_lies_within_both_worlds_gates(double tripClass, double least, double most)
    {
        ThermalTrip.TimeToTrip(7.2, 7.2, tripClass, true).Value.ShouldBeInRange(least, most);
        ThermalTrip.TimeToTrip(6, 6, tripClass, true).Value.ShouldBeLessThan(tripClass);
        ThermalTrip.TimeToTrip(1.05, 1.05, tripClass, true).ShouldBe(Seconds.Never);
        ThermalTrip.TimeToTrip(1.2, 1.2, tripClass, true).Value.ShouldBeLessThan(7200);
    }

    /// <summary>
    /// IEC 60947-4-1: at 1.5 times, warm from its setting, within 2, 4, 8 and 12 min by class; two starts in a row trip sooner than one.
    /// </summary>
    [Theory]
    [InlineData(10, 240)]
    [InlineData(20, 480)]
    [InlineData(30, 720)]
    public void A_warm_relay_trips_sooner_and_within_its_class(double tripClass, double within)
    {
        var warm = ThermalTrip.Heated(0, 1, tripClass, new(1e5));
        warm.ShouldBe(1, 1e-3);
        var seconds = ThermalTrip.TimeToTrip(1.5, 1.5, tripClass, true, warm).Value;
        seconds.ShouldBeLessThan(within);
        seconds.ShouldBeLessThan(ThermalTrip.TimeToTrip(1.5, 1.5, tripClass, true).Value / 2);
        // The law of heating, integrated by small steps.
        var heat = warm;
        var time = 0.0;
        for (; heat < 1.12 * 1.12 && time < 1000; time += 0.01)
        {
            heat = ThermalTrip.Heated(heat, 1.5, tripClass, new(0.01));
        }

        time.ShouldBe(seconds, 0.01 * seconds);
    }

    /// <summary>A tripped relay has to cool before it holds (common practice: one to some minutes), and the circuit says so.</summary>
    [Fact]
    public void A_relay_is_reset_only_when_it_has_cooled()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "M1/stalled");
        var tripped = simulator.Do(simulator.Running().State, Step.Wait(30));
        tripped.Appearances["M1"].ShouldBe("stopped");
        var reset = new Step("F2", "reset");
        var tooSoon = simulator.Do(tripped.State, reset);
        tooSoon.Events.ShouldContain(e => e.Contains("too hot to reset", StringComparison.Ordinal));
        simulator.Do(tooSoon.State, [Starters.Press]).Appearances["KM1"].ShouldBe("out");
        var cooled = simulator.Do(simulator.Do(tripped.State, Step.Wait(240)).State, reset);
        simulator.Do(cooled.State, [Starters.Press]).Appearances["KM1"].ShouldBe("in");
    }

    /// <summary>Set to automatic it comes back by itself, and a switch that is still on starts the motor again (common practice).</summary>
    [Fact]
    public void An_automatic_reset_restarts_what_is_still_asked_for()
    {
        var circuit = new DirectOnLine
        {
            Tag = "W",
            Title = "Pump",
            Mode = StartMode.TwoWire,
        }.Build();
        var automatic = CircuitEditor.Apply(circuit, new SetParameter("F2", "reset", "automatic"));
        automatic
            .Compiled()
            .DesignReview.Findings.ShouldContain(f => f.Id == "restart-cooled/F2" || f.Id.StartsWith("restart", StringComparison.Ordinal));
    }

    /// <summary>A start that takes longer than the class allows ends in a trip before the speed is reached (common practice).</summary>
    [Theory]
    [InlineData(1, false)]
    [InlineData(20, true)]
    public void A_start_that_takes_too_long_trips_before_the_speed_is_reached(double seconds, bool trips)
    {
        var circuit = Starters.LineToNeutral.Changed("M1", "startSeconds", seconds);
        var started = Starters.Healthy(circuit).Running();
        started.Appearances["M1"].ShouldBe(trips ? "stopped" : "runs");
    }

    /// <summary>Common practice: bimetal trips some time after a phase is lost, electronics within seconds, solder by its own element only.</summary>
    [Fact]
    public void What_a_lost_phase_does_depends_on_how_the_relay_senses()
    {
        TripOf("bimetal", 0.8).ShouldBeInRange(5, 900);
        TripOf("electronic", 0.8).ShouldBeInRange(1, 5);
        TripOf("melting alloy", 0.8).ShouldBeGreaterThan(TripOf("bimetal", 0.8));
        // At half load two lines carry less than the setting: solder and bimetal stay, electronics does not.
        TripOf("melting alloy", 0.3).ShouldBe(double.PositiveInfinity);
        TripOf("electronic", 0.3).ShouldBeInRange(1, 5);
    }

    /// <summary>Standstill is standstill: a conveyor with nothing on it hums as loudly when its gearbox is seized.</summary>
    [Theory]
    [InlineData(0.05)]
    [InlineData(0.4)]
    [InlineData(1)]
    public void A_jammed_rotor_does_not_turn_whatever_its_load(double load)
    {
        var circuit = Starters.LineToNeutral.Changed("M1", "load", load);
        var jammed = Starters.Fault(circuit, "M1/stalled").Alterations;
        var started = new Simulator(Network.Of(circuit).With(jammed)).Running();
        started.Appearances["M1"].ShouldBe("hums, does not start");
        // Locked rotor about six times the plate (common practice; the plate says 6 here).
        started.LineAmps().ShouldAllBe(a => a > 5 * 8.1 && a < 6.5 * 8.1);

        // Struck while it ran it stands too.
        var running = Starters.Healthy(circuit).Running();
        new Simulator(Network.Of(circuit).With(jammed)).Observe(running.State).Appearances["M1"].ShouldBe("hums, does not start");
    }

    [Fact]
    public void A_load_that_holds_at_standstill_is_not_the_load_it_runs_with()
    {
        var circuit = Starters.LineToNeutral.Changed("M1", "breakawayLoad", 2.9).Changed("M1", "load", 0.5);
        Starters.Healthy(circuit).Running().Appearances["M1"].ShouldBe("hums, does not start");
        var running = Starters.Healthy(Starters.LineToNeutral.Changed("M1", "load", 0.5)).Running();
        Starters.Healthy(circuit).Observe(running.State).Appearances["M1"].ShouldBe("runs");
    }

    /// <summary>
    /// IEC 60269-1: a gG fuse holds 1.25 times for its conventional time and melts within it at 1.6 times; upper gate about four times
    /// within 5 s. IEC 60898-1: 1.13 times for an hour, 1.45 times within one, 2.55 times within 1 to 60 s.
    /// </summary>
    [Fact]
    public void Fuses_and_breakers_take_their_time()
    {
        TimeAt(MotorProtection.Fuses, 1.25).ShouldBe(double.PositiveInfinity);
        TimeAt(MotorProtection.Fuses, 1.7).ShouldBeInRange(60, 3600);
        TimeAt(MotorProtection.Fuses, 4.06).ShouldBeInRange(1, 5.1);
        TimeAt(MotorProtection.Breaker, 1.13).ShouldBe(double.PositiveInfinity);
        TimeAt(MotorProtection.Breaker, 1.45).ShouldBeInRange(60, 3600);
        TimeAt(MotorProtection.Breaker, 2.55).ShouldBeInRange(1, 60);
    }

    /// <summary>Coordination (common practice): a stalled motor trips its overload, its fuses are for short circuits.</summary>
    [Theory]
    [InlineData(4, 8.1)]
    [InlineData(11, 21.5)]
    [InlineData(30, 55)]
    [InlineData(75, 134)]
    public void A_stalled_motor_trips_its_overload_before_its_fuses_melt(double kilowatts, double amps)
    {
        var circuit = Motor(kilowatts, amps);
        var simulator = new Simulator(Network.Of(circuit).With(Starters.Fault(circuit, "M1/stalled").Alterations));
        var outcome = simulator.Do(simulator.Start().State, [Starters.Press, Step.Wait(60)]);
        outcome.Events.ShouldContain(e => e.StartsWith("F2 tripped after", StringComparison.Ordinal));
        outcome.Events.ShouldNotContain(e => e.StartsWith("F1", StringComparison.Ordinal));
    }

    /// <summary>A thick cable is what makes a large motor start: voltage drop at six times 190 A in 2.5 mm² would leave it standing.</summary>
    [Theory]
    [InlineData(45, 81)]
    [InlineData(110, 190)]
    [InlineData(200, 340)]
    public void A_large_motor_starts_on_the_cable_that_its_current_asks_for(double kilowatts, double amps)
    {
        var circuit = Motor(kilowatts, amps);
        var running = Starters.Healthy(circuit).Running();
        running.Appearances["M1"].ShouldBe("runs");
        running.LineAmps().ShouldAllBe(a => a < amps);
    }

    [Fact]
    public void A_shunt_release_trips_on_direct_current_too()
    {
        var circuit = new DirectOnLine
        {
            Tag = "DC",
            Title = "Shunt on 24 V DC",
            Control = ControlSupply.DcSupply,
            Protection = MotorProtection.Breaker,
            EmergencyStop = true,
            ShuntTrip = true,
        }.Build();
        var operated = new Operated(circuit).Do("S2 pressed", "S2 released");
        operated["M1"].ShouldBe("runs");
        operated.Do("S0 operated");
        operated["M1"].ShouldBe("stopped");
        operated.Outcome.State.Devices[circuit.Devices.IndexOf(circuit.Device("F1"))].Position.ShouldBe(2);
    }

    /// <summary>
    /// The dial belongs at the nameplate current of its place and never above (IEC 60947-4-1 with common practice): a plate that does not
    /// fit voltage or frequency must not push it up.
    /// </summary>
    [Theory]
    [InlineData(480, 60, 8.1, 1440)]
    [InlineData(400, 50, 8.1, 1440)]
    [InlineData(690, 50, 8.1, 1440)]
    [InlineData(208, 60, 8.1, 1730)]
    [InlineData(400, 50, 3.0, 1440)]
    [InlineData(400, 50, 20, 1440)]
    [InlineData(400, 60, 8.1, 2900)]
    public void No_dial_is_ever_proposed_above_the_nameplate(double volts, double hertz, double amps, double rpm)
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Plate",
            LineVolts = volts,
            Frequency = hertz,
            MotorAmps = amps,
            MotorRpm = rpm,
            Control = ControlSupply.Transformer,
        }.Build();
        // Whatever stands on the dial now, too low or far too high.
        foreach (var dial in new[] { 0.3 * amps, 2.5 * amps })
        {
            var proposed = PlateCheck
                .Proposals(
                    CircuitEditor
                        .Apply(circuit, new SetParameter("F2", "settingAmps", dial.ToString(CultureInfo.InvariantCulture)))
                        .Compile()
                )
                .Select(p => p.Edit)
                .OfType<SetParameter>()
                .Where(p => p is { Tag: "F2", Name: "settingAmps" })
                .Select(p => double.Parse(p.Value, CultureInfo.InvariantCulture))
                .ToList();
            proposed.ShouldAllBe(a => Math.Abs(a - amps) < 0.02 * amps);
        }
    }

    [Fact]
    public void A_speed_that_no_motor_slips_to_is_questioned_and_the_current_is_left_alone()
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "A plate for 50 Hz on 60 Hz",
            LineVolts = 480,
            Frequency = 60,
            Control = ControlSupply.Transformer,
        }.Build();
        var proposals = PlateCheck.Proposals(circuit.Compile());
        proposals.ShouldContain(p =>
            p.Edit == new SetParameter("M1", "rpm", "1728") && p.Text.Contains("frequency", StringComparison.Ordinal)
        );
        proposals.Select(p => p.Edit).OfType<SetParameter>().ShouldNotContain(p => p.Name == "amps" || p.Name == "settingAmps");
    }

    private static Circuit Motor(double kilowatts, double amps) =>
        new DirectOnLine
        {
            Tag = "P",
            Title = "Protection",
            MotorKilowatts = kilowatts,
            MotorAmps = amps,
        }.Build();

    /// <summary>Seconds until the overload trips once a phase is lost on the run; infinite when it does not within two hours.</summary>
    private static double TripOf(string type, double load)
    {
        var circuit = Starters.LineToNeutral.Changed("M1", "load", load);
        circuit = CircuitEditor.Apply(circuit, new SetParameter("F2", "type", type));
        var running = Starters.Healthy(circuit).Running();
        var lost = new Simulator(Network.Of(circuit).With([new ElementOpen("KM1", "3-4")]));
        return When(lost.Do(running.State, Step.Wait(7200)), "F2 tripped");
    }

    /// <summary>Seconds until the protection of a motor opens at a multiple of its rated current; infinite when it does not.</summary>
    private static double TimeAt(MotorProtection protection, double multiple)
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Curve",
            Protection = protection,
            MotorKilowatts = 11,
            MotorAmps = 21.5,
        }.Build();
        // Three equal resistances behind the protection, made such that it carries exactly that current; motor and overload are at rest.
        var (phase, amps) = (400 / Math.Sqrt(3), multiple * circuit.Device("F1").Given("ratedAmps").Number!.Value);
        Simulator With(double ohms) =>
            new(Network.Of(circuit).With([.. new[] { "F1:2", "F1:4", "F1:6" }.Select(t => new Bridge(TerminalId.Parse(t), null, ohms))]));
        var first = With(phase / amps);
        var carried = first.Network.Solve(first.Start().State).Amps("F1", "1-2").Magnitude;
        var simulator = With(2 * phase / amps - phase / carried);
        return When(simulator.Do(simulator.Start().State, Step.Wait(7200)), "F1");
    }

    private static double When(Outcome outcome, string what) =>
        outcome.Events.FirstOrDefault(e => e.StartsWith(what, StringComparison.Ordinal)) is { } told
            ? double.Parse(told.Split("after ")[1].Split(' ')[0], CultureInfo.InvariantCulture)
            : double.PositiveInfinity;
}
