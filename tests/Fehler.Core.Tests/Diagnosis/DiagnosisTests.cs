using System.Globalization;
using System.Text.RegularExpressions;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Diagnosis;

public class DiagnosisTests
{
    /// <summary>A share of all faults; `./fehler evaluate` tries every one and docs/diagnosis-quality.md keeps the figures.</summary>
    [Theory]
    [InlineData("LN", 0)]
    [InlineData("LL", 9)]
    public void Following_the_proposals_from_the_symptom_finds_the_right_unit(string name, int first)
    {
        var circuit = Starters.Of(name);
        var faults = FaultCatalogue.Of(circuit).Where((_, i) => i % 23 == first).ToList();
        faults.Count.ShouldBeGreaterThan(14);
        foreach (var fault in faults)
        {
            var run = GuidedRun.On(circuit.Compiled(), fault);
            if (run.HasSymptom)
            {
                var top = run.Result.Units.First(u => u.Unit.Length > 0);
                top.Alike.Append(top.Unit).ShouldContain(fault.Unit, $"{fault.Id} {fault.Variant}: {run.Result.Summary}");
            }
        }
    }

    /// <summary>
    /// A meter's one or two per cent (common practice) tell no 405 V from 400: such an answer is a good one, and half or twice as much is not.
    /// </summary>
    [Fact]
    public void By_an_answer_that_a_good_circuit_may_show_nobody_tells_a_fault()
    {
        var asked = new[]
        {
            new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 out, M1 stopped"),
            new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 in, M1 stopped"),
            new Journal(Starters.LineToLine).Did(Starters.Press, "KM1 out, M1 stopped"),
        }
            .SelectMany(j => j.Diagnose().Proposals)
            .Where(p => p is { Kind: ProposalKind.Reading, GoodValue: > 20 })
            .SelectMany(p => p.Outcomes.Select(o => (Good: p.GoodValue!.Value, Outcome: o)))
            .Select(x => (x.Good, x.Outcome, Volts: Regex.Match(x.Outcome.Shows, @"^about ([\d.]+) V$")))
            .Where(x => x.Volts.Success)
            .Select(x => (x.Outcome, Share: double.Parse(x.Volts.Groups[1].Value, CultureInfo.InvariantCulture) / x.Good))
            .ToList();
        asked.Count(x => Math.Abs(x.Share - 1) < 0.02).ShouldBeGreaterThan(3);
        asked.Where(x => Math.Abs(x.Share - 1) < 0.02).ShouldAllBe(x => x.Outcome.IsGood);
        asked.Where(x => x.Share is < 0.6 or > 1.6).ShouldAllBe(x => !x.Outcome.IsGood);
    }

