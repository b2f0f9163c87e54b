using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Drawing;

/// <summary>Places the symbols and wires of the power or the control sheet.</summary>
/// <param name="circuit">The circuit.</param>
/// <param name="type">Which sheet.</param>
/// <param name="folding">What is folded away; null to draw all of it.</param>
internal sealed class SheetBuilder(Circuit circuit, PathType type, Folding? folding)
{
    private const double PartHeight = 2,
        Gap = 1,
        ColumnGap = 2.1,
        PolePitch = 1,
        Lead = 1.2;

    /// <summary>A coupling runs below the middle, where the tags stand.</summary>
    private const double CouplingShare = 0.8;

    private readonly ImmutableArray<DrawnPart>.Builder _parts = ImmutableArray.CreateBuilder<DrawnPart>();
    private readonly ImmutableArray<DrawnWire>.Builder _wires = ImmutableArray.CreateBuilder<DrawnWire>();
    private readonly ImmutableArray<DrawnReference>.Builder _references = ImmutableArray.CreateBuilder<DrawnReference>();
    private readonly ImmutableArray<DrawnStub>.Builder _stubs = ImmutableArray.CreateBuilder<DrawnStub>();
    private double _bottom;

    public DrawingSheet Build()
    {
        var paths = circuit.Paths.Where(p => p.Type == type && p.From.All(f => f.Name != "PE")).ToList();
        var x = 1.0;
        var idle = new List<PathExpression>();
        foreach (var path in paths)
        {
            if (folding?.Keeps(path.Expression) == false)
            {
                idle.Add(path.Expression);
                continue;
            }

            x = Aside(idle, x);
            x = Path(folding is null ? path : path with { Expression = folding.Of(path.Expression) }, x) + ColumnGap;
        }

        x = Aside(idle, x);

        var columns = _parts.Select(p => p.X).Distinct().Order().ToList();
        ImmutableArray<DrawnPart> parts = [.. _parts.Select(p => p with { Column = columns.IndexOf(p.X) + 1 })];
        return new DrawingSheet(
            type,
            x - ColumnGap + (type == PathType.Power ? 0.8 : 1.7),
            _bottom + 1,
            parts,
            _wires.ToImmutable(),
            _references.ToImmutable(),
            [.. Couplings(parts)]
        )
        {
            Stubs = _stubs.ToImmutable(),
        };
    }

    /// <summary>Paths that are folded away as a whole: one stub for those that follow each other.</summary>
    private double Aside(List<PathExpression> idle, double x)
    {
        if (idle.Count == 0)
        {
            return x;
        }

        Fold(new Stub([.. idle]), x, 1);
        idle.Clear();
        return x + PolePitch + ColumnGap;
    }

    private void Fold(Stub stub, double x, double y)
    {
        _stubs.Add(new DrawnStub(stub.Text, x, y));
        _bottom = Math.Max(_bottom, y + PartHeight);
    }

    private double Path(CircuitPath path, double x)
    {
        var height = Height(path.Expression);
        var top = 1.0;
        for (var i = 0; i < path.From.Length; i++)
        {
            var px = x + i * PolePitch;
            _references.Add(new DrawnReference(path.From[i], circuit.WireAt(path.From[i]), px, top, true));
            Wire(circuit.WireAt(path.From[i]), label: true, (px, top), (px, top + Lead));
        }

        Place(path.Expression, x, top + Lead, height);
        Returns(path, x, top + Lead + height);
        return x + Width(path.Expression);
    }

    private void Returns(CircuitPath path, double x, double end)
    {
        _bottom = Math.Max(_bottom, end + Lead);
        var wires = path.To.Select(circuit.WireAt).Distinct().ToList();
        if (path.To.Length > 1 && wires.Count == 1)
        {
            // All conductors meet: a star point.
            for (var i = 0; i < path.To.Length; i++)
            {
                Wire(wires[0], label: false, (x + i * PolePitch, end), (x + i * PolePitch, end + Gap / 2));
            }

            Wire(wires[0], label: true, (x, end + Gap / 2), (x + (path.To.Length - 1) * PolePitch, end + Gap / 2));
            return;
        }

        for (var i = 0; i < path.To.Length; i++)
        {
            var px = x + i * PolePitch;
            Wire(circuit.WireAt(path.To[i]), label: true, (px, end), (px, end + Lead));
            _references.Add(new DrawnReference(path.To[i], circuit.WireAt(path.To[i]), px, end + Lead, false));
        }
    }

    /// <summary>Places an expression with its head at (x, y) and its end at y + height.</summary>
    private void Place(PathExpression expression, double x, double y, double height)
    {
        switch (expression)
        {
            case Part part:
                // A coil alone in its branch hangs at the bottom, anything else stands at the top.
                var above = HoldsLoad(part) ? height - Height(part) : 0;
                Straight(HeadWires(part), x, y, y + above);
                Add(part, x, y + above);
                Straight(TailWires(part), x, y + above + Height(part), y + height);
                break;
            case Stub stub:
                Fold(stub, x, y);
                break;
            case InSeries series:
                PlaceSeries(series, x, y, height);
                break;
            case InParallel parallel:
                PlaceParallel(parallel, x, y, height);
                break;
        }
    }

