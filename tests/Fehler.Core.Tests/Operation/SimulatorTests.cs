using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Operation;

public class SimulatorTests
{
    public static TheoryData<string> Both => ["LN", "LL"];

    [Theory]
    [MemberData(nameof(Both))]
    public void Start_pulls_in_and_holds_and_stop_drops_it(string name)
    {
        var simulator = Starters.Healthy(Starters.Of(name));
        var running = simulator.Running();
        running.Appearances["KM1"].ShouldBe("in");
        running.Appearances["M1"].ShouldBe("runs");
        running.Appearances["H1"].ShouldBe("on");
        var stopped = simulator.Do(running.State, [Starters.Stop, Starters.StopReleased]);
        stopped.Appearances["KM1"].ShouldBe("out");
        stopped.Appearances["M1"].ShouldBe("stopped");
    }

    [Theory]
    [MemberData(nameof(Both))]
    public void Power_that_comes_back_does_not_start_it(string name)
    {
        var simulator = Starters.Healthy(Starters.Of(name));
        var back = simulator.Do(simulator.Running().State, [new Step("INC", "lost"), new Step("INC", "on")]);
        back.Appearances["M1"].ShouldBe("stopped");
    }

    [Theory]
    [MemberData(nameof(Both))]
    public void The_overloads_test_trip_stops_it_and_lights_the_lamp_and_its_reset_does_not_restart_it(string name)
    {
        var simulator = Starters.Healthy(Starters.Of(name));
        var tripped = simulator.Do(simulator.Running().State, new Step("F2", "tripped"));
        tripped.Appearances["KM1"].ShouldBe("out");
        tripped.Appearances["H2"].ShouldBe("on");
        var reset = simulator.Do(tripped.State, new Step("F2", "reset"));
        reset.Appearances["M1"].ShouldBe("stopped");
        reset.Appearances["H2"].ShouldBe("off");
    }

    [Fact]
    public void Without_its_retaining_contact_it_runs_only_while_start_is_held()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "KM1/13-14-open");
        var held = simulator.Do(simulator.Start().State, Starters.Press);
        held.Appearances["KM1"].ShouldBe("in");
        simulator.Do(held.State, Starters.Release).Appearances["KM1"].ShouldBe("out");
    }

    /// <summary>
    /// A coil's impedance rises about tenfold when it closes: 5 kohm keep it from pulling in, yet it holds when pushed in.
    /// </summary>
    [Fact]
    public void A_series_resistance_that_prevents_pull_in_may_still_hold_the_armature()
    {
        var simulator = Starters.With(Starters.LineToNeutral, new ConductorSeriesOhms("5.1", 5000));
        var held = simulator.Do(simulator.Start().State, Starters.Press);
        held.Appearances["KM1"].ShouldBe("out");
        held.Volts("KM1:A1", "KM1:A2").ShouldBeLessThan(40);
        var index = Starters.LineToNeutral.Devices.ToList().FindIndex(d => d.Tag == "KM1");
        var pushed = simulator.Observe(held.State.With(index, held.State.Devices[index] with { Position = 1 }));
        pushed.Appearances["KM1"].ShouldBe("in");
        pushed.Volts("KM1:A1", "KM1:A2").ShouldBeGreaterThan(115);
    }

    [Theory]
    [MemberData(nameof(Both))]
    public void A_contactor_with_an_open_coil_does_not_pull_in_although_the_voltage_is_there(string name)
    {
        var simulator = Starters.With(Starters.Of(name), "KM1/A1-A2-open");
        var held = simulator.Do(simulator.Start().State, Starters.Press);
        held.Appearances["KM1"].ShouldBe("out");
        held.Volts("KM1:A1", "KM1:A2").ShouldBeGreaterThan(225);
    }

    [Fact]
    public void A_coil_with_shorted_turns_blows_the_control_fuse()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "KM1/coil-shorted");
        var held = simulator.Do(simulator.Start().State, Starters.Press);
        held.Events.ShouldContain("F3 opens on overcurrent");
        held.Appearances["KM1"].ShouldBe("out");
    }

    /// <summary>The smaller protective device goes first: an earth fault at the coil blows the control fuse, not the motor's.</summary>
    [Fact]
    public void An_earth_fault_in_the_control_circuit_blows_the_control_fuse_alone()
    {
        var simulator = Starters.With(Starters.LineToNeutral, new Bridge(TerminalId.Parse("S1:21"), null, 0.5));
        var outcome = simulator.Start();
        outcome.Events.ShouldBe(["F3 opens on overcurrent"]);
        outcome.Volts("F3:1", "INC:N").ShouldBe(230, 2);
    }

    /// <summary>
    /// In the return an earth fault between coil and overload contact bypasses the contact (line to neutral, neutral earthed).
    /// </summary>
    [Fact]
    public void With_the_overload_contact_in_the_return_an_earth_fault_defeats_the_trip()
    {
        var circuit = new Core.Families.DirectOnLine
        {
            Tag = "R",
            Title = "Return",
            OverloadContact = Core.Families.OverloadContactPlace.AfterCoil,
        }.Build();
        var simulator = Starters.With(circuit, new Bridge(TerminalId.Parse("KM1:A2"), null, 0.5));
        simulator.Do(simulator.Running().State, new Step("F2", "tripped")).Appearances["KM1"].ShouldBe("in");
    }

    [Fact]
    public void A_position_that_a_device_does_not_have_is_refused_with_those_it_has()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        Should
            .Throw<ArgumentException>(() => simulator.Do(simulator.Start().State, new Step("S2", "turned")))
            .Message.ShouldContain("released, pressed");
    }
}
