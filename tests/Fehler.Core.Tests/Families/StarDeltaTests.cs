using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Families;

/// <summary>Star-delta starters as they are operated.</summary>
public class StarDeltaTests
{
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
}