    /// <summary>
    /// Where what is tried next begins is known before anything is worked out, and without the next test: the same that a whole diagnosis says.
    /// </summary>
    [Theory]
    [InlineData("dol-transformer-earthed")]
    [InlineData("impulse-watched")]
    [InlineData("star-delta")]
    public void How_the_devices_stand_is_said_alike_with_and_without_a_next_test(string name)
    {
        var compiled = FamilySamples.Of(name).Compiled();
        static string Positions(CircuitState state) => string.Join(',', state.Devices.Select(d => d.Position));
        var start = compiled.RunUp.Starts[0].Act;
        var healthy = Starters.Healthy(compiled.Circuit);
        var seen = healthy.Do(healthy.Start().State, start).Appearances;
        JournalEntry[] journal =
        [
            new Complaint("Does not run"),
            .. Enum.GetValues<Circumstance>().Select(c => new Told(c)),
            new OperationSeen([start], seen),
        ];
        for (var n = 1; n <= journal.Length; n++)
        {
            var job = JobState.Of(compiled, journal.Take(n).Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));
            var whole = Positions(
                new DiagnosisSession(compiled).Diagnose(job, cancellation: TestContext.Current.CancellationToken).Standing
            );
            Positions(new DiagnosisSession(compiled).Standing(job)).ShouldBe(whole);
            if (n < journal.Length)
            {
                Positions(DiagnosisSession.AtRest(job)!).ShouldBe(whole, $"after {journal[n - 1]}");
            }
            else
            {
                DiagnosisSession.AtRest(job).ShouldBeNull();
            }
        }
    }

    /// <summary>Common practice: latches only while held, everything else works: the holding branch, not the coil.</summary>
    [Fact]
    public void Runs_only_while_held_points_to_the_holding_branch()
    {
        var journal = new Journal(Starters.LineToNeutral)
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 in, M1 runs")))
            .Add(new OperationSeen([Starters.Release], Journal.Seen("KM1 out, M1 stopped")));
        var result = journal.Diagnose();
        result.Units.Where(u => u.Probability > 0.03).Select(u => u.Unit).ShouldBeSubsetOf(["KM1", "3.2", "3.3", "4.1"]);
        result.Units[0].Suspects[0].Fault!.Id.ShouldStartWith("KM1/13-14");
    }

    [Fact]
    public void A_stop_button_that_does_not_pass_is_found_by_volts_and_proved_by_ohms()
    {
        var journal = StopButton().Add(new Isolated(["Q1"])).Add(new ProvedDead(true, true)).Ohms("S1:21", "S1:22", null);
        var result = journal.Diagnose();
        result.Status.ShouldBe(DiagnosisStatus.Found);
        result.Units[0].Unit.ShouldBe("S1");
        result.Units[0].Suspects[0].Reasons.ShouldContain(r => r.Text.Contains("OL", StringComparison.Ordinal) && r.Weight > 0);
    }

    [Fact]
    public void One_mistaken_reading_does_not_exclude_the_truth()
    {
        // Measured on the wrong terminal: 230 V behind the open contact.
        var journal = new Journal(Starters.LineToNeutral)
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 out, M1 stopped")))
            .Add(new LookSeen("F2", "flag", "not tripped"))
            .Add(new LookSeen("S0", "operator", "released"))
            .Volts("S1:22", "INC:N", 230)
            .Volts("KM1:13", "INC:N", 0.3)
            .Volts("S1:21", "INC:N", 230)
            .Volts("S0:12", "INC:N", 230)
            .Volts("S1:21", "S1:22", 230, Starters.Press)
            .Add(new Isolated(["Q1"]))
            .Add(new ProvedDead(true, true))
            .Ohms("S1:21", "S1:22", null);
        journal.Diagnose().Units[0].Unit.ShouldBe("S1");
    }

    [Fact]
    public void A_struck_out_reading_no_longer_counts()
    {
        var journal = StopButton();
        var before = journal.Diagnose().Units[0].Probability;
        var wrong = Guid.NewGuid();
        journal.Add(
            new Reading(Quantity.Volts, TerminalId.Parse("S1:22"), TerminalId.Parse("INC:N"), [], ReadingValue.Of(229)) { Id = wrong }
        );
        journal.Diagnose().Units.FirstOrDefault(u => u.Unit == "S1")?.Probability.ShouldBeLessThan(before);
        journal.Add(new StruckOut(wrong, "slipped"));
        journal.Diagnose().Units[0].Unit.ShouldBe("S1");
        journal.Diagnose().Units[0].Probability.ShouldBe(before, 1e-6);
    }

    [Fact]
    public void After_the_repair_the_evidence_belongs_to_the_repaired_circuit()
    {
        var journal = StopButton()
            .Add(new Repair("S1", "contact block replaced", [], 10))
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 in, M1 runs")))
            .Add(new OperationSeen([Starters.Release], Journal.Seen("KM1 in, M1 runs")));
        journal.Diagnose().Status.ShouldBe(DiagnosisStatus.Repaired);
    }

    [Fact]
    public void A_repair_that_did_not_help_leaves_the_fault_elsewhere()
    {
        var journal = StopButton()
            .Add(new Repair("S1", "contact block replaced", [], 10))
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 out, M1 stopped")));
        var result = journal.Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Repaired);
        result.Units[0].Unit.ShouldNotBe("S1");
    }

    [Fact]
    public void Readings_that_no_single_fault_explains_are_said_aloud_with_ways_out()
    {
        var journal = new Journal(Starters.LineToNeutral)
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 in, M1 runs")))
            .Volts("F3:2", "INC:N", 96)
            .Volts("S1:22", "INC:N", 170)
            .Volts("KM1:13", "INC:N", 55)
            .Volts("X1:1", "INC:N", 130)
            .Volts("S0:12", "INC:N", 41);
        var result = journal.Diagnose();
        result.Status.ShouldBe(DiagnosisStatus.Contradiction);
        result.WaysOut.ShouldContain(w => w.StartsWith("Repeat:", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(Strategy.MostTelling)]
    [InlineData(Strategy.FromSupply)]
    [InlineData(Strategy.DeadFirst)]
    public void Every_way_of_working_proposes_no_resistance_on_points_that_stay_live(Strategy strategy)
    {
        var live = Starters.LineToNeutral.Compiled().Isolation.LiveTerminals;
        live.ShouldContain(TerminalId.Parse("Q1:1"));
        live.ShouldNotContain(TerminalId.Parse("Q1:2"));
        foreach (
            var proposal in StopButton()
                .Diagnose(strategy)
                .Proposals.Where(p => p.Kind == ProposalKind.Reading && p.Quantity != Quantity.Volts)
        )
        {
            proposal.Setup.Dead.ShouldBeTrue();
            live.ShouldNotContain(proposal.From);
            live.ShouldNotContain(proposal.To);
        }
    }

    [Fact]
    public void Dead_tests_first_isolates_and_measures_ohms()
    {
        var journal = new Journal(Starters.LineToNeutral)
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 out, M1 stopped")))
            .Add(new LookSeen("F2", "flag", "not tripped"))
            .Add(new LookSeen("S0", "operator", "released"))
            .Add(new LookSeen("Q1", "handle", "on"));
        var first = journal.Diagnose(Strategy.DeadFirst).Proposals.First(p => p.Kind == ProposalKind.Reading);
        first.Quantity.ShouldBe(Quantity.Ohms);
        first.Setup.Change.ShouldBe(SetupChange.Isolate);
    }

    private static Journal StopButton() =>
        new Journal(Starters.LineToNeutral)
            .Add(new OperationSeen([Starters.Press], Journal.Seen("KM1 out, M1 stopped")))
            .Add(new LookSeen("F2", "flag", "not tripped"))
            .Volts("F3:2", "INC:N", 231)
            .Volts("S1:21", "INC:N", 230)
            .Volts("S1:22", "INC:N", 0.4);
}
