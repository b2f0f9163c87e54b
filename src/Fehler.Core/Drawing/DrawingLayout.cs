using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Drawing;

/// <summary>A symbol on the drawing grid: one part of a path. Current flows downwards.</summary>
/// <param name="Kind">Device kind id; the client has one symbol for each.</param>
/// <param name="Element">Role of the element ("normallyOpen", "pole"...) for kinds that draw several; empty for whole devices.</param>
/// <param name="Terminals">Terminals with their place on the grid.</param>
public sealed record DrawnPart(
    string Device, string Kind, string Element, string Function, double X, double Y, double Width, double Height, ImmutableArray<DrawnTerminal> Terminals);

public sealed record DrawnTerminal(TerminalId Terminal, double X, double Y);

/// <summary>A stretch of wire: a polyline, the wire number it carries, and where the number is written.</summary>
public sealed record DrawnWire(string Wire, ImmutableArray<(double X, double Y)> Points, (double X, double Y)? Label);

/// <summary>Where a path begins or ends: the terminal it is taken from or returns to.</summary>
public sealed record DrawnReference(TerminalId Terminal, string Wire, double X, double Y, bool IsTop);

/// <summary>One drawing sheet, power or control.</summary>
public sealed record DrawingSheet(
    PathType Type, double Width, double Height, ImmutableArray<DrawnPart> Parts, ImmutableArray<DrawnWire> Wires, ImmutableArray<DrawnReference> References);

/// <summary>
/// Places the symbols of a circuit on a grid, from its structure alone: series downwards, parallel side by side, the first
/// branch straight on. One grid unit is the pitch between neighbouring poles.
/// </summary>
public static class DrawingLayout
{
    private const double PartHeight = 2, Gap = 1, ColumnGap = 2.1, PolePitch = 1, Lead = 1.2;

    public static ImmutableArray<DrawingSheet> Of(Circuit circuit) =>
        [.. new[] { PathType.Power, PathType.Control }.Select(type => new SheetBuilder(circuit, type).Build()).Where(s => s.Parts.Length > 0)];

    private sealed class SheetBuilder(Circuit circuit, PathType type)
    {
        private readonly ImmutableArray<DrawnPart>.Builder _parts = ImmutableArray.CreateBuilder<DrawnPart>();
        private readonly ImmutableArray<DrawnWire>.Builder _wires = ImmutableArray.CreateBuilder<DrawnWire>();
        private readonly ImmutableArray<DrawnReference>.Builder _references = ImmutableArray.CreateBuilder<DrawnReference>();
        private double _bottom;

        public DrawingSheet Build()
        {
            var x = 1.0;
            foreach (var path in circuit.Paths.Where(p => p.Type == type && p.From.All(f => f.Name != "PE")))
            {
                x = Path(path, x) + ColumnGap;
            }

            return new DrawingSheet(type, x - ColumnGap + (type == PathType.Power ? 0.8 : 1.7), _bottom + 1, _parts.ToImmutable(), _wires.ToImmutable(), _references.ToImmutable());
        }

        private double Path(CircuitPath path, double x)
        {
            var width = Width(path.Expression);
            var height = Height(path.Expression);
            var top = 1.0;
            for (var i = 0; i < path.From.Length; i++)
            {
                var px = x + i * PolePitch;
                _references.Add(new DrawnReference(path.From[i], circuit.WireAt(path.From[i]), px, top, true));
                Wire(circuit.WireAt(path.From[i]), label: true, (px, top), (px, top + Lead));
            }

            var end = Place(path.Expression, x, top + Lead, height);
            for (var i = 0; i < path.To.Length; i++)
            {
                var px = x + i * PolePitch;
                Wire(circuit.WireAt(path.To[i]), label: true, (px, end), (px, end + Lead));
                _references.Add(new DrawnReference(path.To[i], circuit.WireAt(path.To[i]), px, end + Lead, false));
            }

            _bottom = Math.Max(_bottom, end + Lead);
            return x + width;
        }

        /// <summary>Places an expression with its head at (x, y), stretched to a height, and returns the y of its end.</summary>
        private double Place(PathExpression expression, double x, double y, double height)
        {
            switch (expression)
            {
                case Part part:
                    Add(part, x, y);
                    return y + PartHeight;
                case InSeries series:
                    for (var i = 0; i < series.Children.Length; i++)
                    {
                        var child = series.Children[i];
                        y = Place(child, x, y, Height(child));
                        if (i < series.Children.Length - 1)
                        {
                            Connect(child, x, y);
                            y += Gap;
                        }
                    }

                    return y;
                case InParallel parallel:
                    return PlaceParallel(parallel, x, y, height);
                default:
                    return y;
            }
        }

