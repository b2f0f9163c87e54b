using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Families;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Electrical;

/// <summary>Supply systems, transformers and direct-current supplies: geometry and facts of the trade.</summary>
public class ControlSupplyTests
{
    /// <summary>240 V high-leg delta: 120 V to neutral on two legs, 208 V on the third (geometry: 240 · sqrt 3 / 2).</summary>
    [Theory]
    [InlineData("INC:L1", 120)]
    [InlineData("INC:L2", 208)]
    [InlineData("INC:L3", 120)]
    public void A_high_leg_delta_has_208_V_on_one_leg(string leg, double volts) => new Operated(
            new DirectOnLine
            {
                Tag = "H",
                Title = "Pump",
                System = SupplySystem.HighLeg,
                LineVolts = 240,
                Frequency = 60,
                MotorRpm = 1750,
            }.Build()
        ).Volts(leg, "INC:N").ShouldBe(volts, 1.5);

    [Theory]
    [InlineData(SupplySystem.Star, 277, 277, 277)]
    [InlineData(SupplySystem.CornerEarthed, 480, 0, 480)]
    [InlineData(SupplySystem.Delta, 277, 277, 277)]
    public void Volts_to_earth_follow_from_how_the_supply_is_earthed(SupplySystem system, double l1, double l2, double l3)
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "H",
                Title = "Saw",
                System = system,
                LineVolts = 480,
                Frequency = 60,
                MotorRpm = 1750,
                Control = ControlSupply.LineToLine,
            }.Build()
        );
        new[] { ("INC:L1", l1), ("INC:L2", l2), ("INC:L3", l3) }
            .ToList()
            .ForEach(x => o.Volts(x.Item1, "INC:PE").ShouldBe(x.Item2, 15, x.Item1));
        o.Volts("INC:L1", "INC:L2").ShouldBe(480, 3);
    }

    /// <summary>
    /// Unearthed delta: an earth fault on one line raises the others to the full line voltage and blows nothing (circuit theory).
    /// </summary>
    [Fact]
    public void An_earth_fault_on_an_unearthed_delta_is_silent_and_raises_the_other_lines()
    {
        var circuit = new DirectOnLine
        {
            Tag = "H",
            Title = "Saw",
            System = SupplySystem.Delta,
            LineVolts = 480,
            Frequency = 60,
            MotorRpm = 1750,
            Control = ControlSupply.LineToLine,
        }.Build();
        var o = new Operated(circuit, new Bridge(TerminalId.Parse("F1:2"), null, 0.5));
        o.Outcome.Events.ShouldBeEmpty();
        o.Volts("INC:L2", "INC:PE").ShouldBe(480, 5);
    }

    /// <summary>A control transformer gives some 5 % above its rated voltage unloaded (common practice) and sags under a pull-in.</summary>
    [Fact]
    public void A_control_transformer_gives_a_little_more_unloaded_and_sags_when_loaded()
    {
        var circuit = new DirectOnLine
        {
            Tag = "T",
            Title = "Belt",
            Control = ControlSupply.Transformer,
            ControlVolts = 120,
        }.Build();
        var rest = new Operated(circuit);
        rest.Volts("T1:3", "T1:4").ShouldBe(126, 2);
        rest.Do("S2 pressed").Volts("T1:3", "T1:4").ShouldBeInRange(115, 125.5);
    }

    /// <summary>
    /// A lost phase in the primary: the transformer's winding feeds it back, so that it reads full to earth behind the open fuse and almost
    /// nothing to the other phase.
    /// </summary>
    [Fact]
    public void A_transformer_feeds_a_lost_phase_back()
    {
        var circuit = new DirectOnLine
        {
            Tag = "T",
            Title = "Belt",
            Control = ControlSupply.Transformer,
            ControlVolts = 110,
        }.Build();
        var o = new Operated(circuit, "F4/3-4-blown");
        o.Volts("F4:4", "INC:PE").ShouldBe(231, 12);
        o.Volts("F4:4", "F4:2").ShouldBeLessThan(5);
        o.Volts("T1:3", "T1:4").ShouldBeLessThan(3);
    }

    [Fact]
    public void A_centre_tapped_secondary_has_half_the_voltage_to_earth_on_each_side()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "T",
                Title = "Belt",
                Control = ControlSupply.Transformer,
                ControlVolts = 110,
                Earthing = ControlEarthing.CentreTap,
            }.Build()
        );
        o.Volts("T1:3", "INC:PE").ShouldBe(58, 2);
        o.Volts("T1:4", "INC:PE").ShouldBe(58, 2);
    }

    [Theory]
    [InlineData(ControlEarthing.Earthed, true)]
    [InlineData(ControlEarthing.Unearthed, false)]
    public void An_earth_fault_blows_the_fuse_of_an_earthed_control_supply_and_is_silent_on_a_floating_one(
        ControlEarthing earthing,
        bool blows
    )
    {
        var circuit = new DirectOnLine
        {
            Tag = "T",
            Title = "Belt",
            Control = ControlSupply.Transformer,
            ControlVolts = 110,
            Earthing = earthing,
        }.Build();
        var o = new Operated(circuit, new Bridge(TerminalId.Parse("S1:21"), null, 0.3));
        // A small transformer gives some ten ampere into a short circuit: its fuse takes a while.
        if (o.Outcome.Events.IsEmpty)
        {
            o.Do("wait 600");
        }

        o.Outcome.Events.Any(e => e.Contains("F3", StringComparison.Ordinal)).ShouldBe(blows);
        o.Do("S2 pressed", "S2 released")["M1"].ShouldBe(blows ? "stopped" : "runs");
    }

    /// <summary>Floating control: a second earth fault across the Stop defeats it.</summary>
    [Fact]
    public void Two_earth_faults_on_a_floating_control_defeat_the_stop()
    {
        var circuit = new DirectOnLine
        {
            Tag = "T",
            Title = "Belt",
            Control = ControlSupply.Transformer,
            ControlVolts = 110,
            Earthing = ControlEarthing.Unearthed,
        }.Build();
        var o = new Operated(
            circuit,
            new Bridge(TerminalId.Parse("S1:21"), null, 0.3),
            new Bridge(TerminalId.Parse("S1:22"), null, 0.3)
        ).Do("S2 pressed", "S2 released", "S1 pressed");
        o["M1"].ShouldBe("runs");
    }

    [Fact]
    public void A_DC_supply_gives_24_V_and_its_coil_works_on_it()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Belt",
                Control = ControlSupply.DcSupply,
            }.Build()
        );
        o.DcVolts("PS1:L+", "PS1:M").ShouldBe(24, 0.3);
        o.Do("S2 pressed", "S2 released").DcVolts("KM1:A1", "KM1:A2").ShouldBe(24, 0.5);
        o["M1"].ShouldBe("runs");
    }

    /// <summary>A shorted load folds a good DC supply back: unload it first, then judge it.</summary>
    [Fact]
    public void A_shorted_load_folds_the_DC_supply_back_and_it_recovers_unloaded()
    {
        var circuit = new DirectOnLine
        {
            Tag = "D",
            Title = "Belt",
            Control = ControlSupply.DcSupply,
            ControlProtection = ControlProtection.None,
        }.Build();
        var shorted = new Operated(circuit, new Bridge(TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), 0.3)).Do("S2 pressed");
        shorted["PS1"].ShouldBe("overloaded");
        shorted.DcVolts("PS1:L+", "PS1:M").ShouldBeLessThan(5);
        shorted.Do("S2 released")["PS1"].ShouldBe("DC OK");
    }

    [Fact]
    public void A_meter_on_AC_shows_nothing_on_a_DC_circuit()
    {
        var o = new Operated(
            new DirectOnLine
            {
                Tag = "D",
                Title = "Belt",
                Control = ControlSupply.DcSupply,
            }.Build()
        );
        o.Volts("PS1:L+", "PS1:M").ShouldBeLessThan(1);
    }
}
