using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Procedures;

/// <summary>The component test; expectations are common practice.</summary>
public class BenchCheckTests
{
    private static readonly IReadOnlyList<BenchCheckItem> Items = Starters.LineToNeutral.Compiled().BenchCheck.Items;

    private static BenchCheckItem Item(string id) => Items.First(i => i.Id == id);

    [Fact]
    public void A_coil_is_a_value_and_never_just_continuity()
    {
        var ohms = Starters.LineToNeutral.Device("KM1").Given("coilOhms").Number!.Value;
        var coil = Item("KM1/A1-A2@0");
        coil.IsGood(new Ohms(ohms)).ShouldBeTrue();
        coil.IsGood(new Ohms(0.2)).ShouldBeFalse();
        coil.IsGood(new Ohms(ohms * 0.5)).ShouldBeFalse();
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

    /// <summary>Star: phase to phase twice a winding; to the frame open.</summary>
    [Fact]
    public void Windings_are_tested_to_each_other_and_to_the_frame()
    {
        var winding = 2 * Starters.LineToNeutral.Device("M1").Given("statorOhms").Number!.Value;
        Item("M1/U-V").IsGood(new Ohms(winding)).ShouldBeTrue();
        Item("M1/U-V").IsGood(new Ohms(2 * winding)).ShouldBeFalse();
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