        private double PlaceParallel(InParallel parallel, double x, double y, double height)
        {
            var head = HeadWires(parallel);
            var tail = TailWires(parallel);
            var poles = head.Length;
            var at = x;
            var bottom = y + height;
            foreach (var child in parallel.Children)
            {
                for (var i = 0; i < poles; i++)
                {
                    var px = at + i * PolePitch;
                    // The first branch goes straight on; the others leave and join it sideways.
                    var points = at == x ? new[] { (px, y), (px, y + Gap) } : [(px - (at - x), y), (px, y), (px, y + Gap)];
                    Wire(head[i], label: false, points);
                }

                var end = Place(child, at, y + Gap, Height(child));
                for (var i = 0; i < tail.Length; i++)
                {
                    var px = at + i * PolePitch;
                    Wire(tail[i], label: false, at == x ? [(px, end), (px, bottom)] : [(px, end), (px, bottom), (px - (at - x), bottom)]);
                }

                at += Width(child) + ColumnGap;
            }

            return bottom;
        }

        private void Add(Part part, double x, double y)
        {
            var device = circuit.Device(part.Device);
            var terminals = ImmutableArray.CreateBuilder<DrawnTerminal>();
            for (var i = 0; i < part.In.Length; i++)
            {
                terminals.Add(new DrawnTerminal(device.Terminal(part.In[i]), x + i * PolePitch, y));
            }

            for (var i = 0; i < part.Out.Length; i++)
            {
                terminals.Add(new DrawnTerminal(device.Terminal(part.Out[i]), x + i * PolePitch, y + PartHeight));
            }

            var element = device.Kind.Elements(device).FirstOrDefault(e => part.Out.Length > 0 && ((e.A == part.In[0] && e.B == part.Out[0]) || (e.B == part.In[0] && e.A == part.Out[0])));
            _parts.Add(new DrawnPart(part.Device, device.Kind.Id, RoleName(element?.Role), device.Function, x, y, Math.Max(part.In.Length, part.Out.Length), PartHeight, terminals.ToImmutable()));
            _bottom = Math.Max(_bottom, y + PartHeight);
        }

        /// <summary>Straight wires below a child to the next one.</summary>
        private void Connect(PathExpression above, double x, double y)
        {
            var wires = TailWires(above);
            for (var i = 0; i < wires.Length; i++)
            {
                Wire(wires[i], label: true, (x + i * PolePitch, y), (x + i * PolePitch, y + Gap));
            }
        }

        private void Wire(string wire, bool label, params (double X, double Y)[] points)
        {
            var (a, b) = (points[0], points[^1]);
            _wires.Add(new DrawnWire(wire, [.. points], label ? ((a.X + b.X) / 2, (a.Y + b.Y) / 2) : null));
        }

        private ImmutableArray<string> HeadWires(PathExpression expression) => expression switch
        {
            Part p => [.. p.In.Select(t => circuit.WireAt(new TerminalId(p.Device, t)))],
            InSeries s => HeadWires(s.Children[0]),
            InParallel p => HeadWires(p.Children[0]),
            _ => [],
        };

        private ImmutableArray<string> TailWires(PathExpression expression) => expression switch
        {
            Part p => [.. p.Out.Select(t => circuit.WireAt(new TerminalId(p.Device, t)))],
            InSeries s => TailWires(s.Children[^1]),
            InParallel p => TailWires(p.Children[0]),
            _ => [],
        };

        private static double Width(PathExpression expression) => expression switch
        {
            Part p => Math.Max(p.In.Length, p.Out.Length) * PolePitch,
            InSeries s => s.Children.Max(Width),
            InParallel p => p.Children.Sum(Width) + ColumnGap * (p.Children.Length - 1),
            _ => 0,
        };

        private static double Height(PathExpression expression) => expression switch
        {
            Part => PartHeight,
            InSeries s => s.Children.Sum(Height) + Gap * (s.Children.Length - 1),
            InParallel p => p.Children.Max(Height) + 2 * Gap,
            _ => 0,
        };

        private static string RoleName(ElementRole? role) => role is { } r ? char.ToLowerInvariant(r.ToString()[0]) + r.ToString()[1..] : "";
    }
}
