using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// Stories of the power circuit, the machine and what feeds the control, typed in by hand: each must end at the right part, proved by what an
/// electrician takes for proof. All are common practice; currents by Kirchhoff and by the plate.
/// </summary>
public class MachineStoriesTests
{
    private const string Hums = "hums, does not start",
        Rough = "runs rough";

    private static readonly Step Press = new("S2", "pressed"),
        LetGo = new("S2", "released"),
        Stop = new("S1", "pressed"),
        StopLetGo = new("S1", "released");

    private static OperationSeen Seen(Step step, params (string Device, string Appearance)[] seen) =>
        new([step], seen.ToImmutableSortedDictionary(s => s.Device, s => s.Appearance, StringComparer.Ordinal));

    private static DiagnosisResult Ends(Journal journal, string unit)
    {
        var result = journal.Diagnose();
        result.Units.First(u => u.Unit.Length > 0).Unit.ShouldBe(unit, $"{result.Summary}");
        return result;
    }

    private static void IsProved(Journal journal, string unit)
    {
        var result = Ends(journal, unit);
        result.Status.ShouldBe(DiagnosisStatus.Found, $"{result.Summary}");
    }

    /// <summary>One of six leads off: no current in it, more than before in the other two, and the cable core reads open.</summary>
    [Fact]
    public void A_star_delta_motor_that_ran_growls_one_lead_carries_nothing_and_its_core_reads_open() =>
        IsProved(
            new Journal(new StarDelta { Tag = "D", Title = "Fan" }.Build())
                .Add(Seen(Press, ("KM1", "in"), ("KM3", "in"), ("M1", "runs in star")))
                .Add(Seen(LetGo, ("KM1", "in"), ("KM3", "in"), ("M1", "runs in star")))
                .Add(Seen(Step.Wait(30), ("KM2", "in"), ("KM3", "out"), ("M1", "runs")))
                .Add(Seen(Step.Wait(600), ("KM1", "in"), ("KM2", "in"), ("M1", Rough)))
                .Amps("F2:2", 11.4)
                .Amps("F2:4", 0)
                .Amps("F2:6", 14.2)
                .Did(Stop, "KM1 out, KM2 out, M1 stopped")
                .Did(StopLetGo, "KM1 out, M1 stopped")
                .Dead()
                .Ohms("X1:4L1", "X1:4L2", null, new Step("KM3", "in"))
                .Ohms("X1:4L2", "M1:V1", null)
                .Ohms("M1:V1", "M1:V2", 0.75),
            "4L2.2"
        );

    [Fact]
    public void A_motor_that_ran_growls_one_line_carries_nothing_and_its_fuse_reads_open() =>
        IsProved(
            new Journal(Starters.LineToNeutral)
                .Did(Press, "KM1 in, M1 runs")
                .Did(LetGo, "KM1 in, M1 runs")
                .Add(Seen(Step.Wait(60), ("KM1", "in"), ("M1", Rough)))
                .Amps("F2:4", 0)
                .Amps("F2:2", 10.9)
                .Volts("F1:3", "INC:N", 231)
                .Did(Stop, "KM1 out, M1 stopped")
                .Did(StopLetGo, "KM1 out, M1 stopped")
                .Dead()
                .Ohms("F1:3", "F1:4", null),
            "F1"
        );

    /// <summary>
    /// Three elements in star, one burnt through: nothing in its line, and 86 % in the other two (circuit theory: root of three over two).
    /// </summary>
    [Fact]
    public void A_heater_that_heats_weakly_has_a_line_without_current_and_a_good_cable() => Ends(new Journal(
                new DirectOnLine
                {
                    Tag = "H",
                    Title = "Kiln heater",
                    Driven = Driven.HeaterBank,
                }.Build()
            ).Did(Press, "KM1 in, E1 heats weakly").Did(LetGo, "KM1 in, E1 heats weakly").Amps("F2:2", 0).Amps("F2:4", 4.9).Amps("F2:6", 4.9).Did(Stop, "KM1 out, E1 cold").Did(StopLetGo, "KM1 out, E1 cold").Dead().Ohms("E1:U", "E1:V", null).Ohms("E1:V", "E1:W", 82), "E1");

    /// <summary>Fed, and gives nothing: that is the rectifier, whatever has failed inside.</summary>
    [Fact]
    public void The_brake_stays_on_and_its_rectifier_has_400_V_in_and_nothing_out()
    {
        var (up, down) = (new Step("S13", "pressed"), new Step("S14", "pressed"));
        IsProved(
            new Journal(new UpDown { Tag = "U", Title = "Hoist" }.Build())
                .Did(Press, "KA1 in")
                .Did(LetGo, "KA1 in")
                .Add(Seen(up, ("KM1", "in"), ("M1", Hums), ("Y1", "applied")))
                .Did(new Step("S13", "released"), "KM1 out, M1 stopped")
                .Volts("V1:1", "V1:2", 398, up)
                .DcVolts("V1:L+", "V1:M", 0, up)
                .DcVolts("V1:L+", "V1:M", 0, down),
            "V1"
        );
    }

