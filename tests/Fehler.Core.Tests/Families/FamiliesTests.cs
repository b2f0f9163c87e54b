using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Families;

/// <summary>What every family does when it is operated; facts of the trade (common practice) unless a source is named.</summary>
public class FamiliesTests
{
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_sample_works_and_reads_back_from_its_file_as_it_was(string name)
    {
        var circuit = FamilySamples.Of(name);
        circuit.Compiled().DesignReview.Findings.ShouldAllBe(f => f.Kind != FindingKind.CannotWork);
        CircuitFile.Read(CircuitFile.Write(circuit)).ShouldBe(circuit);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(5)]
    [InlineData(12)]
    public void Every_station_starts_and_every_station_stops(int stations)
    {
        var circuit = new MultiStation
        {
            Tag = "M",
            Title = "Chain",
            Stations = stations,
        }.Build();
        for (var n = 1; n <= stations; n++)
        {
            var o = new Operated(circuit).Do($"S{n}2 pressed", $"S{n}2 released");
            o["M1"].ShouldBe("runs");
            o.Do($"S{stations + 1 - n}1 pressed", $"S{stations + 1 - n}1 released")["M1"].ShouldBe("stopped");
        }
    }

    /// <summary>Cores to n three-wire stations in a chain: 3 (common practice); besides them the emergency stop's at the first.</summary>
    [Fact]
    public void Three_cores_run_from_one_station_to_the_next()
    {
        var circuit = new MultiStation
        {
            Tag = "M",
            Title = "Chain",
            Stations = 4,
            EmergencyStop = false,
            RunLamp = false,
        }.Build();
        var between = circuit.Conductors.Count(c =>
            (circuit.LocationOf(c.From).Id, circuit.LocationOf(c.To).Id) is ("station2", "station3") or ("station3", "station2")
        );
        between.ShouldBe(3);
    }

    [Fact]
    public void A_home_run_brings_every_end_to_the_strip()
    {
        var circuit = new MultiStation
        {
            Tag = "M",
            Title = "Chain",
            Stations = 4,
            Cabling = StationCabling.HomeRun,
        }.Build();
        circuit
            .Conductors.Where(c => circuit.LocationOf(c.From) != circuit.LocationOf(c.To))
            .ShouldAllBe(c => c.From.Device == "X1" || c.To.Device == "X1" || c.Wire == "PE");
    }

    [Fact]
    public void An_impulse_relay_toggles_and_remembers_through_a_power_cut()
    {
        var o = new Operated(new ImpulseStarter { Tag = "I", Title = "Fan" }.Build()).Do("S1 pressed", "S1 released");
        o["M1"].ShouldBe("runs");
        o.Do("INC lost")["M1"].ShouldBe("stopped");
        o.Do("INC on")["M1"].ShouldBe("runs");
        o.Do("S2 pressed", "S2 released")["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void A_two_wire_control_restarts_when_the_supply_comes_back_and_a_three_wire_control_does_not()
    {
        new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Pump",
                Mode = StartMode.TwoWire,
            }.Build()
        ).Do("B1 operated", "INC lost", "INC on")["M1"].ShouldBe("runs");
        new Operated(new DirectOnLine { Tag = "D", Title = "Pump" }.Build())
            .Do("S2 pressed", "S2 released", "INC lost", "INC on")["M1"]
            .ShouldBe("stopped");
    }

