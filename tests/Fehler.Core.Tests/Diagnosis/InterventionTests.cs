using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// What is done to the circuit changes it, and what came of it is evidence; and faults that are not there when one looks.
/// </summary>
public class InterventionTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    /// <summary>The wire from the retaining contact: off its terminal, the motor runs only while Start is held (common practice).</summary>
    private static Journal RunsOnlyWhileHeld() =>
        new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 out, M1 stopped");

    [Fact]
    public void A_loose_terminal_found_points_to_its_wire_and_a_tight_one_away_from_it()
    {
        var wire = Circuit.Conductors.First(c => c.From == TerminalId.Parse("KM1:13") || c.To == TerminalId.Parse("KM1:13"));
        double Share(Journal journal) => journal.Diagnose().Units.Where(u => u.Unit == wire.Id).Sum(u => u.Probability);
        var before = Share(RunsOnlyWhileHeld());
        var loose = Share(RunsOnlyWhileHeld().Dead().Add(Tried("KM1:13", wasLoose: true)));
        var tight = Share(RunsOnlyWhileHeld().Dead().Add(Tried("KM1:13", wasLoose: false)));
        loose.ShouldBeGreaterThan(3 * before);
        tight.ShouldBeLessThan(before);
    }

    /// <summary>It works after a loose screw was tightened: it was that, and it is repaired; the function test has the last word.</summary>
    [Fact]
    public void Working_after_a_loose_screw_was_tightened_shows_what_it_was()
    {
        var result = RunsOnlyWhileHeld()
            .Dead()
            .Add(Tried("KM1:13", wasLoose: true))
            .Add(new Energised())
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Diagnose();
        result.Status.ShouldBe(DiagnosisStatus.Repaired);
        result.Summary.ShouldContain("function test");
    }

    /// <summary>Still the same after the screw was tightened: it was something else.</summary>
    [Fact]
    public void Not_working_after_it_was_tightened_clears_the_wire()
    {
        var wire = Circuit.Conductors.First(c => c.From == TerminalId.Parse("KM1:13") || c.To == TerminalId.Parse("KM1:13"));
        var result = RunsOnlyWhileHeld()
            .Dead()
            .Add(Tried("KM1:13", wasLoose: true))
            .Add(new Energised())
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Diagnose();
        result.Units[0].Unit.ShouldBe("KM1");
        result.Units.Where(u => u.Unit == wire.Id).Sum(u => u.Probability).ShouldBeLessThan(0.05);
    }

    [Fact]
    public void A_screwdriver_goes_on_terminals_of_a_dead_circuit_only()
    {
        JobState.Of(Circuit.Compiled(), []).Refuse(Tried("KM1:13", true))!.ShouldContain("proved dead");
        JobState.Of(Circuit.Compiled(), []).Refuse(Tried("KM1:99", true))!.ShouldContain("No conductor");
    }

    /// <summary>Reset, and it trips again: the trip was a consequence. Reset, and it runs on: nothing more is known.</summary>
    [Fact]
    public void What_a_reset_leads_to_is_evidence()
    {
        Journal Tripped() =>
            new Journal(Circuit)
                .Add(new LiveWorkAcknowledged())
                .Did(Starters.Press, "KM1 out, M1 stopped")
                .Looked("F2", "flag", "tripped")
                .Did(new("F2", "reset"), "KM1 out, M1 stopped")
                .Did(Starters.Press, "KM1 in, M1 runs")
                .Did(Starters.Release, "KM1 in, M1 runs");
        var again = Tripped().Did(Step.Wait(600), "KM1 out, M1 stopped").Diagnose();
        again.Units.Where(u => u.Suspects[0].Fault?.Id == "F2/tripped").Sum(u => u.Probability).ShouldBeLessThan(0.05);
        again.Units[0].Suspects[0].Fault!.Id.ShouldBeOneOf("M1/overloaded", "F2/set-low");
        again.Consequences.ShouldContain("F2 tripped");
    }

    /// <summary>It did not pull in; now it does, and nobody did anything: a fault that comes and goes, in the same path.</summary>
    [Fact]
    public void A_fault_that_is_away_when_one_looks_stays_suspected_as_one_that_comes_and_goes()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Repaired);
        var leading = result.Units.Where(u => u.Unit.Length > 0).Take(3).Select(u => u.Suspects[0]).ToList();
        leading.ShouldAllBe(s => s.ComesAndGoes > 0.9, $"{result.Summary}");
        leading.ShouldAllBe(s => s.Fault!.CanComeAndGo);
        result.Summary.ShouldContain("comes and goes");
    }

    /// <summary>A fault that is always there when it is looked for is not said to come and go.</summary>
    [Fact]
    public void A_steady_fault_is_not_said_to_come_and_go()
    {
        var run = GuidedRun.On(Circuit.Compiled(), Starters.Fault(Circuit, "KM1/A1-A2-open"));
        run.Result.Units[0].Suspects[0].ComesAndGoes.ShouldBeLessThan(0.05);
        run.Result.Summary.ShouldNotContain("comes and goes");
    }

    private static Tightened Tried(string terminal, bool wasLoose) => new(TerminalId.Parse(terminal), wasLoose);
}
