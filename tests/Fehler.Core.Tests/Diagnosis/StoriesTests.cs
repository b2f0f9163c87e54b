using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Stories of the trade, typed in by hand: each must end at the right part. All are common practice.</summary>
public class StoriesTests
{
    private static readonly Step Held = Starters.Press;

    private static Journal LineToNeutral() => new(Starters.LineToNeutral);

    private static Journal LineToLine() => new(Starters.LineToLine);

    [Fact]
    public void Nothing_happens_and_the_control_fuse_passes_nothing_on()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped, H2 off")
            .Looked("F2", "flag", "not tripped")
            .Volts("F3:1", "INC:N", 231)
            .Volts("F3:2", "INC:N", 2.1)
            .Dead()
            .Ohms("F3:1", "F3:2", null)
            .Diagnose();
        Top(result, "F3");
        result.AskWhy.ShouldContain("blows because of something");
        // A blown fuse is a consequence: what may have blown it stays on the list.
        result.Units.Select(u => u.Unit).ShouldContain("KM1");
    }

    [Fact]
    public void Full_voltage_at_the_coil_and_the_contactor_stays_out_and_the_coil_reads_OL()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Volts("KM1:A1", "KM1:A2", 229, Held)
            .Dead()
            .Ohms("KM1:A1", "KM1:A2", null)
            .Diagnose();
        Top(result, "KM1").Suspects[0].Fault!.Id.ShouldBe("KM1/A1-A2-open");
        result.Status.ShouldBe(DiagnosisStatus.Found);
    }

    [Fact]
    public void Full_voltage_at_the_coil_the_coil_reads_good_and_the_contactor_stays_out_it_is_jammed()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Looked("KM1", "coil-label", "as drawn")
            .Volts("KM1:A1", "KM1:A2", 230, Held)
            .Dead()
            .Ohms("KM1:A1", "KM1:A2", 560)
            .Diagnose();
        Top(result, "KM1").Suspects[0].Fault!.Id.ShouldBe("KM1/jammed");
    }

    [Fact]
    public void The_flag_is_out_and_the_shaft_is_jammed_the_trip_is_not_called_the_fault()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped, H2 on")
            .Looked("F2", "flag", "tripped")
            .Dead()
            .Looked("M1", "shaft", "jammed")
            .Diagnose();
        Top(result, "M1").Suspects[0].Fault!.Id.ShouldBe("M1/stalled");
    }

    [Fact]
    public void It_hums_and_does_not_start_many_things_are_possible_all_of_them_in_the_power_circuit_or_the_load()
    {
        var seen = System
            .Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty.Add("KM1", "in")
            .Add("M1", "hums, does not start");
        var result = LineToNeutral().Add(new Core.Jobs.OperationSeen([Held], seen)).Diagnose();
        result.Units.Count(u => u.Probability > 0.01).ShouldBeGreaterThan(3);
        result.Units.Where(u => u.Probability > 0.05).Select(u => u.Unit).ShouldNotContain("S1");
    }

    [Fact]
    public void Hums_and_a_pole_that_stays_open_shows_in_the_reading_across_it()
    {
        var seen = System
            .Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty.Add("KM1", "in")
            .Add("M1", "hums, does not start");
        var result = LineToNeutral()
            .Add(new Core.Jobs.OperationSeen([Held], seen))
            .Volts("KM1:5", "INC:N", 230, Held)
            .Volts("KM1:5", "KM1:6", 341, Held)
            .Volts("KM1:1", "KM1:2", 0.4, Held)
            .Diagnose();
        Top(result, "KM1").Suspects[0].Fault!.Id.ShouldBe("KM1/5-6-open");
    }

    [Fact]
    public void It_will_not_stop_with_stop_pressed_and_the_coil_is_dead_the_contactor_sticks()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Starters.Stop, "KM1 in, M1 runs")
            .Volts("KM1:A1", "KM1:A2", 0.3, Starters.Stop)
            .Diagnose();
        Top(result, "KM1");
        result.Units[0].Suspects[0].Fault!.Id.ShouldBeOneOf("KM1/sticks", "KM1/all-welded");
    }

    [Fact]
    public void It_will_not_stop_and_the_coil_still_has_voltage_the_stop_does_not_open()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Starters.Stop, "KM1 in, M1 runs")
            .Volts("KM1:A1", "KM1:A2", 229, Starters.Stop)
            .Volts("S1:21", "S1:22", 0.1, Starters.Stop)
            .Diagnose();
        Top(result, "S1");
    }

    [Fact]
    public void It_starts_by_itself_when_the_supply_comes_on_the_start_contact_is_closed()
    {
        var result = LineToNeutral()
            .Did(new Step("INC", "lost"), "KM1 out, M1 stopped")
            .Did(new Step("INC", "on"), "KM1 in, M1 runs")
            .Diagnose();
        result.Units.Where(u => u.Probability > 0.1).Select(u => u.Unit).ShouldContain("S2");
    }

    [Fact]
    public void The_motor_runs_and_the_run_lamp_stays_dark()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 in, M1 runs, H1 off")
            .Did(Starters.Release, "KM1 in, M1 runs, H1 off")
            .Volts("H1:X1", "H1:X2", 229, Held)
            .Diagnose();
        Top(result, "H1");
    }

    [Fact]
    public void The_emergency_stop_was_left_operated()
    {
        var result = LineToNeutral().Did(Starters.Press, "KM1 out, M1 stopped").Looked("S0", "operator", "operated").Diagnose();
        Top(result, "S0").Suspects[0].Fault!.Id.ShouldBe("S0/left-operated");
        result.Units[0].Probability.ShouldBeGreaterThan(0.85);
        result.Units[0].Suspects[0].Fault!.Remedy.ShouldContain("why");
    }

    /// <summary>The lost phase of a line-to-line control may be fed back: to earth it reads, to the other phase it does not.</summary>
    [Fact]
    public void Line_to_line_with_a_phase_lost_the_coil_gets_nothing()
    {
        var result = LineToLine()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Looked("Q1", "handle", "on")
            .Volts("INC:L1", "INC:L2", 231)
            .Volts("INC:L1", "INC:N", 0.4)
            .Volts("INC:L2", "INC:N", 230)
            .Diagnose();
        Top(result, "INC").Suspects[0].Fault!.Id.ShouldBe("INC/L1-missing");
    }

    [Fact]
    public void Line_to_line_with_the_overload_contact_in_the_return_open_the_voltage_stands_across_it()
    {
        var result = LineToLine()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Volts("KM1:A1", "F1:4", 398, Held)
            .Volts("F2:95", "F2:96", 397, Held)
            .Diagnose();
        Top(result, "F2").Suspects[0].Fault!.Id.ShouldStartWith("F2/95-96");
    }

    [Fact]
    public void The_wire_left_off_after_a_test_is_the_wire_that_does_not_beep()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Looked("S0", "operator", "released")
            .Volts("F2:96", "INC:N", 230, Held)
            .Volts("KM1:A1", "INC:N", 1.5, Held)
            .Dead()
            .Beep("F2:96", "KM1:A1", false)
            .Diagnose();
        Top(result, "5.1");
        result.Status.ShouldBe(DiagnosisStatus.Found);
    }

    [Fact]
    public void A_beep_through_everything_leaves_the_dead_neutral()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "not tripped")
            .Looked("S0", "operator", "released")
            .Volts("KM1:A1", "INC:N", 230, Held)
            .Volts("KM1:A2", "INC:N", 229, Held)
            .Diagnose();
        result.Units[0].Unit.ShouldStartWith("N.");
    }

    [Fact]
    public void It_cured_itself_and_nothing_is_found_nothing_wrong_now_leads()
    {
        var result = LineToNeutral()
            .Did(Starters.Press, "KM1 in, M1 runs, H1 on")
            .Did(Starters.Release, "KM1 in, M1 runs, H1 on")
            .Did(Step.Wait(600), "KM1 in, M1 runs, H1 on")
            .Did(Starters.Stop, "KM1 out, M1 stopped, H1 off")
            .Looked("F2", "flag", "not tripped")
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Found);
        result.Units.ShouldContain(u => u.Unit.Length == 0);
    }

    private static SuspectUnit Top(DiagnosisResult result, string unit)
    {
        var top = result.Units.First(u => u.Unit.Length > 0);
        top.Unit.ShouldBe(unit, $"{result.Summary}");
        return top;
    }
}
