using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// Stories of the control circuit typed in by hand, on circuits that start by other things than a button: what a float, a timer or an interlock
/// does is set up for the reading, and the reading proves it. All are common practice: across what should be closed and is open stands the full
/// voltage, and what has its voltage and stays dark is dead.
/// </summary>
public class ControlStoriesTests
{
    private static readonly Step FloatUp = new("B1", "operated"),
        FloatDown = new("B1", "rest");

    private static Circuit Pump { get; } =
        new DirectOnLine
        {
            Tag = "P-1",
            Title = "Sump pump",
            Mode = StartMode.TwoWire,
        }.Build();

    private static Journal PumpThatStandsStill() =>
        new Journal(Pump).Did(FloatUp, "KM1 out, M1 stopped, H1 off").Did(FloatDown, "KM1 out, M1 stopped");

    private static void IsProved(Journal journal, string unit)
    {
        var result = journal.Diagnose();
        result.Units.First(u => u.Unit.Length > 0).Unit.ShouldBe(unit, $"{result.Summary}");
        result.Status.ShouldBe(DiagnosisStatus.Found, $"{result.Summary}");
    }

    /// <summary>A pump that does not start tells little while its float hangs down: it is lifted for the reading, and let down after it.</summary>
    [Fact]
    public void The_float_is_let_down_after_the_reading()
    {
        var read = PumpThatStandsStill().Volts("B1:13", "B1:14", 230, FloatUp).Diagnose();
        read.Standing.PositionOf(Pump, Pump.Device("B1")).ShouldBe("rest");
    }

    [Fact]
    public void The_float_is_up_and_its_contact_passes_nothing() =>
        IsProved(PumpThatStandsStill().Volts("B1:13", "B1:14", 230, FloatUp), "B1");

    /// <summary>
    /// Left pressed, or its contact burnt: the same voltage stands across it, and a glance tells before anybody asks who pressed it.
    /// </summary>
    [Theory]
    [InlineData("released", "Contact 11-12")]
    [InlineData("operated", "was left operated")]
    public void The_emergency_stop_has_the_full_voltage_across_it_and_is_looked_at(string seen, string title)
    {
        var across = PumpThatStandsStill().Volts("S0:11", "S0:12", 229, FloatUp);
        var asked = across.Diagnose();
        asked.Units[0].Unit.ShouldBe("S0");
        (asked.Proposals[0].Device, asked.Proposals[0].Look).ShouldBe(("S0", "operator"));
        var known = across.Looked("S0", "operator", seen).Diagnose().Units[0];
        known.Unit.ShouldBe("S0");
        known.Suspects[0].Title.ToString().ShouldContain(title);
    }

    /// <summary>Its electronics read OL sound or dead: that it stays dark with its voltage is the proof.</summary>
    [Fact]
    public void A_lamp_that_has_its_voltage_and_stays_dark_is_dead()
    {
        var runs = new Journal(Pump)
            .Did(FloatUp, "KM1 in, M1 runs, H1 off")
            .Did(Step.Wait(60), "KM1 in, M1 runs, H1 off")
            .Did(FloatDown, "KM1 out, M1 stopped, H1 off");
        var asked = runs.Diagnose();
        asked.Status.ShouldNotBe(DiagnosisStatus.Found, "the wire to it is as likely");
        asked.Proposals.ShouldContain(p => p.Kind == ProposalKind.Reading && p.Setup.Held.Contains(FloatUp));
        IsProved(runs.Volts("H1:X1", "INC:N", 230, FloatUp).Volts("H1:X1", "H1:X2", 231, FloatUp), "H1");
    }

    /// <summary>
    /// After work in the panel the neutral to the coil and the wire to the float came back on each other's terminals: the coil pulls in all the
    /// same, the other way round, and the lamp has the line at both ends.
    /// </summary>
    [Fact]
    public void Neutral_and_line_exchanged_is_found_though_the_pump_runs()
    {
        var result = new Journal(Pump)
            .Add(new Told(Circumstance.WorkedOn))
            .Did(FloatUp, "KM1 in, M1 runs, H1 off")
            .Did(FloatDown, "KM1 out, M1 stopped, H1 off")
            .Volts("H1:X1", "H1:X2", 0.1, FloatUp)
            .Volts("H1:X2", "INC:N", 229, FloatUp)
            .Volts("F2:95", "INC:N", 0.1, FloatUp)
            .Dead()
            .Ohms("F2:95", "INC:N", 0.1)
            .Ohms("H1:X2", "INC:N", null)
            .Diagnose();
        var leading = result.Units.First(u => u.Unit.Length > 0);
        leading.Suspects[0].Fault!.IsWiring.ShouldBeTrue($"{result.Summary}");
        leading.Suspects[0].Title.ToString().ShouldContain("exchanged");
    }

    [Fact]
    public void The_interlock_of_the_other_direction_passes_nothing()
    {
        var circuit = new Reversing { Tag = "R-1", Title = "Conveyor" }.Build();
        var start = new Step("S2", "pressed");
        IsProved(
            new Journal(circuit)
                .Did(start, "KM1 out, KM2 out, M1 stopped")
                .Did(new Step("S2", "released"), "KM1 out, KM2 out, M1 stopped")
                .Volts("KM2:21", "KM2:22", 230, start)
                .Dead()
                .Ohms("KM2:21", "KM2:22", null),
            "KM2"
        );
    }

    /// <summary>It runs in star, drops the star contactor and never closes the delta: the timer's other contact has the voltage across it.</summary>
    [Fact]
    public void The_timer_opens_star_and_does_not_close_delta()
    {
        var circuit = new StarDelta { Tag = "D-1", Title = "Chipper" }.Build();
        IsProved(
            new Journal(circuit)
                .Did(new Step("S2", "pressed"), "KM1 in, KM3 in, M1 runs in star")
                .Did(new Step("S2", "released"), "KM1 in, KM3 in, M1 runs in star")
                .Did(Step.Wait(30), "KM1 in, KM2 out, KM3 out, M1 stopped")
                .Volts("KT1:17", "KT1:28", 230),
            "KT1"
        );
    }
}
