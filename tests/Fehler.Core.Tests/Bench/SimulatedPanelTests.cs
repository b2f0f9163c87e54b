using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Bench;

public class SimulatedPanelTests
{
    [Fact]
    public void It_is_operated_looked_at_and_measured_like_the_real_one()
    {
        var panel = new SimulatedPanel(Starters.LineToNeutral.Compiled(), Starters.Fault(Starters.LineToNeutral, "F2/tripped").Alterations);
        panel.Look("F2", "flag").ShouldBe("tripped");
        panel.Operate([Starters.Press, Starters.Release])["KM1"].ShouldBe("out");
        panel.Operate([new Step("F2", "reset")]);
        panel.Look("F2", "flag").ShouldBe("not tripped");
        panel.Operate([Starters.Press, Starters.Release])["KM1"].ShouldBe("in");
        panel.Measure(Quantity.Volts, TerminalId.Parse("KM1:A1"), TerminalId.Parse("INC:N"), []).Number.ShouldBe(230, 5);
    }

    [Fact]
    public void Isolated_it_reads_resistances_and_its_meter_scatters_one_percent()
    {
        var panel = new SimulatedPanel(Starters.LineToNeutral.Compiled(), []);
        panel.Isolate();
        var readings = Enumerable
            .Range(0, 50)
            .Select(_ => panel.Measure(Quantity.Ohms, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), []).Number)
            .ToList();
        readings.Average().ShouldBe(397, 4);
        readings.Max().ShouldBeGreaterThan(readings.Min());
        (readings.Max() / readings.Min()).ShouldBeLessThan(1.03);
        panel.Measure(Quantity.Continuity, TerminalId.Parse("S1:21"), TerminalId.Parse("S1:22"), []).Kind.ShouldBe(ReadingKind.Beep);
        panel
            .Measure(Quantity.Continuity, TerminalId.Parse("S1:21"), TerminalId.Parse("S1:22"), [Starters.Stop])
            .Kind.ShouldBe(ReadingKind.Silent);
    }

    /// <summary>Common practice: with a meter of 10 Mohm a floating wire shows volts that are not there.</summary>
    [Fact]
    public void A_floating_point_shows_a_ghost_voltage_against_a_live_phase()
    {
        var panel = new SimulatedPanel(Starters.LineToLine.Compiled(), [new ConductorOpen("2L1.2")]);
        panel.Measure(Quantity.Volts, TerminalId.Parse("F3:1"), TerminalId.Parse("F1:4"), []).Number.ShouldBeInRange(5, 240);
    }

    [Fact]
    public void A_guided_run_ends_at_the_unit_and_every_entry_would_be_taken_by_a_job()
    {
        var run = GuidedRun.On(Starters.LineToNeutral.Compiled(), Starters.Fault(Starters.LineToNeutral, "KM1/13-14-open"));
        run.Result.Units[0].Unit.ShouldBe("KM1");
        run.Readings.ShouldBeLessThan(8);
        for (var i = 0; i < run.Entries.Count; i++)
        {
            JobState.Of(Starters.LineToNeutral.Compiled(), run.Entries.Take(i)).Refuse(run.Entries[i]).ShouldBeNull($"{run.Entries[i]}");
        }
    }
}
