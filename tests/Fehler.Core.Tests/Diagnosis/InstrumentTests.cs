using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Instruments beside the meter: insulation tester, clamp at the start, rotation indicator; and a meter that is wrong.</summary>
public class InstrumentTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;
    private static readonly TerminalId Winding = TerminalId.Parse("M1:U"),
        Case = TerminalId.Parse("M1:PE");

    /// <summary>
    /// Insulation that breaks down only at voltage: the ohmmeter finds it sound, the tester at 500 V does not (common practice).
    /// </summary>
    [Fact]
    public void An_insulation_tester_finds_what_an_ohmmeter_does_not()
    {
        var panel = Panel("M1/winding-U-breakdown");
        panel.Isolate();
        panel.Measure(Quantity.Ohms, Winding, Case, []).Kind.ShouldBe(ReadingKind.OverLimit);
        panel.Measure(Quantity.Insulation, Winding, Case, []).Number.ShouldBeLessThan(100);
        var good = new SimulatedPanel(Circuit.Compiled(), []);
        good.Isolate();
        good.Measure(Quantity.Insulation, Winding, Case, []).Kind.ShouldBe(ReadingKind.OverLimit);
    }

    /// <summary>Below a megohm is not good insulation (IEC 60204-1 18.3 asks 1 Mohm at 500 V, from memory); tens of megohm are.</summary>
    [Fact]
    public void Low_insulation_points_to_a_damp_motor_and_high_insulation_clears_it()
    {
        double Damp(double ohms) =>
            new Journal(Circuit)
                .Did(Starters.Press, "KM1 in, M1 runs")
                .Dead()
                .Add(Insulation(ohms))
                .Diagnose()
                .Units.Where(u => u.Unit == "M1")
                .SelectMany(u => u.Suspects)
                .Where(s => s.Fault!.Id == "M1/damp")
                .Sum(s => s.Probability);
        Damp(120e3).ShouldBeGreaterThan(0.35);
        Damp(80e6).ShouldBeLessThan(0.01);
    }

    [Fact]
    public void Insulation_is_measured_dead_only_and_never_called_a_voltage()
    {
        var state = JobState.Of(Circuit.Compiled(), []);
        state.Refuse(Insulation(1e6))!.ShouldContain("dead");
        var journal = JobState.Of(Circuit.Compiled(), Stamped(new Isolated(["Q1"]), new ProvedDead(true, true)));
        journal.Refuse(Insulation(1e6)).ShouldBeNull();
        journal.Refuse(Insulation(1e6) with { Value = new ReadingValue(ReadingKind.Full) })!.ShouldContain("not a resistance");
    }

    /// <summary>Following the proposals a breakdown is found, and by nothing else than the insulation tester.</summary>
    [Fact]
    public void A_breakdown_under_voltage_is_found_and_proved_with_the_insulation_tester()
    {
        var run = GuidedRun.On(Circuit.Compiled(), Starters.Fault(Circuit, "M1/winding-U-breakdown"));
        run.HasSymptom.ShouldBeTrue();
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
        run.Result.Units[0].Unit.ShouldBe("M1");
        run.Entries.OfType<Reading>().ShouldContain(r => r.Quantity == Quantity.Insulation);
        new DiagnosisSession(Circuit.Compiled())
            .Diagnose(
                JobState.Of(Circuit.Compiled(), run.Entries),
                without: Without.InsulationTester,
                cancellation: TestContext.Current.CancellationToken
            )
            .Proposals.ShouldNotContain(p => p.Kind == ProposalKind.Reading && p.Quantity == Quantity.Insulation);
    }

    /// <summary>
    /// A cage motor draws five to eight times its plate current while it starts (common practice; IEC 60034-12 limits it, from memory).
    /// </summary>
    [Fact]
    public void The_clamp_shows_a_multiple_of_the_plate_at_the_start()
    {
        var panel = new SimulatedPanel(Circuit.Compiled(), []);
        var amps = panel.Measure(Quantity.StartingAmps, TerminalId.Parse("F2:2"), TerminalId.Parse("F2:2"), [Starters.Press]).Number;
        (amps / Circuit.Device("M1").Given("amps").Number!.Value).ShouldBeInRange(4.5, 8.5);
        panel.Operate([Starters.Stop, Starters.StopReleased]);
        panel.Measure(Quantity.StartingAmps, TerminalId.Parse("F2:2"), TerminalId.Parse("F2:2"), []).Number.ShouldBeLessThan(0.5);
    }

    [Theory]
    [InlineData(null, "L1-L2-L3")]
    [InlineData("INC/sequence", "L1-L3-L2")]
    [InlineData("INC/L2-missing", "a phase is missing")]
    public void The_rotation_indicator_shows_the_order_of_the_phases(string? fault, string shown) =>
        (fault is null ? new SimulatedPanel(Circuit.Compiled(), []) : Panel(fault)).Look("INC", "rotation").ShouldBe(shown);

    /// <summary>Two phases exchanged turn the field, and the motor with it (Ferraris; common practice).</summary>
    [Fact]
    public void A_motor_that_turns_the_wrong_way_is_the_feeder_or_its_own_leads()
    {
        var journal = new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 in, M1 runs reverse");
        var before = journal.Diagnose();
        before.Units.Select(u => u.Unit).ShouldContain("INC");
        before.Units.Select(u => u.Suspects[0].Title).ShouldContain(t => t.Contains("exchanged on M1"));
        before.Proposals.ShouldContain(p => p.Look == "rotation");
        var result = journal.Looked("INC", "rotation", "L1-L3-L2").Diagnose();
        result.Units[0].Unit.ShouldBe("INC");
        result.Status.ShouldBe(DiagnosisStatus.Found);
        new Journal(Circuit)
            .Did(Starters.Press, "KM1 in, M1 runs reverse")
            .Looked("INC", "rotation", "L1-L2-L3")
            .Diagnose()
            .Units[0]
            .Suspects[0]
            .Fault!.Title.ShouldContain("exchanged");
    }

    /// <summary>Ohms of a sound panel with k taken for M: every value is a thousand times too large, no fault makes that.</summary>
    [Fact]
    public void K_taken_for_M_is_said_of_the_meter_and_not_of_the_circuit()
    {
        var panel = Panel("S2/13-14-open");
        panel.Isolate();
        var journal = new Journal(Circuit).Did(Starters.Press, "KM1 out, M1 stopped").Dead();
        foreach (var (from, to) in new[] { ("KM1:A1", "KM1:A2"), ("M1:U", "M1:V"), ("M1:V", "M1:W"), ("H2:X1", "H2:X2") })
        {
            var true_ = panel.Measure(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), []);
            journal.Ohms(from, to, true_.Kind == ReadingKind.Number ? 1000 * true_.Number : null);
        }

        var result = journal.Diagnose();
        result.Status.ShouldBe(DiagnosisStatus.Contradiction);
        result.Summary.ShouldContain("meter");
        result.WaysOut.ShouldContain(w => w.Contains("k taken for M"));
    }

    /// <summary>A meter that was found good is not suspected again; one that was found wrong takes its readings with it.</summary>
    [Fact]
    public void Readings_of_a_meter_that_was_found_wrong_do_not_count()
    {
        Journal Begin() =>
            new Journal(Circuit)
                .Add(new LiveWorkAcknowledged())
                .Did(Starters.Press, "KM1 out, M1 stopped")
                .Looked("F2", "flag", "not tripped");
        var clean = Begin().Diagnose();
        var spoilt = Begin().Volts("INC:L1", "INC:L2", 0).Volts("INC:L1", "INC:N", 0).Volts("F3:1", "INC:N", 0).Volts("F1:1", "INC:N", 0);
        spoilt.Diagnose().Summary.ShouldContain("rather the meter");
        var after = spoilt.Add(new MeterChecked(false)).Diagnose();
        after
            .Units.ToDictionary(u => u.Unit, u => Math.Round(u.Probability, 6))
            .ShouldBe(clean.Units.ToDictionary(u => u.Unit, u => Math.Round(u.Probability, 6)), ignoreOrder: true);
        var good = Begin()
            .Volts("INC:L1", "INC:L2", 0)
            .Volts("INC:L1", "INC:N", 0)
            .Volts("F3:1", "INC:N", 0)
            .Volts("F1:1", "INC:N", 0)
            .Add(new MeterChecked(true))
            .Diagnose();
        good.Summary.ShouldNotContain("rather the meter");
    }

    [Fact]
    public void Only_the_readings_of_that_meter_since_its_last_check_are_void()
    {
        Reading By(string meter) =>
            new(Quantity.Volts, TerminalId.Parse("F3:1"), TerminalId.Parse("INC:N"), [], ReadingValue.Of(230), meter);
        var entries = Stamped(By("A"), new MeterChecked(true, "A"), By("A"), By("B"), new MeterChecked(false, "A"), By("A")).ToList();
        JobState.Of(Circuit.Compiled(), entries).Void.Keys.ShouldBe([entries[2].Id]);
    }

    private static SimulatedPanel Panel(string fault) => new(Circuit.Compiled(), Starters.Fault(Circuit, fault).Alterations);

    private static Reading Insulation(double ohms) => new(Quantity.Insulation, Winding, Case, [], ReadingValue.Of(ohms));

    private static IEnumerable<JournalEntry> Stamped(params JournalEntry[] entries) =>
        [.. entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 })];
}