    [Fact]
    public void Hold_to_run_runs_only_while_held()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Jog",
                Mode = StartMode.HoldToRun,
            }.Build()
        ).Do("S2 pressed");
        o["M1"].ShouldBe("runs");
        o.Do("S2 released")["M1"].ShouldBe("stopped");
    }

    /// <summary>Circuit theory: one conductor in series, the same current in all three elements.</summary>
    [Theory]
    [InlineData(LoopedConductor.Neutral)]
    [InlineData(LoopedConductor.Line)]
    public void A_looped_conductor_puts_the_same_current_through_all_three_elements(LoopedConductor looped)
    {
        var o = new Operated(
            new SinglePhase
            {
                Tag = "P",
                Title = "Fan",
                Looped = looped,
            }.Build()
        ).Do("S2 pressed", "S2 released");
        o["M1"].ShouldBe("runs");
        var amps = new[] { "1-2", "3-4", "5-6" }.Select(e => o.Amps("F2", e)).ToList();
        amps.Min().ShouldBeGreaterThan(1);
        amps.Max().ShouldBe(amps.Min(), 0.01 * amps.Max());
    }

    [Fact]
    public void Without_the_loop_a_phase_loss_sensitive_relay_trips_a_loaded_motor()
    {
        Circuit With(LoopedConductor looped) =>
            new SinglePhase
            {
                Tag = "P",
                Title = "Fan",
                Looped = looped,
                Load = 1.1,
            }.Build();
        new Operated(With(LoopedConductor.None)).Do("S2 pressed", "S2 released", "wait 7200")["M1"].ShouldBe("stopped");
        new Operated(With(LoopedConductor.Neutral)).Do("S2 pressed", "S2 released", "wait 7200")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void The_voltage_monitor_lets_go_on_a_lost_phase_and_qualifies_the_supply_before_it_comes_back()
    {
        var circuit = new DirectOnLine
        {
            Tag = "D",
            Title = "Pump",
            VoltageMonitor = true,
            Load = 0.9,
        }.Build();
        var lost = new Operated(circuit, "F1/5-6-blown").Do("wait 2");
        lost["KF1"].ShouldBe("fault");
        lost.Do("S2 pressed")["M1"].ShouldBe("stopped");
        var o = new Operated(circuit).Do("INC lost", "INC on", "S2 pressed", "S2 released");
        o["M1"].ShouldBe("stopped");
        o.Do("wait 3", "S2 pressed", "S2 released")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void The_emergency_stop_trips_a_breaker_with_a_shunt_release()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Saw",
                Protection = MotorProtection.Breaker,
                ShuntTrip = true,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S0 operated", "S0 released", "S2 pressed");
        o["M1"].ShouldBe("stopped");
        o.Do("S2 released", "F1 on", "S2 pressed")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void A_motor_protective_breaker_breaks_the_motor_itself_and_is_reset_by_switching()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Saw",
                Protection = MotorProtection.MotorBreaker,
            }.Build()
        ).Do("S2 pressed", "S2 released", "Q2 tripped");
        (o["M1"], o["H2"]).ShouldBe(("stopped", "off"));
        o.Do("Q2 on", "S2 pressed")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void A_drum_switch_stays_made_through_a_power_cut()
    {
        var o = new Operated(
            new ManualStarter
            {
                Tag = "W",
                Title = "Trolley",
                Drum = true,
            }.Build()
        ).Do("S1 reverse");
        o["M1"].ShouldBe("runs reverse");
        o.Do("INC lost", "INC on")["M1"].ShouldBe("runs reverse");
    }

    [Fact]
    public void A_controller_takes_the_command_back_when_the_contactor_does_not_answer()
    {
        var circuit = new PlcDriven { Tag = "P", Title = "Sorter" }.Build();
        new Operated(circuit).Do("S2 pressed", "S2 released", "wait 5")["A1"].ShouldBe("run");
        new Operated(circuit, "KM1/13-14-open").Do("S2 pressed", "S2 released", "wait 5")["A1"].ShouldBe("fault");
    }

    /// <summary>Break contact to the controller: a broken wire reads as a trip. Make contact: it goes unnoticed.</summary>
    [Theory]
    [InlineData(TripInput.BreakContact, "stopped")]
    [InlineData(TripInput.MakeContact, "runs")]
    public void A_broken_wire_of_the_trip_contact_is_noticed_only_with_a_break_contact(TripInput trip, string motor)
    {
        var circuit = new PlcDriven
        {
            Tag = "P",
            Title = "Sorter",
            Trip = trip,
            TripInCoilCircuit = false,
        }.Build();
        var wire = circuit.Conductors.First(c => new[] { c.From, c.To }.Any(t => t.Device == "F2" && t.Name is "96" or "98"));
        var o = new Operated(circuit, new ConductorOpen(wire.Id)).Do("S2 pressed", "S2 released");
        o["M1"].ShouldBe(motor);
        if (trip == TripInput.MakeContact)
        {
            o.Do("F2 tripped", "wait 5")["M1"].ShouldBe("runs");
            circuit.Compiled().DesignReview.Findings.ShouldContain(f => f.Id.StartsWith("unnoticed", StringComparison.Ordinal));
        }
    }

    [Fact]
    public void An_automatic_reset_lets_a_two_wire_motor_start_again_when_the_relay_has_cooled()
    {
        var circuit = new DirectOnLine
        {
            Tag = "D",
            Title = "Pump",
            Mode = StartMode.TwoWire,
        }.Build();
        circuit = circuit with { Devices = [.. circuit.Devices.Select(d => d.Tag == "F2" ? d.With("reset", "automatic") : d)] };
        var o = new Operated(circuit).Do("B1 operated", "F2 tripped");
        o["M1"].ShouldBe("stopped");
        o.Do("wait 200")["M1"].ShouldBe("runs");
    }

    [Fact]
    public void A_permissive_in_series_blocks_and_of_two_in_parallel_one_is_enough()
    {
        Circuit With(Permissive p) =>
            new DirectOnLine
            {
                Tag = "D",
                Title = "Pump",
                Permissive = p,
            }.Build();
        new Operated(With(Permissive.TwoInSeries)).Do("B8 operated", "S2 pressed")["M1"].ShouldBe("stopped");
        new Operated(With(Permissive.TwoInSeries)).Do("B8 operated", "B9 operated", "S2 pressed")["M1"].ShouldBe("runs");
        new Operated(With(Permissive.TwoInParallel)).Do("B9 operated", "S2 pressed")["M1"].ShouldBe("runs");
    }

    [Theory]
    [InlineData("""{"tag":"A","title":"x","system":"delta"}""", "no neutral")]
    [InlineData("""{"tag":"A","title":"x","shuntTrip":true}""", "circuit-breaker")]
    [InlineData("""{"tag":"A","title":"x","lineVolts":9}""", "goes from 100 to 1000")]
    [InlineData("""{"tag":"A","title":"x","system":"pentagon"}""", "not understood")]
    [InlineData("""{"tag":"A","title":"x","colour":"red"}""", "not understood")]
    [InlineData("""{"title":"x"}""", "not understood")]
    public void Options_that_do_not_go_together_are_refused_with_the_reason(string options, string reason) =>
        Should
            .Throw<CircuitException>(() => FamilyCatalogue.Build("dol", JsonDocument.Parse(options).RootElement))
            .Message.ShouldContain(reason);

    [Fact]
    public void Every_family_builds_from_its_defaults_and_describes_every_option()
    {
        foreach (var family in FamilyCatalogue.All)
        {
            var circuit = FamilyCatalogue.Build(family.Id, JsonDocument.Parse("""{"tag":"T-1","title":"Any"}""").RootElement);
            (circuit.Compiled().RunUp.Starts.Length > 0 || circuit.Compiled().RunUp.WorksAtRest).ShouldBeTrue(family.Id);
            family.Options.ShouldAllBe(o => o.Label.Length > 0 && o.Group.Length > 0 && (o.Type != "choice" || o.Choices.Length > 1));
        }
    }

    /// <summary>Every option of every family, one at a time: what is built works or is refused with a sentence.</summary>
    [Fact]
    public void Each_choice_of_each_option_builds_a_working_circuit_or_says_why_not()
    {
        foreach (var family in FamilyCatalogue.All)
        {
            foreach (var option in family.Options.Where(o => o.Type is "choice" or "yes-no"))
            {
                foreach (var value in option.Type == "choice" ? option.Choices.Select(c => $"\"{c.Value}\"") : ["true", "false"])
                {
                    try
                    {
                        var circuit = FamilyCatalogue.Build(
                            family.Id,
                            JsonDocument.Parse($$"""{"tag":"T-1","title":"Any","{{option.Name}}":{{value}}}""").RootElement
                        );
                        circuit
                            .Compiled()
                            .DesignReview.Findings.ShouldAllBe(f => f.Kind != FindingKind.CannotWork, $"{family.Id} {option.Name} {value}");
                    }
                    catch (CircuitException e)
                    {
                        e.Path.ShouldBe("options", $"{family.Id} {option.Name} {value}: {e.Message}");
                    }
                }
            }
        }
    }
}
