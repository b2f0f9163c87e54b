using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Procedures;

/// <summary>Coil, contacts or the whole contactor: practitioners differ, both ways are offered with what speaks for each.</summary>
public class RepairChoiceTests
{
    private static readonly CompiledCircuit Circuit = Starters.LineToNeutral.Compile();

    private static RepairGuide Of(string fault) => Circuit.RepairGuides.Of(Circuit.Faults.Find(fault)!);

    [Theory]
    [InlineData("KM1/A1-A2-open", "The coil alone")]
    [InlineData("KM1/1-2-open", "The set of main contacts")]
    [InlineData("KM1/13-14-open", "The contact block alone")]
    public void A_contactor_is_repaired_in_part_or_replaced_as_a_whole(string fault, string part)
    {
        var choices = Of(fault).Choices;
        choices.Select(c => c.Way.ToString()).ShouldBe([part, "The whole contactor"]);
        choices.ShouldAllBe(c => c.For.ToString().Length > 30);
    }

    [Theory]
    [InlineData("S2/13-14-open")]
    [InlineData("F2/95-96-open")]
    [InlineData("M1/stalled")]
    public void What_is_no_contactor_leaves_no_such_choice(string fault) => Of(fault).Choices.ShouldBeEmpty();

    [Fact]
    public void A_welded_contactor_is_never_broken_free()
    {
        var welded = Circuit.Faults.First(f => f.Unit == "KM1" && f.Title.ToString().Contains("welded", StringComparison.Ordinal));
        var guide = Circuit.RepairGuides.Of(welded);
        guide.Choices.Length.ShouldBe(2);
        guide.Steps.ShouldContain(s => s.Contains("not broken free"));
    }
}
