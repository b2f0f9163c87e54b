using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Families;

/// <summary>What single options of the families change; facts of the trade (common practice) unless a source is named.</summary>
public class FamilyOptionsTests
{
    /// <summary>A transformer feeds the supply, the supply gives 24 V; both are there at rest.</summary>
    [Fact]
    public void A_DC_supply_behind_a_control_transformer_gives_its_24_volts()
    {
        var o = new Operated(FamilySamples.Of("dol-dc-behind-transformer"));
        o.Volts("T1:3", "T1:4").ShouldBeInRange(225, 245);
        o.DcVolts("PS1:L+", "PS1:M").ShouldBeInRange(23.5, 24.5);
        o.Do("S2 pressed", "S2 released")["M1"].ShouldBe("runs");
        o.Do("S1 pressed", "S1 released")["M1"].ShouldBe("stopped");
    }

    /// <summary>With one phase gone the control lives or dies by which two feed it.</summary>
    [Theory]
    [InlineData(ControlPhases.L1L2, "L3 missing")]
    [InlineData(ControlPhases.L2L3, "L1 missing")]
    [InlineData(ControlPhases.L3L1, "L2 missing")]
    public void The_control_lives_on_when_the_phase_is_lost_that_does_not_feed_it(ControlPhases phases, string lost)
    {
        var circuit = new DirectOnLine
        {
            Tag = "D",
            Title = "Pump",
            Control = ControlSupply.LineToLine,
            ControlPhases = phases,
            PowerLamp = true,
        }.Build();
        foreach (var missing in new[] { "L1 missing", "L2 missing", "L3 missing" })
        {
            new Operated(circuit).Do($"INC {missing}")["H3"].ShouldBe(missing == lost ? "on" : "off", missing);
        }
    }

    [Fact]
    public void A_control_circuit_is_not_taken_from_the_high_leg_to_neutral()
    {
        var starter = new DirectOnLine
        {
            Tag = "D",
            Title = "Pump",
            System = SupplySystem.HighLeg,
            LineVolts = 240,
            ControlPhases = ControlPhases.L2L3,
        };
        Should.Throw<CircuitException>(() => starter.Build()).Message.ShouldContain("high leg");
    }