    private void PlaceSeries(InSeries series, double x, double y, double height)
    {
        // What a taller neighbour leaves over goes before the coil, or into the branches that hold the coils.
        var slack = height - Height(series);
        var stretched = series.Children.Select((c, i) => (c, i)).Where(c => HoldsLoad(c.c)).Select(c => c.i).DefaultIfEmpty(-1).First();
        for (var i = 0; i < series.Children.Length; i++)
        {
            var child = series.Children[i];
            var own = Height(child);
            if (i == stretched && slack > 0)
            {
                if (child is Part && i > 0)
                {
                    Straight(HeadWires(child), x, y, y + slack);
                    y += slack;
                }
                else
                {
                    own += slack;
                }
            }

            Place(child, x, y, own);
            y += own;
            if (i < series.Children.Length - 1)
            {
                Connect(child, x, y);
                y += Gap;
            }
        }

        if (stretched < 0)
        {
            Straight(TailWires(series), x, y, y + slack);
        }
    }

    private void PlaceParallel(InParallel parallel, double x, double y, double height)
    {
        var head = HeadWires(parallel);
        var tail = TailWires(parallel);
        var at = x;
        var bottom = y + height;
        foreach (var child in parallel.Children)
        {
            for (var i = 0; i < head.Length; i++)
            {
                var px = at + i * PolePitch;
                // The first branch goes straight on; the others leave and join it sideways.
                Wire(head[i], label: false, at == x ? [(px, y), (px, y + Gap)] : [(px - (at - x), y), (px, y), (px, y + Gap)]);
            }

            Place(child, at, y + Gap, height - 2 * Gap);
            for (var i = 0; i < tail.Length && child is not Stub; i++)
            {
                var px = at + i * PolePitch;
                Wire(
                    tail[i],
                    label: false,
                    at == x ? [(px, bottom - Gap), (px, bottom)] : [(px, bottom - Gap), (px, bottom), (px - (at - x), bottom)]
                );
            }

            at += Width(child) + ColumnGap;
        }
    }

    /// <summary>
    /// Draws a part with its poles side by side in their own order; conductors that change places cross before or behind it.
    /// </summary>
    private void Add(Part part, double x, double y)
    {
        var device = circuit.Device(part.Device);
        var elements = device.Kind.Elements(device);
        var natural = NaturalOrder(part);
        var terminals = ImmutableArray.CreateBuilder<DrawnTerminal>();
        var top = y + (CrossesAbove(part) ? Gap : 0);
        for (var i = 0; i < part.In.Length; i++)
        {
            var px = x + natural[i] * PolePitch;
            var terminal = device.Terminal(part.In[i]);
            terminals.Add(new DrawnTerminal(terminal, px, top));
            if (top > y)
            {
                Wire(circuit.WireAt(terminal), label: false, (x + i * PolePitch, y), (px, top));
            }
        }

        for (var i = 0; i < part.Out.Length; i++)
        {
            var terminal = device.Terminal(part.Out[i]);
            var px = x + OutColumn(part, i, natural) * PolePitch;
            terminals.Add(new DrawnTerminal(terminal, px, top + PartHeight));
            if (CrossesBelow(part))
            {
                Wire(circuit.WireAt(terminal), label: false, (px, top + PartHeight), (x + i * PolePitch, top + PartHeight + Gap));
            }
        }

        var names = part.Out.IsEmpty
            ? ""
            : string.Join(',', part.In.Select((_, i) => ElementOf(device, part.In[i])?.Name ?? $"{part.In[i]}-{part.Out[i]}").Distinct());
        var single = part.In.Length == 1 && part.Out.Length == 1;
        var element =
            single ? elements.FirstOrDefault(e => (e.A == part.In[0] && e.B == part.Out[0]) || (e.B == part.In[0] && e.A == part.Out[0]))
            : part.Out.Length > 0 ? ElementOf(device, part.In[0])
            : null;
        _parts.Add(
            new DrawnPart(
                part.Device,
                device.Kind.Id,
                RoleName(element?.Role),
                single ? element?.Name ?? names : names,
                device.Function,
                circuit.Location(device.Location).Name,
                0,
                x,
                top,
                Math.Max(part.In.Length, part.Out.Length),
                PartHeight,
                device.Kind.LadderShapeOf(element),
                device.Kind.Letters,
                element is not null && device.Kind.IsDelayed(element),
                terminals.ToImmutable(),
                []
            )
        );
        _bottom = Math.Max(_bottom, top + PartHeight);
    }

