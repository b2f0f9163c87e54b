using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Procedures;

/// <summary>What simulation finds out about a healthy design.</summary>
public class DesignReviewTests
{
    [Fact]
    public void An_ordinary_starter_has_nothing_to_mind() =>
        Starters.LineToNeutral.Compiled().DesignReview.Findings.ShouldAllBe(f => f.Kind == FindingKind.Note && f.Id == "earth-clears");

    /// <summary>
    /// Control between two phases of an earthed star: behind an earth fault beyond Stop the coil keeps 0.58 of its voltage, more than it
    /// drops out at (geometry; drop-out at 20 to 75 %, IEC 60947-4-1, from memory).
    /// </summary>
    [Fact]
    public void Between_two_phases_of_an_earthed_star_an_earth_fault_defeats_the_stop()
    {
        Starters
            .LineToLine.Compiled()
            .DesignReview.Findings.ShouldContain(f =>
                f.Id.StartsWith("earth-stop/S1/", StringComparison.Ordinal)
                && f.Text.Contains("230 V stay on KM1", StringComparison.Ordinal)
            );
        Starters
            .LineToNeutral.Compiled()
            .DesignReview.Findings.ShouldNotContain(f => f.Id.StartsWith("earth-stop/", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(ControlProtection.None, 37, true)]
    [InlineData(ControlProtection.None, 1.1, false)]
    [InlineData(ControlProtection.Fuse, 37, false)]
    public void Control_wires_behind_nothing_but_large_motor_fuses_are_found(ControlProtection protection, double kilowatts, bool found)
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Saw",
            ControlProtection = protection,
            MotorKilowatts = kilowatts,
            MotorAmps = 0,
        }.Build();
        circuit.Compiled().DesignReview.Findings.Any(f => f.Id == "unprotected/KM1").ShouldBe(found);
    }

    [Fact]
    public void A_brake_that_lifts_on_a_button_alone_is_found_with_the_limit_made()
    {
        var hoist = new UpDown
        {
            Tag = "H",
            Title = "Hoist",
            Brake = BrakeFeed.OwnContactor,
        };
        hoist.Build().Compiled().DesignReview.Findings.ShouldNotContain(f => f.Id.StartsWith("brake/", StringComparison.Ordinal));
        // A button beside the contacts of the direction contactors lifts the brake whether one of them has pulled in or not.
        var circuit = CircuitEditor.Apply(
            hoist.Build(),
            new InsertBeside("KM1:53-54", Beside.Parallel, "S9", "push-button", "13-14", "station", "Lift the brake")
        );
        circuit.Compiled().DesignReview.Findings.ShouldContain(f => f.Id == "brake/Y1");
    }

    [Fact]
    public void A_coil_of_another_voltage_is_named_with_both_voltages()
    {
        var circuit = CircuitEditor.Apply(Starters.LineToNeutral, new SetParameter("KM1", "coilVolts", "400"));
        var findings = circuit.Compiled().DesignReview.Findings;
        findings.ShouldContain(f =>
            f.Kind == FindingKind.CannotWork && f.Text.Contains("sees 231 V AC, it is rated 400 V", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_relay_set_below_what_the_motor_draws_is_found_to_trip()
    {
        var circuit = CircuitEditor.Apply(Starters.LineToNeutral, new SetParameter("F2", "settingAmps", "4"));
        circuit
            .Compiled()
            .DesignReview.Findings.ShouldContain(f =>
                f.Kind == FindingKind.CannotWork && f.Text.Contains("F2 tripped", StringComparison.Ordinal)
            );
    }

    /// <summary>A long control cable: the drop over the cores leaves a 48 V coil less than it needs to pull in.</summary>
    [Fact]
    public void A_control_cable_too_long_for_its_coil_is_found_to_buzz()
    {
        var circuit = new MultiStation
        {
            Tag = "L",
            Title = "Chain",
            Stations = 12,
            Cabling = StationCabling.HomeRun,
            Control = ControlSupply.Transformer,
            ControlVolts = 48,
        }.Build();
        circuit.Compiled().DesignReview.Findings.ShouldContain(f => f.Kind == FindingKind.CannotWork);
    }

    [Theory]
    [InlineData(true, false, false)]
    [InlineData(false, true, false)]
    [InlineData(false, false, true)]
    public void Contactors_that_can_close_together_are_found_with_one_of_them_stuck(bool electrical, bool mechanical, bool found)
    {
        var circuit = new Reversing
        {
            Tag = "R",
            Title = "Fan",
            ElectricalInterlock = electrical,
            MechanicalInterlock = mechanical,
            ButtonInterlock = true,
        }.Build();
        circuit.Compiled().DesignReview.Findings.Any(f => f.Id.StartsWith("stuck/", StringComparison.Ordinal)).ShouldBe(found);
    }

    [Fact]
    public void An_overload_contact_that_is_not_wired_is_found()
    {
        var circuit = CircuitEditor.Apply(Starters.LineToNeutral, new RemovePart("F2:95-96"));
        circuit.Compiled().DesignReview.Findings.ShouldContain(f => f.Id == "trip/F2" && f.Kind == FindingKind.Caution);
    }

    /// <summary>In the return, an earth fault between coil and contact bypasses it (one of the schools' reasons).</summary>
    [Theory]
    [InlineData(OverloadContactPlace.First, false)]
    [InlineData(OverloadContactPlace.BeforeCoil, false)]
    [InlineData(OverloadContactPlace.AfterCoil, true)]
    public void Only_in_the_return_does_an_earth_fault_bypass_the_overload_contact(OverloadContactPlace place, bool found)
    {
        var circuit = new DirectOnLine
        {
            Tag = "O",
            Title = "Belt",
            OverloadContact = place,
        }.Build();
        circuit.Compiled().DesignReview.Findings.Any(f => f.Id == "earth-bypass/F2").ShouldBe(found);
    }

    [Fact]
    public void A_restart_is_named_with_what_brings_it_about()
    {
        var texts = new ImpulseStarter { Tag = "I", Title = "Fan" }
            .Build()
            .Compiled()
            .DesignReview.Findings.Select(f => f.Text)
            .ToList();
        texts.ShouldContain(t => t.Contains("when the supply comes back", StringComparison.Ordinal));
        texts.ShouldContain(t => t.Contains("release (Emergency stop S0)", StringComparison.Ordinal));
        texts.ShouldContain(t => t.Contains("press Reset", StringComparison.Ordinal));
    }

    [Fact]
    public void A_stop_that_is_bridged_is_found_not_to_stop()
    {
        var circuit = CircuitEditor.Apply(
            Starters.LineToNeutral,
            new InsertBeside("S1:21-22", Beside.Parallel, "S9", "push-button", "21-22", "station", "Second Stop, in the wrong place")
        );
        circuit
            .Compiled()
            .DesignReview.Findings.ShouldContain(f =>
                f.Kind == FindingKind.CannotWork && f.Text.Contains("does not stop", StringComparison.Ordinal)
            );
    }
}
