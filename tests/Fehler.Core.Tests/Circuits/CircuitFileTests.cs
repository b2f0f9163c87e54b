using System.Text.Json.Nodes;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Circuits;

public class CircuitFileTests
{
    public static IEnumerable<TheoryDataRow<DirectOnLine>> EveryCombination() =>
        from control in Enum.GetValues<ControlSupply>()
        from place in Enum.GetValues<OverloadContactPlace>()
        from fuse in new[] { true, false }
        from emergency in new[] { true, false }
        from lamps in new[] { true, false }
        from breaker in new[] { true, false }
        select new TheoryDataRow<DirectOnLine>(
            new DirectOnLine
            {
                Tag = "C-1",
                Title = "Combination",
                Control = control,
                OverloadContact = place,
                ControlProtection = fuse ? ControlProtection.Fuse : ControlProtection.None,
                EmergencyStop = emergency,
                RunLamp = lamps,
                TripLamp = lamps,
                Protection = breaker ? MotorProtection.Breaker : MotorProtection.Fuses,
            }
        );

    [Theory]
    [MemberData(nameof(EveryCombination))]
    public void Reading_what_was_written_gives_the_same_circuit_and_the_circuit_works(DirectOnLine options)
    {
        var circuit = options.Build();
        var text = CircuitFile.Write(circuit);
        var again = CircuitFile.Read(text);
        again.ShouldBe(circuit);
        CircuitFile.Write(again).ShouldBe(text);
        Starters.Healthy(again).Running().Appearances["M1"].ShouldBe("runs");
    }

    /// <summary>An earth bond without a link is a path from the supply's earth that ends at the terminal (common practice).</summary>
    [Fact]
    public void A_control_supply_may_be_earthed_by_a_plain_wire()
    {
        var linked = Families.FamilySamples.Of("dol-transformer-earthed");
        var bonded = linked with
        {
            Devices = [.. linked.Devices.Where(d => d.Tag != "XE")],
            Paths =
            [
                .. linked.Paths.Where(p => p.Name != "Earthing"),
                new CircuitPath("Bond", PathType.Power, [TerminalId.Parse("INC:PE")], [], Part.Parse("T1:4")),
            ],
            Conductors = [],
        };
        var circuit = CircuitFile.Read(CircuitFile.Write(bonded));
        var o = new Families.Operated(circuit);
        o.Volts("T1:4", "INC:PE").ShouldBe(0, 0.1);
        o.Volts("T1:3", "INC:PE").ShouldBeInRange(105, 120);
        var bond = circuit.Conductors.Single(c => new[] { c.From, c.To }.Contains(TerminalId.Parse("T1:4")) && c.From.Name == "PE");
        circuit.IsProtective(bond).ShouldBeFalse();
        new Families.Operated(circuit, new ConductorOpen(bond.Id))
            .Do("S2 pressed", "S2 released")["M1"]
            .ShouldBe("runs", "it floats, unnoticed");
    }

    [Fact]
    public void Without_conductors_the_routes_are_derived()
    {
        var json = JsonNode.Parse(CircuitFile.Write(Starters.LineToNeutral))!.AsObject();
        json.Remove("conductors");
        CircuitFile.Read(json.ToJsonString()).Conductors.Length.ShouldBe(Starters.LineToNeutral.Conductors.Length);
    }

    [Theory]
    [InlineData(0.1)]
    [InlineData(0.5)]
    [InlineData(0.9)]
    [InlineData(0.999)]
    public void A_file_cut_off_is_refused_naming_the_line(double share)
    {
        var text = CircuitFile.Write(Starters.LineToNeutral);
        var problem = Should.Throw<CircuitException>(() => CircuitFile.Read(text[..(int)(text.Length * share)]));
        problem.Path.ShouldStartWith("line ");
    }

