using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Families;
using Fehler.Core.Tests.Families;

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

    /// <summary>The path in question of a retaining fault: the Start branch and the coil it feeds stay, lamps and power are stubs.</summary>
    [Fact]
    public void What_neither_a_suspect_nor_the_test_touches_is_a_stub()
    {
        var compiled = Starters.LineToNeutral.Compiled();
        var sheets = DrawingLayout.InQuestion(
            compiled,
            new HashSet<string> { "S2" },
            new HashSet<TerminalId> { TerminalId.Parse("KM1:A1") }
        );
        var control = sheets.Single(s => s.Type == PathType.Control);
        control.Parts.ShouldContain(p => p.Device == "S2");
        // In series with it: the current flows through them.
        control.Parts.ShouldContain(p => p.Device == "S1");
        control.Parts.ShouldContain(p => p.Device == "KM1" && p.Name == "A1-A2");
        control.Parts.ShouldNotContain(p => p.Device == "H1");
        control.Stubs.ShouldContain(s => s.Text.Contains("H1", StringComparison.Ordinal));
        sheets.Single(s => s.Type == PathType.Power).Parts.ShouldBeEmpty();
        var whole = compiled.Sheets.Single(s => s.Type == PathType.Control);
        control.Width.ShouldBeLessThan(whole.Width);
        control.Parts.ShouldAllBe(p => whole.Parts.Single(w => w.Device == p.Device && w.Name == p.Name).Column == p.Column);
    }

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void A_folded_drawing_loses_no_path_and_every_wire_still_ends_on_its_terminal(string name)
    {
        var circuit = FamilySamples.Of(name);
        var compiled = circuit.Compiled();
        foreach (var device in circuit.Devices.Where(d => circuit.Paths.Any(p => p.Expression.Parts().Any(x => x.Device == d.Tag))))
        {
            var sheets = DrawingLayout.InQuestion(compiled, new HashSet<string> { device.Tag }, new HashSet<TerminalId>());
            var drawn = sheets.SelectMany(s => s.Parts).Select(p => (p.Device, p.Name)).ToList();
            drawn.Count.ShouldBeLessThanOrEqualTo(compiled.Sheets.Sum(s => s.Parts.Length));
            var wanted = compiled.Sheets.SelectMany(s => s.Parts).Where(p => p.Device == device.Tag).Select(p => (p.Device, p.Name));
            wanted.ShouldAllBe(p => drawn.Contains(p), device.Tag);
            bool IsReached(DrawingSheet sheet, DrawnTerminal terminal) =>
                sheet.Wires.Any(w => w.Wire == circuit.WireAt(terminal.Terminal) && w.Points.Any(p => Near(p, terminal)));
            foreach (var (sheet, whole) in sheets.Zip(compiled.Sheets))
            {
                var reached = whole.Parts.SelectMany(p => p.Terminals).Where(t => IsReached(whole, t)).Select(t => t.Terminal).ToHashSet();
                reached.Count.ShouldBeGreaterThan(0);
                sheet
                    .Parts.SelectMany(p => p.Terminals)
                    .Where(t => reached.Contains(t.Terminal))
                    .Where(t => !IsReached(sheet, t))
                    .ShouldBeEmpty(device.Tag);
            }
        }
    }

    [Fact]
    public void Where_nothing_is_in_question_all_of_it_is_drawn()
    {
        var compiled = Starters.LineToNeutral.Compiled();
        DrawingLayout.InQuestion(compiled, new HashSet<string>(), new HashSet<TerminalId>()).ShouldBe(compiled.Sheets);
    }
}
