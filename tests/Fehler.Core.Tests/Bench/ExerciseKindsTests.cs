using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Bench;

/// <summary>Kinds of faults to practise on, and the traps beside them.</summary>
public class ExerciseKindsTests
{
    private static readonly CompiledCircuit Circuit = Starters.LineToNeutral.Compile();

    private static readonly OperationSeen Press = new([Starters.Press, Starters.Release], ImmutableSortedDictionary<string, string>.Empty);

    private static readonly OperationSeen Stop = new(
        [Starters.Stop, Starters.StopReleased],
        ImmutableSortedDictionary<string, string>.Empty
    );

    /// <summary>Does what entries say, one after the other, and gives what came of them.</summary>
    private static List<JournalEntry> Done(Exercise exercise, params JournalEntry[] acts)
    {
        var job = JobState.Of(Circuit, []);
        foreach (var act in acts)
        {
            var answer = new ExercisePanel(Circuit, exercise, job.Entries).Answer(act, job);
            job = job.With(answer.Entry with { Id = Guid.NewGuid(), Sequence = job.Entries.Length + 1 });
        }

        return [.. job.Entries];
    }

    private static Exercise With(string fault, Difficulty difficulty, bool hasFlatMeter = false) =>
        new([HiddenFault.Named(Circuit, fault)!], 5, difficulty, "", true) { HasFlatMeter = hasFlatMeter };

    [Fact]
    public void A_fault_that_comes_and_goes_is_there_at_one_try_and_away_at_another()
    {
        JournalEntry[] acts = [.. Enumerable.Range(0, 16).SelectMany(_ => new[] { Press, Stop })];
        var tries = Done(With("S2/13-14-open", Difficulty.Intermittent), acts)
            .OfType<OperationSeen>()
            .Where(o => o.Steps[0].Device == "S2")
            .Select(o => o.Seen["M1"])
            .ToList();
        tries.ShouldContain("runs");
        tries.ShouldContain("stopped");
        // Steady, it never runs.
        Done(With("S2/13-14-open", Difficulty.Single), acts)
            .OfType<OperationSeen>()
            .Where(o => o.Steps[0].Device == "S2")
            .ShouldAllBe(o => o.Seen["M1"] == "stopped");
    }

    [Fact]
    public void Once_it_is_repaired_it_does_not_come_again()
    {
        JournalEntry[] acts = [new Repair("S2", "replaced", []), .. Enumerable.Range(0, 10).SelectMany(_ => new[] { Press, Stop })];
        Done(With("S2/13-14-open", Difficulty.Intermittent), acts)
            .OfType<OperationSeen>()
            .Where(o => o.Steps[0].Device == "S2")
            .ShouldAllBe(o => o.Seen["M1"] == "runs");
    }

    [Theory]
    [InlineData("monday")]
    [InlineData("tuesday")]
    [InlineData("wednesday")]
    public void Only_what_can_come_and_go_does(string code)
    {
        var exercise = Exercise.Hide(Circuit, Difficulty.Intermittent, code, true);
        exercise.Faults.ShouldAllBe(f => f.In(Circuit)!.CanComeAndGo);
    }

    /// <summary>A trip is a consequence: what stands tripped is not what is at fault.</summary>
    [Theory]
    [InlineData("monday")]
    [InlineData("tuesday")]
    [InlineData("wednesday")]
    public void A_consequence_stands_tripped_because_of_something_else(string code)
    {
        var exercise = Exercise.Hide(Circuit, Difficulty.Consequence, code, true);
        var fault = exercise.Faults.Single().In(Circuit)!;
        var trial = PanelTrial.Of(Circuit, [fault]);
        trial.Tripped.ShouldNotBeEmpty();
        trial.Tripped.ShouldContain(t => t != fault.Unit);
    }

    [Fact]
    public void A_jammed_load_trips_the_overload_and_a_dead_button_trips_nothing()
    {
        PanelTrial.Of(Circuit, [Circuit.Faults.Find("M1/stalled")!]).Tripped.ShouldContain("F2");
        PanelTrial.Of(Circuit, [Circuit.Faults.Find("S2/13-14-open")!]).Tripped.ShouldBeEmpty();
        PanelTrial.Of(Circuit, []).Shows.ShouldBeFalse();
    }

    /// <summary>The known-source check of the trade: a meter that shows nothing proves nothing.</summary>
    [Fact]
    public void A_flat_meter_shows_nothing_until_it_is_checked_and_what_it_showed_is_void()
    {
        var volts = new ReadingAsTyped(Quantity.Volts, TerminalId.Parse("INC:L1"), TerminalId.Parse("INC:N"), [], "not sure");
        var entries = Done(
            With("S2/13-14-open", Difficulty.Single, hasFlatMeter: true),
            new LiveWorkAcknowledged(),
            volts,
            new MeterChecked(true),
            volts
        );
        var readings = entries.OfType<Reading>().Select(r => r.Value.Number).ToList();
        readings[0].ShouldBe(0);
        readings[1].ShouldBeInRange(205, 255);
        entries.OfType<MeterChecked>().Single().Good.ShouldBeFalse();
        var job = JobState.Of(Circuit, entries);
        job.Void.Keys.ShouldBe([entries.OfType<Reading>().First().Id]);
    }

    [Fact]
    public void About_one_meter_in_ten_is_flat_and_none_in_a_lesson()
    {
        var flat = Enumerable.Range(0, 200).Count(i => Exercise.Hide(Circuit, Difficulty.Supply, $"class {i}", true).HasFlatMeter);
        flat.ShouldBeInRange(5, 45);
        Lesson.Path.Select(l => l.On(Circuit)).OfType<Exercise>().ShouldAllBe(e => !e.HasFlatMeter);
    }

    [Theory]
    [InlineData("S2/13-14-open", "Does not start")]
    [InlineData("M1/stalled", "Hums and does not start")]
    [InlineData("KM1/13-14-open", "Does not run as it should")]
    public void An_operator_says_what_he_saw(string fault, string complaint) =>
        PanelTrial.Of(Circuit, [Circuit.Faults.Find(fault)!]).Complaint.ShouldBe(complaint);

    /// <summary>Minutes, readings and places are those of the journal; isolating and going to another place cost.</summary>
    [Fact]
    public void The_ledger_counts_what_was_done()
    {
        var exercise = With("S2/13-14-open", Difficulty.Single);
        JournalEntry[] acts =
        [
            new LiveWorkAcknowledged(),
            new ReadingAsTyped(Quantity.Volts, TerminalId.Parse("KM1:A1"), TerminalId.Parse("INC:N"), [], "not sure"),
            new ReadingAsTyped(Quantity.Volts, TerminalId.Parse("S2:13"), TerminalId.Parse("INC:N"), [], "not sure"),
        ];
        var near = Ledger.Of(JobState.Of(Circuit, Done(exercise, [.. acts.Take(2)])), exercise);
        var far = Ledger.Of(JobState.Of(Circuit, Done(exercise, acts)), exercise);
        (near.Readings, near.Places).ShouldBe((1, 1));
        (far.Readings, far.Places).ShouldBe((2, 2));
        // A second reading in the field: there, and the station opened.
        (far.Minutes - near.Minutes).ShouldBeGreaterThan(near.Minutes);
        var isolated = Ledger.Of(
            JobState.Of(Circuit, Done(exercise, [.. acts, new Isolated(Circuit.Isolation.Points), new ProvedDead(true, true)])),
            exercise
        );
        isolated.Minutes.ShouldBeGreaterThan(far.Minutes + 3);
    }
}
