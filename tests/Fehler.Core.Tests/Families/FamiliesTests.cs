using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
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
        circuit.Compiled().DesignReview.Findings.ShouldAllBe(f => f.Kind == FindingKind.Caution);
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

    [Theory]
    [InlineData(SwappedPhases.L1L3, SwapSide.Load)]
    [InlineData(SwappedPhases.L1L2, SwapSide.Load)]
    [InlineData(SwappedPhases.L2L3, SwapSide.Load)]
    [InlineData(SwappedPhases.L1L3, SwapSide.Line)]
    [InlineData(SwappedPhases.L2L3, SwapSide.Line)]
    public void Whichever_two_phases_are_exchanged_on_either_side_the_motor_turns_the_other_way(SwappedPhases swapped, SwapSide side)
    {
        var circuit = new Reversing
        {
            Tag = "R",
            Title = "Fan",
            Swapped = swapped,
            Side = side,
        }.Build();
        var o = new Operated(circuit).Do("S2 pressed", "S2 released");
        o["M1"].ShouldBe("runs");
        o.Do("S1 pressed", "S1 released", "S3 pressed", "S3 released")["M1"].ShouldBe("runs reverse");
    }

    [Fact]
    public void Stop_comes_first_without_a_button_interlock_and_with_one_it_goes_straight_through()
    {
        new Operated(new Reversing { Tag = "R", Title = "Fan" }.Build())
            .Do("S2 pressed", "S2 released", "S3 pressed", "S3 released")["KM1"]
            .ShouldBe("in");
        var through = new Operated(
            new Reversing
            {
                Tag = "R",
                Title = "Fan",
                ButtonInterlock = true,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S3 pressed", "S3 released");
        through["KM1"].ShouldBe("out");
        through["M1"].ShouldBe("runs reverse");
    }

    [Theory]
    [InlineData(true, false, "out")]
    [InlineData(false, true, "buzzes")]
    [InlineData(true, true, "out")]
    public void One_interlock_of_either_sort_keeps_the_second_contactor_out(bool electrical, bool mechanical, string second)
    {
        var o = new Operated(
            new Reversing
            {
                Tag = "R",
                Title = "Fan",
                ElectricalInterlock = electrical,
                MechanicalInterlock = mechanical,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S3 pressed");
        o["KM2"].ShouldBe(second);
        o["M1"].ShouldBe("runs");
        o.Outcome.Events.ShouldBeEmpty();
    }

    [Fact]
    public void Without_any_interlock_both_contactors_make_a_short_circuit_and_a_fuse_clears_it()
    {
        var o = new Operated(
            new Reversing
            {
                Tag = "R",
                Title = "Fan",
                ElectricalInterlock = false,
                MechanicalInterlock = false,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S3 pressed");
        o.Outcome.Events.ShouldContain(e => e.Contains("F1 opens on overcurrent", StringComparison.Ordinal));
    }

    /// <summary>
    /// Two buttons at once is a race that one contactor wins: with a break contact of each in the other's path it is no short circuit.
    /// </summary>
    [Fact]
    public void Both_directions_commanded_together_one_contactor_wins_and_nothing_blows()
    {
        var circuit = new Reversing
        {
            Tag = "R",
            Title = "Fan",
            MechanicalInterlock = false,
            HoldToRun = true,
        }.Build();
        var o = new Operated(circuit).Do("INC lost", "S2 pressed", "S3 pressed", "INC on");
        new[] { o["KM1"], o["KM2"] }.Count(s => s == "in").ShouldBe(1);
        o.Outcome.Events.ShouldBeEmpty();
    }

    [Fact]
    public void A_run_down_lock_out_blocks_both_starts_until_its_time_is_over()
    {
        var o = new Operated(
            new Reversing
            {
                Tag = "R",
                Title = "Fan",
                LockOutSeconds = 30,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S1 pressed", "S1 released", "wait 10", "S3 pressed", "S3 released");
        o["M1"].ShouldBe("stopped");
        o.Do("wait 25", "S3 pressed", "S3 released")["M1"].ShouldBe("runs reverse");
    }

    [Fact]
    public void A_coasting_motor_says_so_until_it_has_run_down()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Fan",
                CoastSeconds = 20,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S1 pressed", "wait 12");
        o["M1"].ShouldBe("coasts");
        o.Do("wait 10")["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void A_limit_ends_its_own_direction_and_leaves_the_other()
    {
        var o = new Operated(new UpDown { Tag = "U", Title = "Hoist" }.Build()).Do("S2 pressed", "S2 released", "S13 pressed");
        o["M1"].ShouldBe("runs");
        o.Do("B11 operated")["M1"].ShouldBe("stopped");
        o.Do("S13 released", "S14 pressed")["M1"].ShouldBe("runs reverse");
    }

    /// <summary>A brake that is not lifted looks like a locked rotor: the motor hums and the overload trips.</summary>
    [Fact]
    public void A_brake_that_does_not_lift_stalls_the_motor()
    {
        var circuit = new UpDown { Tag = "U", Title = "Hoist" }.Build();
        new Operated(circuit).Do("S2 pressed", "S2 released", "S13 pressed")["Y1"].ShouldBe("lifted");
        var o = new Operated(circuit, "Y1/B1-B2-open").Do("S2 pressed", "S2 released", "S13 pressed");
        o["M1"].ShouldBe("hums, does not start");
        o.Do("wait 30").Outcome.Events.ShouldContain(e => e.StartsWith("F2 tripped", StringComparison.Ordinal));
    }

    [Fact]
    public void Control_off_and_emergency_stop_end_every_motion_and_nothing_starts_when_they_are_released()
    {
        var o = new Operated(
            new UpDown
            {
                Tag = "U",
                Title = "Crane",
                Motions = 2,
            }.Build()
        ).Do("S2 pressed", "S2 released", "S13 pressed", "S23 pressed");
        (o["M1"], o["M2"]).ShouldBe(("runs", "runs"));
        o.Do("S0 operated");
        (o["M1"], o["M2"]).ShouldBe(("stopped", "stopped"));
        o.Do("S0 released")["M1"].ShouldBe("stopped");
    }

    /// <summary>
    /// Circuit theory: in star a third of the line current of delta. In delta a line feeds two windings over two poles, each with the line
    /// current over the root of three: 1/3 over 2/√3 is 0.289. Wires and contacts leave a little less voltage for the larger current.
    /// </summary>
    [Fact]
    public void Star_draws_a_third_of_the_current_that_delta_would_at_standstill()
    {
        var circuit = new StarDelta
        {
            Tag = "Y",
            Title = "Fan",
            Load = 3,
        }.Build();
        var star = new Operated(circuit).Do("S2 pressed");
        star["M1"].ShouldBe("hums, does not start");
        var delta = new Operated(circuit, "KT1/at-once").Do("S2 pressed");
        delta["KM2"].ShouldBe("in");
        (star.Amps("KM1", "1-2") / (delta.Amps("KM1", "1-2") + delta.Amps("KM2", "5-6"))).ShouldBe(
            1 / 3.0 / (2 / Math.Sqrt(3)),
            0.05 * 0.289
        );
    }

    /// <summary>Circuit theory: the current in a phase lead is 0.577 of the line's.</summary>
    [Fact]
    public void In_delta_the_phase_leads_carry_0577_of_the_line()
    {
        var circuit = new StarDelta
        {
            Tag = "Y",
            Title = "Fan",
            Load = 1,
        }.Build();
        var o = new Operated(circuit).Do("S2 pressed", "S2 released", "wait 10");
        o["M1"].ShouldBe("runs");
        (o.Amps("F2", "1-2") / o.Amps("Q1", "1-2")).ShouldBe(0.577, 0.02);
    }

    [Fact]
    public void Star_delta_changes_over_after_its_time_and_never_holds_both()
    {
        var o = new Operated(
            new StarDelta
            {
                Tag = "Y",
                Title = "Fan",
                StarSeconds = 6,
            }.Build()
        ).Do("S2 pressed", "S2 released", "wait 5");
        (o["KM3"], o["KM2"], o["M1"]).ShouldBe(("in", "out", "runs in star"));
        o.Do("wait 2");
        (o["KM3"], o["KM2"], o["M1"]).ShouldBe(("out", "in", "runs"));
        o.Outcome.Events.ShouldNotContain(e => e.Contains("overcurrent", StringComparison.Ordinal));
    }

    [Fact]
    public void A_stuck_timer_leaves_the_motor_in_star()
    {
        var circuit = new StarDelta { Tag = "Y", Title = "Fan" }.Build();
        new Operated(circuit, "KT1/never").Do("S2 pressed", "S2 released", "wait 60")["M1"].ShouldBe("runs in star");
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
                            .DesignReview.Findings.ShouldAllBe(f => f.Kind == FindingKind.Caution, $"{family.Id} {option.Name} {value}");
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
