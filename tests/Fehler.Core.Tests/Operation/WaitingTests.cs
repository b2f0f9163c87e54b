using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Operation;

/// <summary>What happens by itself when time passes.</summary>
public class WaitingTests
{
    /// <summary>
    /// IEC 60947-4-1 class 10 (from memory): a stalled motor at about six times its current trips within some ten seconds.
    /// </summary>
    [Fact]
    public void A_stalled_motor_trips_within_seconds_and_not_at_once()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "M1/stalled");
        var start = simulator.Do(simulator.Start().State, [Starters.Press]);
        simulator.Do(start.State, Step.Wait(3)).Appearances["M1"].ShouldBe("hums, does not start");
        var tripped = simulator.Do(start.State, Step.Wait(15));
        tripped.Appearances["M1"].ShouldBe("stopped");
        tripped.Appearances["H2"].ShouldBe("on");
    }

    [Fact]
    public void A_setting_that_is_too_low_trips_a_healthy_motor_after_minutes()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "F2/set-low");
        var running = simulator.Running();
        running.Appearances["M1"].ShouldBe("runs");
        simulator.Do(running.State, Step.Wait(10)).Appearances["M1"].ShouldBe("runs");
        simulator.Do(running.State, Step.Wait(900)).Appearances["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void An_overloaded_motor_trips_late()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "M1/overloaded");
        var running = simulator.Running();
        running.Appearances["M1"].ShouldBe("runs");
        simulator.Do(running.State, Step.Wait(30)).Appearances["M1"].ShouldBe("runs");
        simulator.Do(running.State, Step.Wait(3600)).Events.ShouldContain(e => e.StartsWith("F2 tripped after", StringComparison.Ordinal));
    }

    [Fact]
    public void A_relay_that_will_not_reset_stays_tripped_whatever_is_pressed()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "F2/no-reset");
        var outcome = simulator.Do(simulator.Start().State, [new Step("F2", "reset"), Starters.Press]);
        outcome.Appearances["KM1"].ShouldBe("out");
        outcome.Appearances["H2"].ShouldBe("on");
    }

    /// <summary>Between a start and the next reading a star-delta starter changes over; a trip by heat is left to who sees it.</summary>
    [Fact]
    public void Timers_run_while_the_meter_is_fetched_and_bimetals_do_not_trip_behind_ones_back()
    {
        var o = new Operated(FamilySamples.Of("star-delta")).Do("S2 pressed", "S2 released");
        (o["KM3"], o["KM2"]).ShouldBe(("in", "out"));
        var simulator = new Simulator(Network.Of(FamilySamples.Of("star-delta")));
        simulator.Do(o.Outcome.State, Step.Meanwhile(20)).Appearances["KM2"].ShouldBe("in");
        var stalled = Starters.With(Starters.LineToNeutral, "M1/stalled");
        var start = stalled.Do(stalled.Start().State, [Starters.Press]);
        stalled.Do(start.State, Step.Meanwhile(20)).Appearances["M1"].ShouldBe("hums, does not start");
    }

    [Fact]
    public void Waiting_where_nothing_can_happen_changes_nothing()
    {
        var simulator = Starters.Healthy(Starters.LineToLine);
        var rest = simulator.Start();
        simulator.Do(rest.State, Step.Wait(86400)).State.ShouldBe(rest.State);
    }

    /// <summary>A retaining contact that depends on its own coil, broken by the coil's own pull, chatters.</summary>
    [Fact]
    public void A_supply_that_collapses_with_the_coil_in_makes_the_contactor_chatter()
    {
        var simulator = Starters.With(Starters.LineToNeutral, new ConductorSeriesOhms("L1.1", 60), new ParameterIs("M1", "load", 3));
        var seen = simulator.Do(simulator.Start().State, Starters.Press).Appearances["KM1"];
        seen.ShouldBe("chatters");
    }

    [Fact]
    public void A_step_says_what_it_is()
    {
        new Step("S2", "pressed").ToString().ShouldBe("S2 pressed");
        Step.Wait(30).ToString().ShouldBe("wait 30 s");
    }

    [Fact]
    public void A_lifted_conductor_is_open_until_it_is_landed()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        var lifted = simulator.Start().State.Lift(new ConductorEnd("5.1", TerminalId.Parse("KM1:A1")));
        simulator.Do(lifted, Starters.Press).Appearances["KM1"].ShouldBe("out");
        simulator.Do(lifted.Land("5.1"), Starters.Press).Appearances["KM1"].ShouldBe("in");
        simulator.Network.Circuit.Conductors.ShouldContain(c => c.Id == "5.1" && c.To == TerminalId.Parse("KM1:A1"));
    }
}
