using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Families;

/// <summary>Two directions: reversing starters and hoists as they are operated; common practice unless a source is named.</summary>
public class ReversingTests
{
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
}
