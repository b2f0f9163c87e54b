using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Drawing;

/// <summary>A symbol on the drawing grid: one part of a path. Current flows downwards.</summary>
/// <param name="Kind">Device kind id; the client has one symbol for each.</param>
/// <param name="Element">Role of the element ("normallyOpen", "pole"...) for kinds that draw several; empty for whole devices.</param>
/// <param name="Name">Terminals of the element as written (<c>13-14</c>), or of all its poles.</param>
/// <param name="Location">Where the device sits.</param>
/// <param name="Column">Number of the current path it stands in, counted over the sheet from 1.</param>
/// <param name="Ladder">Its shape in a ladder.</param>
/// <param name="Letters">Letters in the box that stands for it.</param>
/// <param name="IsDelayed">A contact that acts after a delay.</param>
/// <param name="Terminals">Terminals with their place on the grid.</param>
/// <param name="References">Where the other parts of the device are drawn; filled for the part with the coil.</param>
public sealed record DrawnPart(
    string Device,
    string Kind,
    string Element,
    string Name,
    string Function,
    string Location,
    int Column,
    double X,
    double Y,
    double Width,
    double Height,
    LadderShape Ladder,
    string Letters,
    bool IsDelayed,
    ImmutableArray<DrawnTerminal> Terminals,
    ImmutableArray<CrossReference> References
);

public sealed record DrawnTerminal(TerminalId Terminal, double X, double Y);

/// <summary>Where a contact of a coil's device is drawn.</summary>
/// <param name="Contact">Its terminals, <c>13-14</c>.</param>
/// <param name="Sheet">Power or control.</param>
/// <param name="Column">Current path; 0 when it is not used.</param>
public sealed record CrossReference(string Contact, PathType Sheet, int Column);

/// <summary>A stretch of wire: a polyline, the wire number it carries, and where the number is written.</summary>
public sealed record DrawnWire(string Wire, ImmutableArray<(double X, double Y)> Points, (double X, double Y)? Label);

/// <summary>Where a path begins or ends: the terminal it is taken from or returns to.</summary>
public sealed record DrawnReference(TerminalId Terminal, string Wire, double X, double Y, bool IsTop);

/// <summary>A mechanical coupling between two parts: an interlock, a brake on a shaft.</summary>
public sealed record DrawnCoupling(string From, string To, double FromX, double FromY, double ToX, double ToY);

/// <summary>Where folded branches would begin, with the tags in them.</summary>
public sealed record DrawnStub(string Text, double X, double Y);

/// <summary>One drawing sheet, power or control.</summary>
public sealed record DrawingSheet(
    PathType Type,
    double Width,
    double Height,
    ImmutableArray<DrawnPart> Parts,
    ImmutableArray<DrawnWire> Wires,
    ImmutableArray<DrawnReference> References,
    ImmutableArray<DrawnCoupling> Couplings
)
{
    /// <summary>Branches that are folded away; none in the whole drawing.</summary>
    public ImmutableArray<DrawnStub> Stubs { get; init; } = [];
}

/// <summary>
/// Places the symbols of a circuit on a grid, from its structure alone: series downwards, parallel side by side, the first
/// branch straight on, coils and lamps in one line at the bottom. One grid unit is the pitch between neighbouring poles. A
/// ladder is the same grid with its axes exchanged.
/// </summary>
public static class DrawingLayout
{
    internal static ImmutableArray<DrawingSheet> Of(Circuit circuit)
    {
        var sheets = new[] { PathType.Power, PathType.Control }
            .Select(type => new SheetBuilder(circuit, type, null).Build())
            .Where(s => s.Parts.Length > 0)
            .ToList();
        return [.. sheets.Select(s => s with { Parts = [.. s.Parts.Select(p => p with { References = References(circuit, sheets, p) })] })];
    }

    /// <summary>
    /// The path in question: what is asked about and what is suspected with all that lies in series with it; every other branch is a stub. Parts
    /// keep the numbers that their paths have in the whole drawing.
    /// </summary>
    /// <param name="compiled">The circuit.</param>
    /// <param name="units">Devices and conductors that are suspected.</param>
    /// <param name="terminals">Terminals that are asked about.</param>
    public static ImmutableArray<DrawingSheet> InQuestion(
        CompiledCircuit compiled,
        IReadOnlySet<string> units,
        IReadOnlySet<TerminalId> terminals
    )
    {
        var circuit = compiled.Circuit;
        var ends = circuit
            .Conductors.Where(c => units.Contains(c.Id))
            .SelectMany(c => new[] { c.From, c.To })
            .Concat(terminals)
            .ToHashSet();
        var folding = new Folding(part =>
            units.Contains(part.Device) || part.In.Concat(part.Out).Any(t => ends.Contains(new TerminalId(part.Device, t)))
        );
        return circuit.Paths.Any(p => folding.Keeps(p.Expression))
            ?
            [
                .. compiled.Sheets.Select(whole =>
                {
                    var sheet = new SheetBuilder(circuit, whole.Type, folding).Build();
                    return sheet with
                    {
                        Parts =
                        [
                            .. sheet.Parts.Select(p =>
                            {
                                var same = whole.Parts.First(w => w.Device == p.Device && w.Name == p.Name);
                                return p with { Column = same.Column, References = same.References };
                            }),
                        ],
                    };
                }),
            ]
            : compiled.Sheets;
    }

    /// <summary>A coil tells where its contacts are; unused ones are listed as spare.</summary>
    private static ImmutableArray<CrossReference> References(Circuit circuit, List<DrawingSheet> sheets, DrawnPart part)
    {
        var device = circuit.Device(part.Device);
        var elements = device.Kind.Elements(device);
        if (elements[0].Role != ElementRole.Load || elements[0].Name != part.Name)
        {
            return [];
        }

        CrossReference Find(string name)
        {
            var drawn = sheets
                .SelectMany(s => s.Parts.Select(p => (s.Type, Part: p)))
                .FirstOrDefault(x => x.Part.Device == part.Device && x.Part.Name.Split(',').Contains(name));
            return new CrossReference(name, drawn.Type, drawn.Part?.Column ?? 0);
        }

        var contacts = elements.Skip(1).Where(e => e.IsContact).Select(e => Find(e.Name)).ToList();
        // The poles of a contactor are one thing.
        var poles = elements.Where(e => e.Role == ElementRole.Pole).Select(e => e.Name).ToList();
        return [.. contacts.Where(c => !poles.Skip(1).Contains(c.Contact))];
    }
}
