using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>What people know without a meter: how it stands now, what happened before anybody wrote anything down, what they were told.</summary>
public class CircumstanceTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static Journal DoesNotStart => new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped");

    private static double Share(DiagnosisResult result, Func<FaultMode, bool> which) =>
        result.Units.SelectMany(u => u.Suspects).Where(s => s.Fault is not null && which(s.Fault)).Sum(s => s.Probability);

    /// <summary>After work the wiring is looked at first, after rain the insulation (common practice).</summary>
    [Fact]
    public void What_was_told_moves_the_suspicion_to_what_it_points_at()
    {
        // The control fuse blew: a short circuit, an earth fault, or by itself.
        var blown = DoesNotStart.Volts("F3:1", Circuit.Reference.ToString(), 231).Volts("F3:2", Circuit.Reference.ToString(), 0);
        static bool IsLeak(FaultMode f) => !f.IsWiring && f.Alterations.OfType<Bridge>().Any();
        Share(blown.Diagnose(), IsLeak).ShouldBeGreaterThan(0.05);
        var dry = Share(blown.Diagnose(), IsLeak);
        Share(blown.Add(new Told(Circumstance.Water)).Diagnose(), IsLeak).ShouldBeGreaterThan(Math.Min(0.8, 1.2 * dry));
    }

    [Fact]
    public void A_part_that_was_changed_or_smells_is_thought_of_first()
    {
        double Coil(params Told[] told) =>
            told.Aggregate(DoesNotStart, (journal, t) => journal.Add(t)).Diagnose().Units.FirstOrDefault(u => u.Unit == "KM1")?.Probability
            ?? 0;
        Coil(new Told(Circumstance.Burnt, "KM1")).ShouldBeGreaterThan(2 * Coil());
        Coil(new Told(Circumstance.Burnt, "S2")).ShouldBeLessThan(Coil());
    }

    /// <summary>What comes and goes is told of as such.</summary>
    [Fact]
    public void Now_and_then_speaks_for_what_comes_and_goes_and_every_time_against_it()
    {
        double Comes(Circumstance what) =>
            DoesNotStart.Add(new Told(what)).Diagnose().Units.SelectMany(u => u.Suspects).Max(s => s.ComesAndGoes);
        Comes(Circumstance.Sometimes).ShouldBeGreaterThan(10 * Comes(Circumstance.EveryTime));
    }

    /// <summary>Twice of two is soon said; ten of ten is not luck (common practice).</summary>
    [Fact]
    public void Counted_tries_say_as_much_as_there_were()
    {
        double Comes(int failed, int tries) =>
            DoesNotStart.Add(Told.Counted(failed, tries)).Diagnose().Units.SelectMany(u => u.Suspects).Max(s => s.ComesAndGoes);
        Comes(10, 10).ShouldBeLessThan(Comes(2, 2));
        Comes(2, 2).ShouldBeLessThan(Comes(3, 10));
    }

    [Theory]
    [InlineData(Circumstance.EveryTime, 3, 10, "now and then")]
    [InlineData(Circumstance.Sometimes, 10, 10, "every time")]
    [InlineData(Circumstance.Sometimes, 0, 10, "no fault")]
    [InlineData(Circumstance.Sometimes, 11, 10, "how many of how many")]
    [InlineData(Circumstance.Water, 1, 2, "counted where")]
    public void Numbers_that_contradict_what_they_stand_with_are_refused(Circumstance what, int failed, int tries, string why) =>
        JobState.Of(Circuit.Compiled(), []).Refuse(new Told(what) { Failed = failed, Tries = tries })!.ShouldContain(why);

    /// <summary>It is the same story whether it is told before anything was tried or after.</summary>
    [Fact]
    public void It_does_not_matter_when_it_was_told()
    {
        var told = new Told(Circumstance.Burnt, "F2");
        Journal Ran(Journal journal) => journal.Did(Starters.Press, "KM1 in, M1 runs").Did(Step.Wait(60), "KM1 out, M1 stopped");
        var first = Ran(new Journal(Circuit).Add(told)).Diagnose();
        var last = Ran(new Journal(Circuit)).Add(told).Diagnose();
        last.Units[0].Unit.ShouldBe(first.Units[0].Unit);
        last.Units[0].Probability.ShouldBe(first.Units[0].Probability, 0.02);
    }

    /// <summary>A job may begin with a machine that runs: somebody started it, and nothing speaks against anything.</summary>
    [Fact]
    public void A_machine_that_runs_when_the_job_is_opened_was_started_by_somebody()
    {
        var result = new Journal(Circuit).Add(new OperationSeen([], Journal.Seen("KM1 in, M1 runs"))).Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Contradiction);
        // The motor is shown live, and nobody is sent to isolate it under load without a word.
        result.LiveWires.ShouldContain(Circuit.WireAt(TerminalId.Parse("M1:U")));
        foreach (var isolating in result.Proposals.Where(p => p.Setup.Change == SetupChange.Isolate))
        {
            isolating.Cautions.ShouldContain(c => c.Contains("M1", StringComparison.Ordinal));
        }
    }

    /// <summary>It ran, and now it stands: something struck or tripped, no broken Start button.</summary>
    [Fact]
    public void What_ran_and_now_stands_was_not_kept_from_starting()
    {
        var result = new Journal(Circuit)
            .Add(new OperationSeen([], Journal.Seen("KM1 in, M1 runs")))
            .Add(new OperationSeen([], Journal.Seen("KM1 out, M1 stopped")))
            .Diagnose();
        (result.Units.FirstOrDefault(u => u.Unit == "S2")?.Probability ?? 0).ShouldBeLessThan(0.05, result.Summary.ToString());
    }

    /// <summary>A button that was not quite pressed once is no fault: the second try went well.</summary>
    [Fact]
    public void A_button_that_was_not_quite_pressed_makes_nothing_certain()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Step.Wait(60), "KM1 in, M1 runs")
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Found);
        result.Units.Where(u => u.Unit.Length > 0).Max(u => u.Probability).ShouldBeLessThan(0.7, result.Summary.ToString());
    }

    /// <summary>When everything went as it should, that is what is said, before any fault is named.</summary>
    [Fact]
    public void When_all_that_was_seen_is_normal_that_is_said()
    {
        const string normal = "Everything recorded so far is what a good circuit does";
        var journal = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Starters.Stop, "KM1 out, M1 stopped");
        journal.Diagnose().Summary.ToString().ShouldStartWith(normal);
        journal.Did(Starters.StopReleased, "KM1 out, M1 stopped").Did(Starters.Press, "KM1 out, M1 stopped");
        journal.Diagnose().Summary.ToString().ShouldNotStartWith(normal);
    }

    [Theory]
    [InlineData(Circumstance.Burnt, "", "which device")]
    [InlineData(Circumstance.PartChanged, "XY9", "XY9")]
    [InlineData(Circumstance.Water, "KM1", "whole circuit")]
    public void What_cannot_be_meant_is_refused_with_what_to_do(Circumstance what, string device, string said) =>
        JobState.Of(Circuit.Compiled(), []).Refuse(new Told(what, device)).ShouldNotBeNull().ShouldContain(said);

    [Fact]
    public void An_operation_with_nothing_done_and_nothing_seen_is_refused() =>
        EntryRules
            .Refuse(new OperationSeen([], Journal.Seen("KM1 in").Clear()), DateTimeOffset.UtcNow)
            .ShouldNotBeNull()
            .ShouldContain("what is seen");
}
