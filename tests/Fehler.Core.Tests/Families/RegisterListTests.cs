using Fehler.Core.Circuits;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Families;

/// <summary>A plant's list of starters, as a spreadsheet writes it: comma, semicolon or tab, RFC 4180 quotation marks.</summary>
public class RegisterListTests
{
    [Fact]
    public void A_row_becomes_the_circuit_of_its_family_with_the_options_that_its_columns_say()
    {
        var list = RegisterList.Read(
            "\uFEFFDesignation;Name;Area;Panel;Family;Voltage phase to phase;lampColour;runLamp\r\n"
                + "WP-331;\"Sump pump; north\";Water;MCC-W;dol;500,5;red;no\r\n"
                + "DX-9;;;;star-delta;;;\r\n"
        );
        list.Unused.ShouldBe(["lampColour"]);
        var pump = list.Lines[0].Circuit!;
        (pump.Tag, pump.Title, pump.Area, pump.Enclosure).ShouldBe(("WP-331", "Sump pump; north", "Water", "MCC-W"));
        pump.Supply.Kind.SourceOf(pump.Supply)!.LineVolts.Value.ShouldBe(500.5);
        pump.Compile().Circuit.FindDevice("H1").ShouldBeNull();
        (list.Lines[1].Circuit!.Title, list.Lines[1].Family).ShouldBe(("DX-9", "star-delta"));
    }

    [Fact]
    public void A_row_without_a_family_is_the_simplest_starter() =>
        RegisterList.Read("tag,title\nP-1,Pump").Lines.Single().Family.ShouldBe("dol");

    [Theory]
    [InlineData("P-1,x,wind-mill,,", "'wind-mill' is no family")]
    [InlineData(",x,dol,,", "no tag")]
    [InlineData("P-1,x,dol,many,", "is a number, not 'many'")]
    [InlineData("P-1,x,dol,NaN,", "is a number, not 'NaN'")]
    [InlineData("P-1,x,dol,90000,", "goes from 100 to 1000 V")]
    [InlineData("P-1,x,dol,,perhaps", "yes or no")]
    public void A_row_that_cannot_be_used_says_why_and_does_not_stop_the_next(string row, string why)
    {
        var list = RegisterList.Read($"tag,title,family,lineVolts,emergencyStop\n{row}\nP-2,Fan,,,");
        list.Lines[0].Circuit.ShouldBeNull();
        list.Lines[0].Problem.ShouldContain(why);
        (list.Lines[0].Line, list.Lines[1].Line).ShouldBe((2, 3));
        list.Lines[1].Circuit.ShouldNotBeNull();
    }

    [Fact]
    public void A_designation_that_stands_twice_is_taken_once()
    {
        var lines = RegisterList.Read("tag,title\nP-1,Pump\np-1,Fan").Lines;
        lines[0].Circuit.ShouldNotBeNull();
        lines[1].Problem.ShouldContain("twice");
    }

    [Theory]
    [InlineData("")]
    [InlineData("from,to,wire\nKM1:A1,S1:2,5")]
    [InlineData("tag,title\n\"P-1,Pump")]
    public void What_is_no_list_is_refused(string text) => Should.Throw<CircuitException>(() => RegisterList.Read(text));

    [Fact]
    public void A_list_without_end_is_refused() =>
        Should
            .Throw<CircuitException>(() =>
                RegisterList.Read("tag,title\n" + string.Concat(Enumerable.Range(0, 2100).Select(i => $"P-{i},x\n")))
            )
            .Problem.ShouldContain("2000");

    [Fact]
    public void A_wiring_list_is_not_taken_for_one()
    {
        RegisterList.IsOne("circuit,title,area\nP-1,Pump,Water").ShouldBeFalse();
        RegisterList.IsOne("device,kind,place\nKM1,contactor,panel").ShouldBeFalse();
        RegisterList.IsOne("\"tag\";\"title\"\r\n").ShouldBeTrue();
    }
}
