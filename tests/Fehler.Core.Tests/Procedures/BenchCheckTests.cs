using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Procedures;

/// <summary>The component test; expectations are common practice.</summary>
public class BenchCheckTests
{
    private static readonly IReadOnlyList<BenchCheckItem> Items = Starters.LineToNeutral.Compiled().BenchCheck.Items;

    private static BenchCheckItem Item(string id) => Items.First(i => i.Id == id);

    /// <summary>Ohms that were read, without an equivalent circuit, are what is expected then, to 4 % a standard deviation.</summary>
    [Fact]
    public void Read_ohms_of_a_transformer_are_what_is_expected_of_it()
    {
        var sample = Families.FamilySamples.Of("dol-transformer-earthed");
        var read = sample with
        {
            Devices =
            [
                .. sample.Devices.Select(d =>
                    d.Tag == "T1" ? d.With("primaryOhms", 61.0).With("secondaryOhms", 4.2).With("ohmsKnown", "measured") : d
                ),
            ],
        };
        var items = read.Compiled().BenchCheck.Items;
        var (primary, secondary) = (items.Single(i => i.Id == "T1/1-2"), items.Single(i => i.Id == "T1/3-4"));
        primary.IsGood(new(61)).ShouldBeTrue();
        primary.IsGood(new(45)).ShouldBeFalse();
        secondary.IsGood(new(4.2)).ShouldBeTrue();
        secondary.IsGood(new(8)).ShouldBeFalse();
    }

    [Fact]
    public void A_coil_is_a_value_and_never_just_continuity()
    {
        var ohms = Starters.LineToNeutral.Device("KM1").Given("coilOhms").Number!.Value;
        var coil = Item("KM1/A1-A2@0");
        coil.IsGood(new Ohms(ohms)).ShouldBeTrue();
        coil.IsGood(new Ohms(0.2)).ShouldBeFalse();
        coil.IsGood(new Ohms(ohms * 0.1)).ShouldBeFalse();
        coil.IsGood(new Ohms(ohms * 10)).ShouldBeFalse();
        coil.IsGood(new Ohms(double.PositiveInfinity)).ShouldBeFalse();
    }

    [Theory]
    [InlineData("KM1/1-2@0", false)]
    [InlineData("KM1/1-2@1", true)]
    [InlineData("KM1/13-14@0", false)]
    [InlineData("KM1/13-14@1", true)]
    [InlineData("F2/95-96@0", true)]
    [InlineData("F2/95-96@1", false)]
    [InlineData("F2/97-98@1", true)]
    [InlineData("S1/21-22@0", true)]
    [InlineData("S1/21-22@1", false)]
    [InlineData("S2/13-14@1", true)]
    public void Each_contact_is_tested_both_ways(string id, bool closed)
    {
        Item(id).IsGood(new Ohms(0.2)).ShouldBe(closed);
        Item(id).IsGood(new Ohms(double.PositiveInfinity)).ShouldBe(!closed);
    }

    /// <summary>
    /// What makes show (common practice): a 4 kW 400 V motor has 1.2 to 3.3 ohm between two terminals, a 120 V contactor coil some hundred
    /// ohm, the 400 V primary of a 150 VA transformer 30 to 80 ohm. None of these is a fault.
    /// </summary>
    [Fact]
    public void Good_parts_of_any_make_are_good()
    {
        foreach (var ohms in new[] { 1.25, 1.9, 2.6, 3.3 })
        {
            Item("M1/U-V").IsGood(new Ohms(ohms)).ShouldBeTrue($"{ohms} ohm");
        }

        var circuit = new DirectOnLine
        {
            Tag = "T",
            Title = "Belt",
            Control = ControlSupply.Transformer,
            ControlVolts = 120,
        }.Build();
        circuit = CircuitEditor.Apply(circuit, new SetParameter("T1", "va", "150"));
        var check = circuit.Compile().BenchCheck;
        var primary = check.Items.First(i => i is { Device: "T1", IsMeasured: true } && i.Leads is "1 – 2" or "2 – 1");
        foreach (var ohms in new[] { 32, 61, 80.0 })
        {
            primary.IsGood(new Ohms(ohms)).ShouldBeTrue($"{ohms} ohm");
        }

        var coil = check.Find("KM1/A1-A2@0").ShouldNotBeNull();
        coil.IsGood(new Ohms(106)).ShouldBeTrue();
        coil.IsGood(new Ohms(double.PositiveInfinity)).ShouldBeFalse();
    }