    [Fact]
    public void The_24_V_supply_is_fed_and_gives_nothing() => IsProved(new Journal(
                new DirectOnLine
                {
                    Tag = "C",
                    Title = "Belt",
                    Control = ControlSupply.DcSupply,
                    ControlRelay = true,
                }.Build()
            ).Did(Press, "KA1 out, KM1 out, M1 stopped, PS1 off").Volts("PS1:L", "PS1:N", 399).Volts("F4:2", "F4:4", 399).DcVolts("PS1:L+", "PS1:M", 0), "PS1");

    /// <summary>Of a bad joint before a 24 V relay the volts say how many ohms it has; measured, they are that many.</summary>
    [Fact]
    public void A_relay_that_gets_16_V_has_150_ohm_in_its_feed()
    {
        var journal = new Journal(
            new DirectOnLine
            {
                Tag = "C",
                Title = "Belt",
                Control = ControlSupply.DcSupply,
                ControlRelay = true,
            }.Build()
        ).Did(Press, "KA1 out, KM1 out, M1 stopped, PS1 DC OK").Did(LetGo, "KA1 out, KM1 out, M1 stopped, PS1 DC OK").Looked("F2", "flag", "not tripped").DcVolts("KA1:13", "PS1:M", 24).DcVolts("X1:8", "PS1:M", 16.5, Press).Dead().Ohms("PS1:L+", "F3:1", 150);
        Ends(journal, "4.1").Units[0].Probability.ShouldBeGreaterThan(0.6);
        IsProved(journal.Ohms("PS1:L+", "F3:1", 151).Ohms("F3:1", "F3:2", 0.1), "4.1");
    }

    [Fact]
    public void A_grinder_hums_one_line_of_its_breaker_carries_nothing_and_that_pole_reads_open() =>
        IsProved(
            new Journal(new ManualStarter { Tag = "G", Title = "Grinder" }.Build())
                .Add(Seen(new Step("Q2", "on"), ("M1", Hums)))
                .Amps("Q2:6", 0)
                .Amps("Q2:2", 17)
                .Did(new Step("Q2", "off"), "M1 stopped")
                .Dead()
                .Ohms("Q2:5", "Q2:6", null, new Step("Q2", "on")),
            "Q2"
        );

    [Fact]
    public void The_float_calls_and_its_contact_passes_nothing_on()
    {
        var calls = new Step("B1", "operated");
        IsProved(new Journal(
                new DirectOnLine
                {
                    Tag = "W",
                    Title = "Pump",
                    Mode = StartMode.TwoWire,
                }.Build()
            ).Did(calls, "KM1 out, M1 stopped").Volts("B1:13", "INC:N", 230).Volts("B1:14", "INC:N", 0.6).Dead().Ohms("B1:13", "B1:14", null, calls), "B1");
    }

    /// <summary>The neutral goes back through the contactor and the overload: a pole that stays open there takes the whole voltage.</summary>
    [Fact]
    public void A_single_phase_fan_gets_no_current_and_the_voltage_stands_across_a_pole_in_its_return() =>
        IsProved(
            new Journal(new SinglePhase { Tag = "S", Title = "Fan" }.Build())
                .Did(Press, "KM1 in, M1 stopped")
                .Did(LetGo, "KM1 in, M1 stopped")
                .Amps("F2:2", 0)
                .Volts("F2:2", "INC:N", 230)
                .Volts("KM1:5", "KM1:6", 229),
            "KM1"
        );

    [Fact]
    public void A_motor_that_hums_with_three_equal_currents_and_a_stuck_shaft_has_a_jammed_load() =>
        IsProved(
            new Journal(Starters.LineToNeutral)
                .Add(Seen(Press, ("KM1", "in"), ("M1", Hums)))
                .Did(LetGo, "KM1 in")
                .Amps("F2:2", 36)
                .Amps("F2:4", 36)
                .Amps("F2:6", 36)
                .Did(Stop, "KM1 out, M1 stopped")
                .Did(StopLetGo, "KM1 out, M1 stopped")
                .Dead()
                .Looked("M1", "shaft", "jammed"),
            "M1"
        );

    [Fact]
    public void It_runs_one_way_and_hums_the_other_and_a_pole_of_that_contactor_stays_open()
    {
        var other = new Step("S3", "pressed");
        IsProved(
            new Journal(new Reversing { Tag = "R", Title = "Kiln fan" }.Build())
                .Did(Press, "KM1 in, M1 runs")
                .Did(LetGo, "KM1 in, M1 runs")
                .Did(Stop, "KM1 out, M1 stopped")
                .Did(StopLetGo, "KM1 out, M1 stopped")
                .Add(Seen(other, ("KM2", "in"), ("M1", Hums)))
                .Did(new Step("S3", "released"), "KM2 in")
                .Did(Stop, "KM2 out, M1 stopped")
                .Did(StopLetGo, "KM2 out, M1 stopped")
                .Dead()
                .Ohms("KM2:3", "KM2:4", null, new Step("KM2", "in")),
            "KM2"
        );
    }
}