    [Theory]
    [InlineData("format", "\"other\"", "$.format", "expected 'fehler-circuit'")]
    [InlineData("version", "3", "$.version", "reads versions 1 and 2")]
    [InlineData("devices[3].kind", "\"contacter\"", "$.devices[3].kind", "expected one of")]
    [InlineData("devices[4].location", "\"attic\"", "$.devices[4].location", "not one of the locations")]
    [InlineData("devices[0].parameters.lineVolts", "-5", "$.devices[0].parameters.lineVolts", "from 100 to 1000")]
    [InlineData("devices[0].parameters.lineVolts", "\"high\"", "$.devices[0].parameters.lineVolts", "not a number")]
    [InlineData("devices[1].tag", "\"INC\"", "$.devices", "twice")]
    [InlineData("paths[0].from[0]", "\"INC:L7\"", "$.paths[0]", "does not exist")]
    [InlineData("paths[0].type", "\"both\"", "$.paths[0].type", "power or control")]
    [InlineData("paths[0].path.series[0]", "\"Q1:1-2\"", "$.paths[0].path", "takes 1 conductors, but 3 arrive")]
    [InlineData("conductors[0].from", "\"Q1:3\"", "$.conductors", "the paths")]
    [InlineData("conductors[5].metres", "0", "$.conductors[5].metres", "above 0")]
    [InlineData("devices[6].parameters.contacts", "[\"2-3\"]", "$.devices[6].parameters", "belongs to two contacts")]
    [InlineData("colour", "\"red\"", "$.colour", "not known here")]
    public void A_wrong_file_is_refused_naming_the_path_and_what_was_expected(string place, string value, string path, string expected)
    {
        var json = JsonNode.Parse(CircuitFile.Write(Starters.LineToNeutral))!;
        Set(json, place, JsonNode.Parse(value));
        var problem = Should.Throw<CircuitException>(() => CircuitFile.Read(json.ToJsonString()));
        problem.Path.ShouldStartWith(path);
        problem.Message.ShouldContain(expected);
    }

    [Fact]
    public void A_route_that_joins_two_wires_is_refused()
    {
        var json = JsonNode.Parse(CircuitFile.Write(Starters.LineToNeutral))!;
        json["conductors"]!.AsArray().Add(JsonNode.Parse("""{"id":"x","wire":"4","from":"KM1:A1","to":"S1:21","metres":5,"mm2":1.5}"""));
        Should.Throw<CircuitException>(() => CircuitFile.Read(json.ToJsonString())).Message.ShouldContain("the paths keep them apart");
    }

    [Fact]
    public void The_published_schema_names_every_device_kind_there_is()
    {
        var schema = CircuitSchema.Read();
        schema["properties"]!["devices"]!["items"]!["properties"]!["kind"]!["enum"]!
            .AsArray()
            .Select(k => k!.GetValue<string>())
            .ShouldBe(DeviceKinds.All.Select(k => k.Id));
    }

    [Fact]
    public void Three_cores_go_to_a_three_wire_station()
    {
        // Common practice: Stop and Start in the field, the retaining contact in the panel.
        var circuit = new DirectOnLine
        {
            Tag = "C",
            Title = "Cores",
            EmergencyStop = false,
        }.Build();
        circuit.Conductors.Count(c => c.From.Device == "X1" && c.To.Device is "S1" or "S2" && c.From.Device == "X1").ShouldBe(3);
    }

    private static void Set(JsonNode root, string place, JsonNode? value)
    {
        var steps = place.Replace("[", ".[", StringComparison.Ordinal).Split('.');
        var node = root;
        foreach (var step in steps[..^1])
        {
            node = step[0] == '[' ? node[int.Parse(step[1..^1], System.Globalization.CultureInfo.InvariantCulture)]! : node[step]!;
        }

        if (steps[^1][0] == '[')
        {
            node[int.Parse(steps[^1][1..^1], System.Globalization.CultureInfo.InvariantCulture)] = value;
        }
        else
        {
            node[steps[^1]] = value;
        }
    }
}
