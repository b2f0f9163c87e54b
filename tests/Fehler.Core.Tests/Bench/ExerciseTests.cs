using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Bench;

/// <summary>A panel for practice: what is hidden in it, what it answers, what it does not forgive.</summary>
public class ExerciseTests
{
    private static readonly CompiledCircuit Circuit = Starters.LineToNeutral.Compile();

    private static Exercise With(string fault) => new([HiddenFault.Named(Circuit, fault)!], 7, Difficulty.Single, "", true);

    private static JobState Job(params JournalEntry[] entries) =>
        JobState.Of(Circuit, entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));

    private static readonly JournalEntry[] Dead = [new Isolated(Circuit.Isolation.Points), new ProvedDead(true, true)];

    private static ReadingAsTyped Measure(Quantity quantity, string from, string to, params Step[] held) =>
        new(quantity, TerminalId.Parse(from), TerminalId.Parse(to), [.. held], "not sure");

    private static PanelAnswer Answer(string fault, JournalEntry entry, params JournalEntry[] before)
    {
        var job = Job(before);
        return new ExercisePanel(Circuit, With(fault), job.Entries).Answer(entry, job);
    }

    [Fact]
    public void What_is_measured_is_the_panels_and_not_what_was_claimed()
    {
        var open = (Reading)Answer("KM1/A1-A2-open", Measure(Quantity.Ohms, "KM1:A1", "KM1:A2"), Dead).Entry;
        open.Value.Kind.ShouldBe(ReadingKind.OverLimit);
        var sound = (Reading)Answer("S2/13-14-open", Measure(Quantity.Ohms, "KM1:A1", "KM1:A2") with { Typed = "5" }, Dead).Entry;
        sound.Value.Number.ShouldBeGreaterThan(100);
        var seen = (OperationSeen)
            Answer("S2/13-14-open", new OperationSeen([Starters.Press], ImmutableSortedDictionary<string, string>.Empty)).Entry;
        (seen.Seen["KM1"], seen.Seen["M1"]).ShouldBe(("out", "stopped"));
    }

    [Fact]
    public void Made_anew_from_its_journal_it_stands_and_measures_as_it_did()
    {
        var operated = new OperationSeen([Starters.Press, Starters.Release], ImmutableSortedDictionary<string, string>.Empty);
        var measured = Measure(Quantity.Volts, "KM1:A1", "KM1:A2");
        var values = Enumerable.Range(0, 2).Select(_ => ((Reading)Answer("KM1/13-14-open", measured, operated).Entry).Value).ToList();
        values[0].ShouldBe(values[1]);
    }

    [Fact]
    public void What_would_hurt_somebody_stops_it()
    {
        Answer("S2/13-14-open", Measure(Quantity.Ohms, "KM1:A1", "KM1:A2")).Stops!.ShouldContain("not proved dead");
        Answer("S2/13-14-open", Measure(Quantity.Ohms, "KM1:A1", "KM1:A2"), Dead).Stops.ShouldBeNull();
        var armature = new OperationSeen([new Step("KM1", "in")], ImmutableSortedDictionary<string, string>.Empty);
        Answer("S2/13-14-open", armature).Stops!.ShouldContain("armature");
        Answer("S2/13-14-open", armature, Dead).Stops.ShouldBeNull();
        Answer("S2/13-14-open", new WireLifted(Circuit.Circuit.Conductors[5].Id, Circuit.Circuit.Conductors[5].From))
            .Stops.ShouldNotBeNull();
    }

    /// <summary>A contactor that pulls in is heard, a coil that is open is not; a motor on two phases hums (common practice).</summary>
    [Theory]
    [InlineData("KM1/A1-A2-open", "Nothing is heard.")]
    [InlineData("KM1/13-14-open", "Heard: KM1 a clack, and quiet; M1 runs up.")]
    [InlineData("KM1/1-2-open", "Heard: KM1 a clack, and quiet; M1 a loud hum, and nothing turns.")]
    public void What_is_heard_is_said(string fault, string heard)
    {
        var pressed = Answer(fault, new OperationSeen([Starters.Press], ImmutableSortedDictionary<string, string>.Empty)).Entry;
        PanelSounds.Last(Job(pressed)).ShouldBe(heard);
        PanelSounds.Last(Job(pressed, new Note("nothing"))).ShouldBe("");
    }

    [Fact]
    public void A_good_part_is_told_from_a_bad_one_and_a_reset_before_a_look_is_a_mistake()
    {
        Answer("S2/13-14-open", new Repair("KM1", "replaced", [])).Mistake.ShouldBe("KM1 was good.");
        Answer("S2/13-14-open", new Repair("S2", "replaced", [])).Mistake.ShouldBeNull();
        var reset = new OperationSeen([new Step("F2", "reset")], ImmutableSortedDictionary<string, string>.Empty);
        Answer("F2/tripped", reset).Mistake!.ShouldContain("before anybody had looked");
        Answer("F2/tripped", reset, new LookSeen("F2", "flag", "tripped")).Mistake.ShouldBeNull();
    }

    [Fact]
    public void A_repaired_panel_passes_its_function_test_and_a_faulty_one_does_not()
    {
        var step = Circuit.FunctionTest.Steps.First(s => s.Id == "press-S2");
        var test = new FunctionTested(step.Id, true, ImmutableSortedDictionary<string, string>.Empty);
        ((FunctionTested)Answer("S2/13-14-open", test).Entry).Passed.ShouldBeFalse();
        ((FunctionTested)Answer("S2/13-14-open", test, new Repair("S2", "replaced", [])).Entry).Passed.ShouldBeTrue();
    }

    [Theory]
    [InlineData(Difficulty.Single, 1)]
    [InlineData(Difficulty.Two, 2)]
    [InlineData(Difficulty.Supply, 1)]
    [InlineData(Difficulty.Setting, 1)]
    [InlineData(Difficulty.Wiring, 1)]
    public void A_code_hides_the_same_fault_for_everybody_and_it_shows(Difficulty difficulty, int count)
    {
        var a = Exercise.Hide(Circuit, difficulty, "monday", false);
        Exercise.Hide(Circuit, difficulty, "monday", true).Faults.ShouldBe(a.Faults);
        a.Faults.Length.ShouldBe(count);
        PanelTrial.Of(Circuit, [.. a.Faults.Select(f => f.In(Circuit)!)]).Shows.ShouldBeTrue();
    }

    [Fact]
    public void Other_codes_hide_other_faults() =>
        Enumerable
            .Range(0, 12)
            .Select(i => Exercise.Hide(Circuit, Difficulty.Single, $"class {i}", false).Faults[0].Id)
            .Distinct()
            .Count()
            .ShouldBeGreaterThan(5);

    /// <summary>Each lesson has a panel among the families, and the same one for everybody.</summary>
    [Fact]
    public void Every_lesson_can_be_taken()
    {
        CompiledCircuit[] circuits =
        [
            Circuit,
            new Reversing { Tag = "R-1", Title = "Fan" }
                .Build()
                .Compile(),
            new MultiStation { Tag = "S-1", Title = "Chain" }
                .Build()
                .Compile(),
        ];
        foreach (var lesson in Lesson.Path)
        {
            var taken = circuits.Select(lesson.On).FirstOrDefault(e => e is not null);
            taken.ShouldNotBeNull(lesson.Id);
            circuits.Select(lesson.On).First(e => e is not null)!.Faults.ShouldBe(taken.Faults);
            lesson.Notice.Length.ShouldBeGreaterThan(20);
        }

        Lesson.Find("interlock")!.On(Circuit).ShouldBeNull();
        Lesson.Find("retaining")!.On(Circuit)!.Faults.Single().Id.ShouldStartWith("KM1/");
    }

    [Fact]
    public void The_debrief_names_what_was_hidden_and_what_each_step_told()
    {
        var exercise = With("S2/13-14-open");
        var job = Job(new LiveWorkAcknowledged());
        foreach (
            var entry in new JournalEntry[]
            {
                new OperationSeen([Starters.Press, Starters.Release], ImmutableSortedDictionary<string, string>.Empty),
                Measure(Quantity.Volts, "S2:13", "INC:N"),
                Measure(Quantity.Volts, "S2:14", "INC:N", Starters.Press),
                Measure(Quantity.Volts, "S2:13", "INC:N"),
            }
        )
        {
            var answer = new ExercisePanel(Circuit, exercise, job.Entries).Answer(entry, job);
            job = job.With(answer.Entry with { Id = Guid.NewGuid(), Sequence = job.Entries.Length + 1 });
        }

        var again = job.Entries[^1].Sequence;
        job = job.With(new Finding("S2") { Id = Guid.NewGuid(), Sequence = again + 1 });
        var debrief = Debrief.Of(job, exercise, TestContext.Current.CancellationToken);
        debrief.Faults.ShouldBe(["Contact 13-14 of button S2 does not close"]);
        debrief.Found.ShouldBeTrue();
        debrief.Ledger.Readings.ShouldBe(3);
        debrief.Steps.Sum(s => s.Bits).ShouldBeGreaterThan(1);
        // The same reading a second time tells nothing.
        debrief.Steps.Single(s => s.Sequence == again).Bits.ShouldBeLessThan(0.3);
        debrief.ParReadings.ShouldBeInRange(1, 8);
    }
}