    [Fact]
    public void A_coil_that_was_measured_is_known_better_than_an_estimated_one()
    {
        var known = CircuitEditor.Apply(Starters.LineToNeutral, new SetParameter("KM1", "coilOhms", "580"));
        known = CircuitEditor.Apply(known, new SetParameter("KM1", "ohmsKnown", "measured"));
        var coil = known.Compile().BenchCheck.Find("KM1/A1-A2@0").ShouldNotBeNull();
        coil.IsGood(new Ohms(600)).ShouldBeTrue();
        coil.IsGood(new Ohms(400)).ShouldBeFalse();
    }

    /// <summary>Windings of one motor are wound alike (common practice): unlike ones are bad, though each is within its range.</summary>
    [Theory]
    [InlineData(1.0, 1.75, 1.7, "M1/U-V")]
    [InlineData(1.7, 1.75, 2.6, "M1/U-W")]
    [InlineData(1.7, 1.75, 1.72, null)]
    [InlineData(2.5, 2.4, 2.45, null)]
    public void Unlike_windings_are_bad_although_each_is_within_its_range(double uv, double vw, double uw, string? bad)
    {
        var readings = new Dictionary<string, Ohms>
        {
            ["M1/U-V"] = new(uv),
            ["M1/V-W"] = new(vw),
            ["M1/U-W"] = new(uw),
        };
        readings.ShouldAllBe(r => Item(r.Key).IsGood(r.Value));
        Starters.LineToNeutral.Compiled().BenchCheck.UnlikeTwins(readings).Keys.ShouldBe(bad is null ? [] : [bad]);
    }

    /// <summary>Star: phase to phase twice a winding; to the frame open.</summary>
    [Fact]
    public void Windings_are_tested_to_each_other_and_to_the_frame()
    {
        var winding = 2 * Starters.LineToNeutral.Device("M1").Given("statorOhms").Number!.Value;
        Item("M1/U-V").IsGood(new Ohms(winding)).ShouldBeTrue();
        Item("M1/U-V").IsGood(new Ohms(0.05)).ShouldBeFalse();
        Item("M1/U-V").IsGood(new Ohms(3 * winding)).ShouldBeFalse();
        Item("M1/U-PE").IsGood(new Ohms(double.PositiveInfinity)).ShouldBeTrue();
        Item("M1/U-PE").IsGood(new Ohms(1200)).ShouldBeFalse();
    }

    /// <summary>Six free leads: only U1-U2, V1-V2, W1-W2 read.</summary>
    [Fact]
    public void Of_six_leads_only_the_ends_of_one_winding_read()
    {
        var motor = FamilySamples
            .Of("star-delta")
            .Compiled()
            .BenchCheck.Items.Where(i =>
                i.Device == "M1" && i.Id.Contains("1-", StringComparison.Ordinal) && !i.Id.EndsWith("PE", StringComparison.Ordinal)
            )
            .ToList();
        motor.Where(i => i.Most is not null).Select(i => i.Leads).ShouldBe(["U1 – U2", "V1 – V2", "W1 – W2"], ignoreOrder: true);
    }

    [Theory]
    [InlineData("0.3", 0.3)]
    [InlineData("0,3 Ω", 0.3)]
    [InlineData("4.7k", 4700)]
    [InlineData("2M", 2e6)]
    [InlineData("2 m", 2e6)]
    [InlineData("0.4M", 4e5)]
    [InlineData("< 1", 0.5)]
    [InlineData("> 40M", double.PositiveInfinity)]
    [InlineData("ol", double.PositiveInfinity)]
    public void Readings_are_understood_as_people_write_them(string text, double ohms) => ReadingText.ParseOhms(text).Value.ShouldBe(ohms);

    [Theory]
    [InlineData("")]
    [InlineData("good")]
    [InlineData("-3")]
    [InlineData("k")]
    public void What_is_not_a_reading_is_refused(string text) => Should.Throw<RefusedException>(() => ReadingText.ParseOhms(text));

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_device_of_every_family_has_its_checks_under_names_of_their_own(string name)
    {
        var circuit = FamilySamples.Of(name);
        var items = circuit.Compiled().BenchCheck.Items;
        items.Select(i => i.Id).ShouldBeUnique();
        items
            .Select(i => i.Device)
            .Distinct()
            .ShouldBe(circuit.Devices.Where(d => d.Kind.Id is not ("supply" or "terminal-strip")).Select(d => d.Tag), ignoreOrder: true);
    }
}