    /// <summary>Electrically one series path: a Stop behind the retaining contact stops as well as one before it.</summary>
    [Theory]
    [InlineData(StopPlace.BeforeStart)]
    [InlineData(StopPlace.AfterStart)]
    public void Stop_wins_over_Start_wherever_it_stands(StopPlace place)
    {
        var circuit = new MultiStation
        {
            Tag = "M",
            Title = "Chain",
            Stations = 2,
            StopPlace = place,
        }.Build();
        var o = new Operated(circuit).Do("S12 pressed", "S12 released");
        o["M1"].ShouldBe("runs");
        o.Do("S21 pressed")["M1"].ShouldBe("stopped");
        o.Do("S12 pressed")["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void A_link_in_the_panel_takes_the_remote_station_out_and_its_Stop_with_it()
    {
        var circuit = FamilySamples.Of("chain-linked-out");
        var lifted = circuit.Conductors.First(c => new[] { c.From, c.To }.Any(t => t == TerminalId.Parse("S21:21")));
        var o = new Operated(circuit, new ConductorOpen(lifted.Id)).Do("S12 pressed", "S12 released");
        o["M1"].ShouldBe("stopped", "the remote Stop is gone and nothing bridges it");
        o.Do("XL1 fitted", "S12 pressed", "S12 released")["M1"].ShouldBe("runs");
        o.Do("S21 pressed", "S21 released")["M1"].ShouldBe("runs", "a station that is linked out stops nothing");
        o.Do("S11 pressed", "S11 released")["M1"].ShouldBe("stopped");
    }

    /// <summary>In the common return a trip takes the impulse relay's own coil away too: no press toggles it.</summary>
    [Fact]
    public void An_overload_contact_in_the_common_return_blocks_the_buttons_as_well()
    {
        var o = new Operated(FamilySamples.Of("impulse-watched")).Do("wait 3", "S1 pressed", "S1 released");
        o["M1"].ShouldBe("runs");
        o.Do("F2 tripped", "S1 pressed", "S1 released", "F2 reset")["M1"].ShouldBe("runs", "the press did not reach the relay");
    }

    [Theory]
    [InlineData("INC L1 missing", "phase lost")]
    [InlineData("INC L3 missing", "phase lost")]
    [InlineData("INC lost", "off")]
    [InlineData("wait 1", "good")]
    public void A_monitor_names_the_cause(string step, string shown)
    {
        var circuit = FamilySamples.Of("impulse-watched");
        var o = new Operated(circuit).Do("wait 3", step, "wait 3");
        o.Look("KF1", "indicator").ShouldBe(shown);
    }

    /// <summary>A lost neutral leaves the line voltages as they are: only a relay with a neutral terminal sees it.</summary>
    [Fact]
    public void Only_a_relay_with_a_neutral_terminal_sees_a_lost_neutral()
    {
        var circuit = FamilySamples.Of("impulse-watched");
        // The lamp of one phase pulls the floating neutral to that phase.
        var o = new Operated(circuit, "INC/neutral-missing").Do("wait 5");
        o.Look("KF1", "indicator").ShouldBe("neutral lost");
    }

    /// <summary>A door keeps running after the button is let go, until its limit; its edge ends only the closing.</summary>
    [Fact]
    public void A_door_runs_to_its_limit_and_its_edge_stops_the_closing_alone()
    {
        var circuit = FamilySamples.Of("door");
        var o = new Operated(circuit).Do("S13 pressed", "S13 released");
        o["M1"].ShouldBe("runs");
        o.Do("B11 operated")["M1"].ShouldBe("stopped");
        o.Do("S14 pressed", "S14 released")["M1"].ShouldBe("runs reverse");
        o.Do("B13 operated")["M1"].ShouldBe("stopped");
        o.Do("B11 rest", "S13 pressed", "S13 released")["M1"].ShouldBe("runs", "with the edge pressed it still opens");
        o.Do("S15 pressed", "S15 released")["M1"].ShouldBe("stopped");
    }

    /// <summary>Without the capacitor's winding the field pulsates and does not turn: it hums (common practice).</summary>
    [Theory]
    [InlineData(CapacitorPlace.Run)]
    [InlineData(CapacitorPlace.Start)]
    public void Without_its_capacitor_a_single_phase_motor_hums_and_running_it_keeps_on(CapacitorPlace place)
    {
        var circuit = OneCapacitor(place);
        new Operated(circuit).Do("S2 pressed", "S2 released")["M1"].ShouldBe("runs");
        new Operated(circuit, "C1/1-2-open").Do("S2 pressed", "S2 released")["M1"].ShouldBe("hums, does not start");
        new Operated(circuit, "C1/weak", "20 % left")
            .Do("S2 pressed")["M1"]
            .ShouldBe(place == CapacitorPlace.Run ? "hums, does not start" : "runs", "a starting capacitor is four times as large");
        new Operated(circuit, "M1/Z1-Z2-open").Do("S2 pressed")["M1"].ShouldBe("hums, does not start");
    }

    /// <summary>The two ends of one winding exchanged turn the field the other way (common practice).</summary>
    [Fact]
    public void Exchanged_ends_of_the_auxiliary_winding_reverse_it()
    {
        var circuit = OneCapacitor(CapacitorPlace.Run);
        var exchanged = circuit with { Paths = [.. circuit.Paths.Select(p => p with { Expression = Exchanged(p.Expression) })] };
        new Operated(CircuitFile.Read(CircuitFile.Write(exchanged with { Conductors = [] })))
            .Do("S2 pressed", "S2 released")["M1"]
            .ShouldBe("runs reverse");

        static PathExpression Exchanged(PathExpression expression) =>
            expression switch
            {
                InSeries s => new InSeries([.. s.Children.Select(Exchanged)]),
                InParallel p => new InParallel([.. p.Children.Select(Exchanged)]),
                Part part when part.ToString() == "M1:Z1-Z2" => Part.Parse("M1:Z2-Z1"),
                _ => expression,
            };
    }

    /// <summary>
    /// I = V 2 π f C at the capacitor's own terminals, and some 1.1 to 1.7 times the line voltage stands across it (common practice): the
    /// trade's way to measure a capacitor in place.
    /// </summary>
    [Fact]
    public void A_capacitor_carries_its_voltage_times_omega_C()
    {
        var o = new Operated(OneCapacitor(CapacitorPlace.Run)).Do("S2 pressed", "S2 released");
        var volts = o.Volts("C1:1", "C1:2");
        volts.ShouldBeInRange(1.1 * 230, 1.7 * 230);
        o.Amps("C1", "1-2").ShouldBe(volts * 2 * Math.PI * 50 * 25e-6, 0.01);
    }

    [Fact]
    public void A_centrifugal_switch_takes_the_starting_winding_out()
    {
        var circuit = OneCapacitor(CapacitorPlace.Start);
        new Operated(circuit).Do("S2 pressed", "S2 released").Amps("M1", "Z1-Z2").ShouldBe(0, 1e-6);
        new Operated(circuit, "M1/switch-stuck").Do("S2 pressed", "S2 released").Amps("M1", "Z1-Z2").ShouldBeGreaterThan(1);
    }

    private static Circuit OneCapacitor(CapacitorPlace place) =>
        new SinglePhase
        {
            Tag = "F",
            Title = "Fan",
            Capacitor = place,
        }.Build();

    [Fact]
    public void A_controller_blocks_the_next_start_until_the_load_has_run_down()
    {
        var o = new Operated(FamilySamples.Of("plc-supervised")).Do("S2 pressed", "S2 released", "wait 3");
        o["M1"].ShouldBe("runs");
        (o.Look("A1", "Q0"), o.Look("A1", "I0"), o.Look("A1", "I1")).ShouldBe(("lit", "lit", "dark"));
        o.Do("S1 pressed", "S1 released")["H5"].ShouldBe("flashes");
        o.Do("wait 5", "S3 pressed", "S3 released")["M1"].ShouldBe("stopped");
        o.Do("wait 10")["H5"].ShouldBe("off");
        o.Do("S3 pressed", "S3 released")["M1"].ShouldBe("runs reverse");
    }

    /// <summary>A welded contactor runs on after Stop; the controller sees its feedback and takes the breaker out.</summary>
    [Fact]
    public void A_controller_releases_the_breaker_when_a_contactor_stays_in()
    {
        var o = new Operated(FamilySamples.Of("plc-supervised"), new DoesNotReturn("KM1")).Do("S2 pressed", "S2 released", "wait 3");
        o["M1"].ShouldBe("runs");
        o.Do("S1 pressed", "S1 released")["M1"].ShouldBe("runs");
        o.Do("wait 3")["M1"].ShouldBe("stopped");
        o["A1"].ShouldBe("fault");
    }

    [Fact]
    public void A_tripped_breaker_is_told_to_the_controller()
    {
        var circuit = FamilySamples.Of("plc-supervised");
        var o = new Operated(circuit).Do("F1 tripped", "S2 pressed");
        o["A1"].ShouldBe("stop");
        new Operated(circuit).Do("S2 pressed")["A1"].ShouldBe("run");
    }

    /// <summary>The function test of a monitored starter takes each phase away, at rest; of another one no phase is taken away.</summary>
    [Fact]
    public void Phases_are_taken_away_in_the_function_test_only_where_something_watches_them()
    {
        var watched = FamilySamples.Of("impulse-watched").Compiled().FunctionTest.Steps;
        watched.Count(s => s.Id.StartsWith("INC-L", StringComparison.Ordinal)).ShouldBe(3);
        watched.Single(s => s.Id == "INC-L2-missing").Expected["KF1"].ShouldBe("fault");
        watched.Single(s => s.Id == "INC-on-after-L2-missing").Expected["KF1"].ShouldBe("good");
        watched.Single(s => s.Id == "INC-L2-missing").Expected["M1"].ShouldBe("stopped");
        new DirectOnLine { Tag = "D", Title = "Pump" }
            .Build()
            .Compiled()
            .FunctionTest.Steps.ShouldNotContain(s => s.Id.StartsWith("INC-L", StringComparison.Ordinal));
    }
}
