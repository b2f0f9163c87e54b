using Fehler.Core.Circuits;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Procedures;

/// <summary>What a good direct-on-line starter shows; common practice and circuit theory.</summary>
public class ReadingSheetTests
{
    private static readonly IReadOnlyList<ReadingSheetRow> Sheet = Starters.LineToNeutral.Compiled().ReadingSheet.Rows;

    /// <summary>
    /// A 4 kW, 400 V motor between 1.2 and 3.3 ohm is a good one, and a plate leads to no single figure (common practice): the sheet gives the
    /// range, and the same one as the component test.
    /// </summary>
    [Fact]
    public void A_winding_known_from_its_plate_is_shown_as_the_range_of_good_ones()
    {
        var compiled = Starters.LineToNeutral.Compiled();
        var item = compiled.BenchCheck.Items.Single(i => i.Id == "M1/U-V");
        item.Least!.Value.ShouldBeLessThan(1.3);
        item.Most!.Value.ShouldBeGreaterThan(3.2);
        compiled.ReadingSheet.Rows.Single(r => r.What == "M1 U-V").Released.ShouldBe(item.Good);
    }

    [Fact]
    public void Across_the_open_start_stands_the_control_voltage_at_rest_and_none_when_it_is_held()
    {
        var row = Row("S2 13-14");
        row.AtRest.ShouldBe("230 V");
        row.StartHeld.ShouldBe("0 V");
        row.Running.ShouldBe("0 V");
    }

    [Fact]
    public void The_coil_has_its_voltage_running_and_its_ohms_isolated()
    {
        var row = Row("KM1 A1-A2");
        row.AtRest.ShouldBe("0 V");
        row.Running.ShouldBe("230 V");
        row.Released.ShouldBe("130 Ω to 1.2 kΩ", "a 230 V coil reads a hundred ohm as well as a thousand (common practice)");
    }

    [Fact]
    public void Poles_read_open_released_and_closed_pressed()
    {
        foreach (var pole in new[] { "KM1 1-2", "KM1 3-4", "KM1 5-6", "KM1 13-14" })
        {
            Row(pole).Released.ShouldBe("OL", pole);
            Row(pole).Pressed.ShouldBe("0 Ω", pole);
        }
    }

    [Fact]
    public void What_is_above_the_isolator_is_marked_as_staying_live() => Row("Q1 1-2").Released.ShouldBe("stays live");

    [Fact]
    public void Windings_read_equal_and_to_earth_open()
    {
        var phases = new[] { "M1 U-V", "M1 V-W", "M1 W-U" }.Select(p => Row(p).Released).ToList();
        phases.Distinct().Count().ShouldBe(1);
        new[] { "M1 U to earth", "M1 V to earth", "M1 W to earth" }.ShouldAllBe(p => Row(p).Released == "OL");
    }

    [Fact]
    public void Every_control_terminal_is_on_the_sheet_against_the_return()
    {
        foreach (var terminal in new[] { "S0:11", "S0:12", "S1:21", "S1:22", "S2:13", "S2:14", "KM1:A1", "F2:95", "F2:96" })
        {
            Sheet.ShouldContain(r => r.From == TerminalId.Parse(terminal) && r.To == Starters.LineToNeutral.Reference);
        }
    }

    /// <summary>Line to line and pressed in, the coil is read through the motor: a good coil then seems shorted.</summary>
    [Fact]
    public void With_the_armature_pressed_a_line_to_line_coil_reads_the_motor_in_parallel()
    {
        var row = Starters.LineToLine.Compiled().ReadingSheet.Rows.First(r => r.What == "KM1 A1-A2");
        row.Released.ShouldBe("390 Ω to 3.7 kΩ");
        row.Pressed.ShouldEndWith(" Ω");
    }

    private static ReadingSheetRow Row(string what) => Sheet.First(r => r.What == what);
}
