using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Drawing;

public class DrawingLayoutTests
{
    public static TheoryData<string> Circuits => ["LN", "LL"];

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Every_terminal_of_every_path_is_drawn_once(string name)
    {
        var circuit = Starters.Of(name);
        var drawn = circuit.Compiled().Sheets.SelectMany(s => s.Parts).SelectMany(p => p.Terminals).Select(t => t.Terminal).ToList();
        drawn.ShouldBeUnique();
        var wanted = circuit
            .Paths.SelectMany(p => p.Expression.Parts())
            .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t)))
            .Where(t => t.Name != "PE");
        wanted.ShouldAllBe(t => drawn.Contains(t));
    }

    [Theory]
    [MemberData(nameof(Circuits))]
    public void No_two_symbols_overlap(string name)
    {
        foreach (var sheet in Starters.Of(name).Compiled().Sheets)
        {
            for (var i = 0; i < sheet.Parts.Length; i++)
            {
                for (var j = i + 1; j < sheet.Parts.Length; j++)
                {
                    var (a, b) = (sheet.Parts[i], sheet.Parts[j]);
                    var apart = a.X + a.Width <= b.X || b.X + b.Width <= a.X || a.Y + a.Height <= b.Y || b.Y + b.Height <= a.Y;
                    apart.ShouldBeTrue($"{a.Device} {a.Y} and {b.Device} {b.Y}");
                }
            }
        }
    }

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Every_terminal_has_a_wire_of_its_own_number_ending_on_it(string name)
    {
        var circuit = Starters.Of(name);
        foreach (var sheet in circuit.Compiled().Sheets)
        {
            foreach (var terminal in sheet.Parts.SelectMany(p => p.Terminals))
            {
                sheet.Wires.ShouldContain(
                    w => w.Wire == circuit.WireAt(terminal.Terminal) && w.Points.Any(p => Near(p, terminal)),
                    $"{terminal.Terminal} at {terminal.X},{terminal.Y}"
                );
            }
        }
    }

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Wires_run_upright_or_level_and_nothing_leaves_the_sheet(string name)
    {
        foreach (var sheet in Starters.Of(name).Compiled().Sheets)
        {
            foreach (var wire in sheet.Wires)
            {
                foreach (var (a, b) in wire.Points.Zip(wire.Points.Skip(1)))
                {
                    (Math.Abs(a.X - b.X) < 1e-9 || Math.Abs(a.Y - b.Y) < 1e-9).ShouldBeTrue(wire.Wire);
                }

                wire.Points.ShouldAllBe(p => p.X >= 0 && p.X <= sheet.Width && p.Y >= 0 && p.Y <= sheet.Height);
            }
        }
    }

    [Fact]
    public void Parallel_parts_stand_side_by_side_and_series_parts_below_each_other()
    {
        var sheet = Starters.LineToNeutral.Compiled().Sheets.First(s => s.Type == PathType.Control);
        var start = sheet.Parts.First(p => p.Device == "S2");
        var holding = sheet.Parts.First(p => p.Terminals.Any(t => t.Terminal.Name == "13") && p.Device == "KM1");
        var stop = sheet.Parts.First(p => p.Device == "S1");
        holding.Y.ShouldBe(start.Y);
        holding.X.ShouldBeGreaterThan(start.X);
        stop.X.ShouldBe(start.X);
        stop.Y.ShouldBeLessThan(start.Y);
    }

    [Fact]
    public void Without_lamps_the_control_sheet_is_narrower()
    {
        var with = Starters.LineToNeutral.Compiled().Sheets.First(s => s.Type == PathType.Control);
        var without = DrawingLayout
            .Of(
                new DirectOnLine
                {
                    Tag = "N",
                    Title = "No lamps",
                    RunLamp = false,
                    TripLamp = false,
                }.Build()
            )
            .First(s => s.Type == PathType.Control);
        without.Width.ShouldBeLessThan(with.Width);
    }

    private static bool Near((double X, double Y) point, DrawnTerminal terminal) =>
        Math.Abs(point.X - terminal.X) < 1e-6 && Math.Abs(point.Y - terminal.Y) < 1e-6;
}
