using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Circuits written by hand from the documented format, wired and named in ways no family builds.</summary>
public class ForeignCircuitTests
{
    public static TheoryData<string, string> Faults =>
        new()
        {
            { "two-stations", "SB1/1-2-open" },
            { "two-stations", "SA2/3-4-open" },
            { "two-stations", "K1/13-14-open" },
            { "two-stations", "K1/A1-A2-open" },
            { "two-stations", "QF/3-4-open" },
            { "two-stations", "B1/tripped" },
            { "two-stations", "MA/winding-V-open" },
            { "line-to-line-480", "CF2/1-2-blown" },
            { "line-to-line-480", "OL/95-96-open" },
            { "line-to-line-480", "M/13-14-open" },
            { "line-to-line-480", "M/1-2-open" },
            { "line-to-line-480", "ES/left-operated" },
            { "line-to-line-480", "MTR/winding-U-open" },
            { "line-to-line-480", "SRC/L2-missing" },
            { "line-to-line-480", "STOP/1-2-high-resistance" },
        };

    [Theory]
    [MemberData(nameof(Faults))]
    public void The_proposals_lead_to_the_right_unit(string name, string id)
    {
        var circuit = Read(name);
        var fault = FaultCatalogue.Of(circuit).Last(f => f.Id == id);
        var run = GuidedRun.On(circuit.Compiled(), fault, seed: 7);
        run.HasSymptom.ShouldBeTrue();
        var top = run.Result.Units.First(u => u.Unit.Length > 0);
        top.Alike.Append(top.Unit).ShouldContain(fault.Unit, $"{run.Result.Summary}");
    }

    [Fact]
    public void Without_an_isolator_the_breaker_isolates()
    {
        var isolation = Read("two-stations").Compiled().Isolation;
        isolation.Points.ShouldBe(["QF"]);
        isolation.LiveTerminals.ShouldContain(TerminalId.Parse("QF:1"));
        isolation.LiveTerminals.ShouldNotContain(TerminalId.Parse("QF:2"));
    }

    [Fact]
    public void Both_stations_are_in_the_function_test_and_both_sheets_are_drawn()
    {
        var circuit = Read("two-stations");
        var steps = circuit.Compiled().FunctionTest.Steps.Select(s => s.Id).ToList();
        foreach (var tested in new[] { "press-SA2", "press-SB2", "stop-SA1", "stop-SB1" })
        {
            steps.ShouldContain(id => id.StartsWith(tested, StringComparison.Ordinal), tested);
        }

        var sheets = circuit.Compiled().Sheets;
        sheets.Length.ShouldBe(2);
        var drawn = sheets
            .SelectMany(s => s.Parts.SelectMany(p => p.Terminals.Select(t => t.Terminal)).Concat(s.References.Select(r => r.Terminal)))
            .ToHashSet();
        circuit
            .Paths.SelectMany(p => p.Expression.Parts())
            .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t)))
            .Where(t => t.Name != "PE")
            .ShouldAllBe(t => drawn.Contains(t));
    }

    private static Circuit Read(string name) =>
        CircuitFile.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Foreign", $"{name}.json")));
}