    /// <summary>Column of each entering conductor's pole: poles stand in the order of their numbers.</summary>
    private int[] NaturalOrder(Part part)
    {
        if (part.In.Length < 2 || part.Out.IsEmpty)
        {
            return [.. Enumerable.Range(0, part.In.Length)];
        }

        var sorted = part.In.Order(StringComparer.Ordinal).ToList();
        return circuit.Device(part.Device).Kind.Poles(circuit.Device(part.Device)).IsEmpty
            ? [.. Enumerable.Range(0, part.In.Length)]
            : [.. part.In.Select(t => sorted.IndexOf(t))];
    }

    private int OutColumn(Part part, int index, int[] natural)
    {
        var device = circuit.Device(part.Device);
        var partner = device
            .Kind.Poles(device)
            .Where(p => p.Load == part.Out[index] || p.Line == part.Out[index])
            .Select(p => p.Load == part.Out[index] ? p.Line : p.Load)
            .FirstOrDefault();
        var entering = partner is null ? -1 : part.In.IndexOf(partner);
        return entering < 0 ? index : natural[entering];
    }

    private bool CrossesAbove(Part part) => NaturalOrder(part).Where((n, i) => n != i).Any();

    private bool CrossesBelow(Part part)
    {
        var natural = NaturalOrder(part);
        return Enumerable.Range(0, part.Out.Length).Any(i => OutColumn(part, i, natural) != i);
    }

    private static Element? ElementOf(Device device, string terminal) =>
        device.Kind.Elements(device).FirstOrDefault(e => e.A == terminal || e.B == terminal);

    private IEnumerable<DrawnCoupling> Couplings(ImmutableArray<DrawnPart> parts)
    {
        // Poles lie side by side; the coils of the same contactors need no second line.
        foreach (var part in parts.Where(p => p.Element == "pole"))
        {
            foreach (
                var tag in circuit
                    .Device(part.Device)
                    .Kind.CoupledTo(circuit.Device(part.Device))
                    .Where(t => string.CompareOrdinal(part.Device, t) < 0)
            )
            {
                if (parts.FirstOrDefault(p => p.Device == tag && p.Element == "pole") is { } other)
                {
                    yield return new DrawnCoupling(
                        part.Device,
                        tag,
                        part.X + part.Width - PolePitch,
                        part.Y + CouplingShare * part.Height,
                        other.X,
                        other.Y + CouplingShare * other.Height
                    );
                }
            }
        }
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

    private void Straight(ImmutableArray<string> wires, double x, double from, double to)
    {
        for (var i = 0; i < wires.Length && to > from; i++)
        {
            Wire(wires[i], label: false, (x + i * PolePitch, from), (x + i * PolePitch, to));
        }
    }

    private void Wire(string wire, bool label, params (double X, double Y)[] points)
    {
        var (a, b) = (points[0], points[^1]);
        _wires.Add(new DrawnWire(wire, [.. points], label ? ((a.X + b.X) / 2, (a.Y + b.Y) / 2) : null));
    }

    private ImmutableArray<string> HeadWires(PathExpression expression) =>
        expression switch
        {
            Part p => [.. p.In.Select(t => circuit.WireAt(new TerminalId(p.Device, t)))],
            InSeries s => HeadWires(s.Children[0]),
            InParallel p => HeadWires(p.Children[0]),
            Stub f => HeadWires(f.Of[0]),
            _ => [],
        };

    private ImmutableArray<string> TailWires(PathExpression expression) =>
        expression switch
        {
            Part p => [.. p.Out.Select(t => circuit.WireAt(new TerminalId(p.Device, t)))],
            InSeries s => TailWires(s.Children[^1]),
            InParallel p => TailWires(p.Children[0]),
            Stub f => TailWires(f.Of[0]),
            _ => [],
        };

    private static double Width(PathExpression expression) =>
        expression switch
        {
            Part p => Math.Max(p.In.Length, p.Out.Length) * PolePitch,
            InSeries s => s.Children.Max(Width),
            InParallel p => p.Children.Sum(Width) + ColumnGap * (p.Children.Length - 1),
            Stub => PolePitch,
            _ => 0,
        };

    private double Height(PathExpression expression) =>
        expression switch
        {
            Part p => PartHeight + (CrossesAbove(p) ? Gap : 0) + (CrossesBelow(p) ? Gap : 0),
            InSeries s => s.Children.Sum(Height) + Gap * (s.Children.Length - 1),
            InParallel p => p.Children.Max(Height) + 2 * Gap,
            Stub => PartHeight,
            _ => 0,
        };

    /// <summary>Whether the part the path exists for stands in here: a coil, a lamp.</summary>
    private bool HoldsLoad(PathExpression expression) =>
        expression is not Stub
        && expression.Parts().Any(p => circuit.Device(p.Device) is var d && ElementOf(d, p.In[0]) is { Role: ElementRole.Load });

    private static string RoleName(ElementRole? role) => role is { } r ? char.ToLowerInvariant(r.ToString()[0]) + r.ToString()[1..] : "";
}
