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
                "stop-S1-released-after-S2",
                "INC-lost",
                "INC-on",
                "S0-operated",
                "S0-released",
                "F2-tripped",
                "F2-reset",
            ]);
        steps.First(s => s.Id == "release-S2").Expected["KM1"].ShouldBe("in");
        steps.First(s => s.Id == "INC-on").Expected["M1"].ShouldBe("stopped");
        steps.First(s => s.Id == "S0-operated").Expected["KM1"].ShouldBe("out");
    }

    private static Reading Ohms(string from, string to) =>
        new(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), [], ReadingValue.Of(1));

    private static JobState After(params JournalEntry[] entries) =>
        JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));
}
