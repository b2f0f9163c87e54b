using System.Text.Json.Nodes;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Circuits;

/// <summary>Terminals as they are printed on devices of other makes and schools, and contacts whose digits do not say what they do.</summary>
public class PrintedNamesTests
{
    private static readonly (string Usual, string Printed)[] Names =
    [
        ("KM1:1-2,3-4,5-6", "KM1:L1-T1,L2-T2,L3-T3"),
        ("KM1:A1-A2", "KM1:C-4"),
        ("KM1:13-14", "KM1:2-3"),
        ("KM1:1", "KM1:L1"),
        ("KM1:2", "KM1:T1"),
        ("KM1:3", "KM1:L2"),
        ("KM1:4", "KM1:T2"),
        ("KM1:5", "KM1:L3"),
        ("KM1:6", "KM1:T3"),
        ("KM1:A1", "KM1:C"),
        ("KM1:A2", "KM1:4"),
        ("KM1:13", "KM1:2"),
        ("KM1:14", "KM1:3"),
        ("M1:U,V,W", "M1:T1,T2,T3"),
        ("M1:U", "M1:T1"),
        ("M1:V", "M1:T2"),
        ("M1:W", "M1:T3"),
        ("S1:21-22", "S1:3-4"),
        ("S1:21", "S1:3"),
        ("S1:22", "S1:4"),
    ];

    /// <summary>The starter of the tests with names as a North American panel has them (common practice): L and T, a coil marked C and 4.</summary>
    private static Circuit Printed()
    {
        var json = CircuitFile.Write(Starters.LineToNeutral);
        foreach (var (usual, printed) in Names)
        {
            json = json.Replace($"\"{usual}\"", $"\"{printed}\"", StringComparison.Ordinal);
        }

        var file = JsonNode.Parse(json)!;
        Set("KM1", "contacts", "2-3 no", "53-54");
        Set("KM1", "terminals", "1=L1", "2=T1", "3=L2", "4=T2", "5=L3", "6=T3", "A1=C", "A2=4");
        Set("S1", "contacts", "3-4 nc");
        Set("M1", "terminals", "U=T1", "V=T2", "W=T3");
        return CircuitFile.Read(file.ToJsonString());

        void Set(string tag, string parameter, params string[] words) =>
            file["devices"]!.AsArray().First(d => (string?)d!["tag"] == tag)!["parameters"]![parameter] = new JsonArray([
                .. words.Select(w => (JsonNode?)w),
            ]);
    }

    [Fact]
    public void The_circuit_computes_what_it_computes_under_the_usual_names()
    {
        var (usual, printed) = (Starters.LineToNeutral.Compiled().ReadingSheet.Rows, Printed().Compile().ReadingSheet.Rows);
        printed
            .Select(r => (r.AtRest, r.StartHeld, r.Running, r.Released, r.Pressed))
            .ShouldBe(usual.Select(r => (r.AtRest, r.StartHeld, r.Running, r.Released, r.Pressed)));
        printed.Select(r => r.What).ShouldContain("KM1 L1-T1");
        printed.Select(r => r.What).ShouldNotContain("KM1 13-14");
    }

    [Theory]
    [InlineData("KM1/L2-T2-open")]
    [InlineData("KM1/2-3-open")]
    [InlineData("KM1/C-4-open")]
    [InlineData("S1/3-4-open")]
    [InlineData("M1/winding-T2-open")]
    public void Its_faults_carry_the_printed_names_and_are_found(string id)
    {
        var compiled = Printed().Compile();
        var fault = compiled.Faults.Find(id).ShouldNotBeNull();
        var run = GuidedRun.On(compiled, fault);
        run.HasSymptom.ShouldBeTrue();
        var top = run.Result.Units.First(u => u.Unit.Length > 0);
        top.Alike.Append(top.Unit).ShouldContain(fault.Unit, $"{run.Result.Summary}");
    }

    [Theory]
    [InlineData("13-14", ElementRole.NormallyOpen, false)]
    [InlineData("21-22", ElementRole.NormallyClosed, false)]
    [InlineData("55-56", ElementRole.NormallyClosed, true)]
    [InlineData("67-68", ElementRole.NormallyOpen, true)]
    [InlineData("3-4 nc", ElementRole.NormallyClosed, false)]
    [InlineData("1-2 no", ElementRole.NormallyOpen, false)]
    [InlineData("7-8 nc delayed", ElementRole.NormallyClosed, true)]
    public void What_a_contact_does_follows_from_its_digits_unless_it_is_stated(string listed, ElementRole role, bool delayed)
    {
        // Digits: EN 50005, from memory.
        var element = Element.FromContact(listed);
        element.Role.ShouldBe(role);
        element.IsDelayed.ShouldBe(delayed);
        element.Name.ShouldBe(listed.Split(' ')[0]);
    }

    [Theory]
    [InlineData("\"1=\"")]
    [InlineData("\"1\"")]
    [InlineData("\"1=L1\", \"2=L1\"")]
    [InlineData("\"1=L1\", \"1=L2\"")]
    [InlineData("\"1=L:1\"")]
    [InlineData("\"99=L1\"")]
    [InlineData("\"1=2\"")]
    [InlineData("\"1=13\"")]
    [InlineData("\"PE=G\"")]
    public void Names_that_cannot_be_printed_are_refused(string names)
    {
        var json = CircuitFile
            .Write(Starters.LineToNeutral)
            .Replace("\"coilVolts\": 230", $"\"terminals\": [{names}], \"coilVolts\": 230", StringComparison.Ordinal);
        Should.Throw<CircuitException>(() => CircuitFile.Read(json)).Path.ShouldEndWith(".parameters.terminals");
    }
}
