using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Jobs;

/// <summary>What a journal allows: the safety rules hold whoever sends an entry.</summary>
public class JobStateTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    [Fact]
    public void A_resistance_is_refused_until_the_circuit_is_isolated_and_proved_dead()
    {
        var ohms = Ohms("S1:21", "S1:22");
        After().Refuse(ohms)!.ShouldContain("prove dead");
        After(new Isolated(["Q1"])).Refuse(ohms)!.ShouldContain("prove dead");
        After(new Isolated(["Q1"]), new ProvedDead(true, true)).Refuse(ohms).ShouldBeNull();
        After(new Isolated(["Q1"]), new ProvedDead(true, true), new Energised()).Refuse(ohms)!.ShouldContain("prove dead");
    }

    [Fact]
    public void Dead_is_proved_only_with_the_detector_checked_before_and_after() =>
        After(new Isolated(["Q1"])).Refuse(new ProvedDead(true, false))!.ShouldContain("before and after");

    [Fact]
    public void No_resistance_above_the_isolator() =>
        After(new Isolated(["Q1"]), new ProvedDead(true, true)).Refuse(Ohms("Q1:1", "Q1:2"))!.ShouldContain("stays live");

    [Fact]
    public void Volts_on_a_live_circuit_need_an_acknowledgement_and_again_after_switching_on()
    {
        var volts = new Reading(Quantity.Volts, TerminalId.Parse("F3:2"), TerminalId.Parse("INC:N"), [], ReadingValue.Of(230));
        After().Refuse(volts)!.ShouldContain("Acknowledge");
        After(new LiveWorkAcknowledged()).Refuse(volts).ShouldBeNull();
        After(new LiveWorkAcknowledged(), new Isolated(["Q1"]), new ProvedDead(true, true), new Energised())
            .Refuse(volts)!
            .ShouldContain("Acknowledge");
    }

    [Fact]
    public void The_armature_is_pressed_by_hand_only_on_a_dead_circuit() =>
        After(new LiveWorkAcknowledged())
            .Refuse(
                new OperationSeen([new Step("KM1", "in")], System.Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty)
            )!
            .ShouldContain("isolated and proved dead");

    [Fact]
    public void A_job_does_not_close_with_a_wire_lifted_or_a_function_test_undone()
    {
        var dead = new JournalEntry[]
        {
            new Isolated(["Q1"]),
            new ProvedDead(true, true),
            new WireLifted("5.1", TerminalId.Parse("KM1:A1")),
        };
        After(dead).Refuse(new Closed(CloseOutcome.NothingFound, "shift ends"))!.ShouldContain("still lifted");
        After(new Repair("S1", "replaced", [])).Refuse(new Closed(CloseOutcome.RepairedAndProved))!.ShouldContain("function test");
        After().Refuse(new Closed(CloseOutcome.RepairedAndProved))!.ShouldContain("No repair");
        After().Refuse(new Closed(CloseOutcome.NothingFound))!.ShouldContain("why");
    }

    [Fact]
    public void A_complete_function_test_and_restored_panel_close_the_job_and_nothing_is_taken_afterwards()
    {
        JournalEntry[] entries =
        [
            new Repair("S1", "replaced", []),
            .. RestoreList.Of(JobState.Of(Circuit.Compiled(), [])).Select(i => new Restored(i.Id)),
            .. Circuit.Compiled().FunctionTest.Steps.Select(s => new FunctionTested(s.Id, true, s.Expected)),
        ];
        After(entries).Refuse(new Closed(CloseOutcome.RepairedAndProved)).ShouldBeNull();
        After([.. entries, new Closed(CloseOutcome.RepairedAndProved)]).Refuse(new Note("late"))!.ShouldContain("closed");
    }

    /// <summary>A bundle from before may know fewer steps: what was closed as proved there stays closed here.</summary>
    [Fact]
    public void What_was_proved_elsewhere_is_not_held_to_the_function_test_of_today()
    {
        var job = After(
            new Repair("S1", "replaced", []),
            new FunctionTested("rest", true, Circuit.Compiled().FunctionTest.Steps[0].Expected)
        );
        var closed = new Closed(CloseOutcome.RepairedAndProved);
        job.Refuse(closed)!.ShouldContain("not complete");
        job.RefuseCarried(closed).ShouldBeNull();
        After().RefuseCarried(closed)!.ShouldContain("No repair");
    }

    /// <summary>A bridge makes another circuit: nothing read meanwhile is evidence, nothing is proved, and the job is not closed with it.</summary>
    [Fact]
    public void A_bridge_is_put_in_dead_keeps_what_is_read_from_counting_and_has_to_come_out()
    {
        var bridge = new Makeshift(MakeshiftKind.Bridge, "KM1 13-14");
        After().Refuse(bridge)!.ShouldContain("prove dead");
        var bridged = new JournalEntry[] { new Isolated(["Q1"]), new ProvedDead(true, true), bridge };
        After(bridged).Refuse(bridge with { Where = "km1 13-14 " })!.ShouldContain("already");
        After(bridged).Leftovers.ShouldContain("Bridge in: KM1 13-14.");
        var read = new Reading(Quantity.Volts, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), [], ReadingValue.Of(230));
        JournalEntry[] live = [.. bridged, new Energised(), new LiveWorkAcknowledged(), read];
        var job = After(live);
        job.Void.Values.ShouldBe(["bridge in: KM1 13-14"]);
        job.Refuse(new FunctionTested("rest", true, Circuit.Compiled().FunctionTest.Steps[0].Expected))!.ShouldContain("Bridge in");
        job.Refuse(new Closed(CloseOutcome.NothingFound, "late"))!.ShouldContain("Bridge in");
        job.Refuse(new Closed(CloseOutcome.HandedOver, "to the late shift")).ShouldBeNull();
        var undone = new MakeshiftUndone(MakeshiftKind.Bridge, "KM1 13-14");
        After([.. live, undone, read]).Void.Count.ShouldBe(1);
        After([.. live, undone]).Makeshifts.ShouldBeEmpty();
        After([.. live, undone]).Refuse(undone)!.ShouldContain("Nothing of that kind");
        After().Refuse(new Makeshift(MakeshiftKind.CoverOff, " "))!.ShouldContain("Say where");
    }

    [Fact]
    public void Before_it_is_isolated_the_points_that_stay_live_are_named() =>
        SafetyRules
            .Possible(After())
            .Single(s => s.Step == SafetyStep.Isolate)
            .Notes.ShouldContain(n => n.Contains("Q1 1, 3, 5", StringComparison.Ordinal));

    /// <summary>Common practice: what a function test of a three-wire starter covers.</summary>
    [Fact]
    public void The_function_test_covers_start_hold_stop_emergency_stop_trip_reset_and_power_return()
    {
        var steps = Circuit.Compiled().FunctionTest.Steps;
        steps
            .Select(s => s.Id)
            .ShouldBe([
                "rest",
                "press-S2",
                "release-S2",
                "stop-S1-after-S2",
                "both-S1-S2",
                "stop-S1-released-after-S2",
                "INC-lost",
                "INC-on",
                "S0-operated",
                "S0-operated-start",
                "S0-released",
                "F2-tripped",
                "F2-tripped-start",
                "F2-reset",
            ]);
        steps.First(s => s.Id == "release-S2").Expected["KM1"].ShouldBe("in");
        steps.First(s => s.Id == "INC-on").Expected["M1"].ShouldBe("stopped");
        steps.First(s => s.Id == "S0-operated").Expected["KM1"].ShouldBe("out");
        foreach (var refused in new[] { "both-S1-S2", "S0-operated-start", "F2-tripped-start" })
        {
            steps.First(s => s.Id == refused).Expected["M1"].ShouldBe("stopped", refused);
        }
    }

    /// <summary>A motor at 0.7 of its torque draws more than 0.7 and less than 0.9 of its plate's current (common practice).</summary>
    [Fact]
    public void A_run_that_is_proved_says_what_a_clamp_shows_in_each_line()
    {
        var lines = Circuit.Compiled().FunctionTest.Steps.Single(s => s.Id == "release-S2").Currents;
        lines.Select(l => l.Terminal.ToString()).ShouldBe(["F2:2", "F2:4", "F2:6"]);
        var plate = Circuit.Device("M1").Kind.PlateOf(Circuit.Device("M1"))!;
        lines.ShouldAllBe(l => l.Amps > 0.7 * plate.Amps.Value && l.Amps < 0.9 * plate.Amps.Value);
        Circuit.Compiled().FunctionTest.Steps.Where(s => s.Expected["M1"] == "stopped").ShouldAllBe(s => s.Currents.IsEmpty);
    }

    [Fact]
    public void Currents_taken_in_the_function_test_are_read_with_the_proof()
    {
        var story = JobStory.Of(
            After(
                new Reading(Quantity.Volts, TerminalId.Parse("Q1:2"), TerminalId.Parse("Q1:4"), [], ReadingValue.Of(400)),
                new FunctionTested("release-S2", true, ImmutableSortedDictionary<string, string>.Empty),
                new Reading(Quantity.Amps, TerminalId.Parse("F2:2"), TerminalId.Parse("F2:2"), [], ReadingValue.Of(6))
            )
        );
        story.Chapters.Single(c => c.Title == "Searched").Lines.Length.ShouldBe(1);
        story.Chapters.Single(c => c.Title == "Proved").Lines.Length.ShouldBe(2);
    }

    private static Reading Ohms(string from, string to) =>
        new(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), [], ReadingValue.Of(1));

    private static JobState After(params JournalEntry[] entries) =>
        JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));
}
