using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Devices;

/// <summary>Fuses and breakers in the operating circuit.</summary>
public class ProtectionTests
{
    /// <summary>Common practice: a motor's start does not blow its fuses, a short circuit does.</summary>
    [Theory]
    [InlineData(4, 8.1)]
    [InlineData(11, 21.5)]
    [InlineData(30, 55)]
    public void A_locked_rotor_does_not_blow_the_fuses_at_once(double kilowatts, double amps)
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Protection",
            MotorKilowatts = kilowatts,
            MotorAmps = amps,
        }.Build();
        var simulator = Starters.With(circuit, new ParameterIs("M1", "load", 3));
        simulator.Do(simulator.Start().State, Starters.Press).Events.ShouldBeEmpty();
    }

    [Fact]
    public void A_short_circuit_between_motor_leads_opens_the_protection_and_leaves_the_control_dead_or_humming()
    {
        var simulator = Starters.With(Starters.LineToNeutral, new Bridge(TerminalId.Parse("M1:U"), TerminalId.Parse("M1:V"), 0.1));
        var outcome = simulator.Do(simulator.Start().State, Starters.Press);
        outcome.Events.ShouldContain("F1 opens on overcurrent");
        outcome.Appearances["M1"].ShouldNotBe("runs");
    }

    [Fact]
    public void A_breaker_opens_all_poles_when_one_is_short_circuited()
    {
        var circuit = new DirectOnLine
        {
            Tag = "B",
            Title = "Breaker",
            Protection = MotorProtection.Breaker,
        }.Build();
        var simulator = Starters.With(circuit, new Bridge(TerminalId.Parse("KM1:2"), null, 0.05));
        var outcome = simulator.Do(simulator.Start().State, Starters.Press);
        outcome.Events.ShouldContain("F1 opens on overcurrent");
        foreach (var terminal in new[] { "F1:2", "F1:4", "F1:6" })
        {
            outcome.Volts(terminal, "INC:N").ShouldBeLessThan(10, terminal);
        }
    }

    [Fact]
    public void A_tripped_breaker_switched_on_again_without_its_cause_runs()
    {
        var circuit = new DirectOnLine
        {
            Tag = "B",
            Title = "Breaker",
            Protection = MotorProtection.Breaker,
        }.Build();
        var simulator = Starters.With(circuit, "F1/tripped");
        simulator.Start().Volts("F1:2", "INC:N").ShouldBeLessThan(10);
        var on = simulator.Do(simulator.Start().State, [new Step("F1", "off"), new Step("F1", "on"), Starters.Press]);
        on.Appearances["M1"].ShouldBe("runs");
    }

    [Theory]
    [InlineData(0.85, "in")]
    [InlineData(0.6, "buzzes")]
    [InlineData(0.3, "out")]
    public void A_contactor_pulls_in_from_85_percent_buzzes_on_too_little_and_stays_out_on_less(double share, string seen)
    {
        // IEC 60947-4-1 (from memory): must pull in from 85 % of rated coil voltage.
        var simulator = Starters.With(Starters.LineToNeutral, new ParameterIs("INC", "lineVolts", 400 * share));
        simulator.Do(simulator.Start().State, Starters.Press).Appearances["KM1"].ShouldBe(seen);
    }

    [Theory]
    [InlineData(0.8, "in")]
    [InlineData(0.15, "out")]
    public void A_running_contactor_holds_on_a_dip_and_drops_out_below_20_percent(double share, string seen)
    {
        // IEC 60947-4-1 (from memory): drops out between 20 and 75 %.
        var running = Starters.Healthy(Starters.LineToNeutral).Running();
        var dip = Starters.With(Starters.LineToNeutral, new ParameterIs("INC", "lineVolts", 400 * share));
        dip.Observe(running.State).Appearances["KM1"].ShouldBe(seen);
    }

    [Theory]
    [InlineData("led", "OL")]
    [InlineData("filament", "number")]
    public void A_led_lamp_reads_OL_and_a_cold_filament_about_a_tenth_of_hot(string lamp, string reads)
    {
        var circuit = new DirectOnLine
        {
            Tag = "L",
            Title = "Lamp",
            FilamentLamps = lamp == "filament",
        }.Build();
        var simulator = Starters.Healthy(circuit);
        var state = simulator.Do(simulator.Start().State, new Step("Q1", "off")).State;
        var ohms = simulator.Network.Ohms(state, TerminalId.Parse("H2:X1"), TerminalId.Parse("H2:X2"));
        if (reads == "OL")
        {
            ohms.IsOpen.ShouldBeTrue();
        }
        else
        {
            ohms.Value.ShouldBe(0.1 * 230 * 230 / 1.5, 100);
        }
    }
}
