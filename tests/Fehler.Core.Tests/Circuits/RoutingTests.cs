using Fehler.Core.Circuits;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Circuits;

public class RoutingTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    [Fact]
    public void Each_wire_number_is_a_tree_one_conductor_fewer_than_terminals()
    {
        foreach (var wire in Circuit.Conductors.GroupBy(c => c.Wire))
        {
            var terminals = wire.SelectMany(c => new[] { c.From, c.To }).Distinct().Count();
            wire.Count().ShouldBe(terminals - 1, wire.Key);
        }
    }

    [Fact]
    public void Wires_to_the_field_go_over_the_strip_and_are_as_long_as_the_cable()
    {
        var field = Circuit.Conductors.Where(c => Circuit.LocationOf(c.From) != Circuit.LocationOf(c.To) && c.Wire != "PE").ToList();
        field.ShouldAllBe(c => c.From.Device == "X1");
        field.Where(c => Circuit.LocationOf(c.To).Id == "station").ShouldAllBe(c => c.Metres == 20);
        field.Where(c => Circuit.LocationOf(c.To).Id == "motor").ShouldAllBe(c => c.Metres == 25);
    }

    [Fact]
    public void Power_wires_are_thicker_than_control_wires()
    {
        var big = new DirectOnLine
        {
            Tag = "B",
            Title = "Big",
            MotorKilowatts = 15,
            MotorAmps = 29,
        }.Build();
        big.Conductors.First(c => c.Wire == "4L1").SquareMillimetres.ShouldBe(6);
        big.Conductors.First(c => c.Wire == "3").SquareMillimetres.ShouldBe(1.5);
    }

    [Theory]
    [InlineData("KM1:13-14", 1, 1)]
    [InlineData("KM1:1-2,3-4,5-6", 3, 3)]
    [InlineData("M1:U,V,W", 3, 0)]
    public void A_part_is_written_as_it_is_read(string text, int entering, int leaving)
    {
        var part = Part.Parse(text);
        part.In.Length.ShouldBe(entering);
        part.Out.Length.ShouldBe(leaving);
        part.ToString().ShouldBe(text);
    }

    [Theory]
    [InlineData("KM1")]
    [InlineData("KM1:")]
    [InlineData(":13-14")]
    [InlineData("KM1:1-2,3")]
    [InlineData("KM1:1-2-3")]
    [InlineData("KM1:1-")]
    public void A_part_that_is_none_is_refused(string text) => Should.Throw<FormatException>(() => Part.Parse(text));

    [Theory]
    [InlineData("KM1:A1", "KM1", "A1")]
    [InlineData("A:B:C", "A:B", "C")]
    public void A_terminal_is_device_and_marking(string text, string device, string name)
    {
        TerminalId.Parse(text).ShouldBe(new TerminalId(device, name));
        TerminalId.Parse(text).ToString().ShouldBe(text);
    }

    [Theory]
    [InlineData("")]
    [InlineData("KM1")]
    [InlineData("KM1:")]
    [InlineData(":A1")]
    public void A_terminal_that_is_none_is_refused(string text)
    {
        TerminalId.TryParse(text, out _).ShouldBeFalse();
        Should.Throw<FormatException>(() => TerminalId.Parse(text));
    }

    [Fact]
    public void Wire_numbers_of_the_panel_replace_the_proposed_ones()
    {
        var json = System.Text.Json.Nodes.JsonNode.Parse(CircuitFile.Write(Circuit))!.AsObject();
        json.Remove("conductors");
        json["wireNumbers"] = new System.Text.Json.Nodes.JsonObject { ["KM1:A1"] = "417", ["S1:22"] = "412" };
        var renamed = CircuitFile.Read(json.ToJsonString());
        renamed.WireAt(TerminalId.Parse("F2:96")).ShouldBe("417");
        renamed.WireAt(TerminalId.Parse("S2:13")).ShouldBe("412");
    }
}
