using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Drawing;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Desk;

/// <summary>A line of the register.</summary>
public sealed record CircuitListItem(
    Guid Id,
    string Tag,
    string Title,
    string Area,
    string Enclosure,
    int Version,
    int Jobs,
    Guid? OpenJob,
    string? LastFault,
    DateTimeOffset? LastJobAt
);

/// <summary>Everything a client needs to show a circuit.</summary>
public sealed record CircuitView(
    Guid Id,
    int Version,
    string Tag,
    string Title,
    string Area,
    string Enclosure,
    string Drawing,
    string Notes,
    TerminalId Reference,
    ImmutableArray<LocationView> Locations,
    ImmutableArray<DeviceView> Devices,
    ImmutableArray<Conductor> Conductors,
    ImmutableArray<SheetView> Sheets,
    ImmutableArray<string> IsolationPoints,
    ImmutableArray<DesignFinding> Findings,
    ImmutableArray<string> Cautions,
    ImmutableArray<CircumstanceInWords> Circumstances
);

public sealed record LocationView(string Id, string Name, LocationType Type, double CableMetres);

public sealed record DeviceView(
    string Tag,
    string Kind,
    string Term,
    string Location,
    string Function,
    ImmutableArray<string> Terminals,
    ImmutableArray<string> Positions,
    ImmutableArray<Actuation> Actuations,
    ImmutableArray<string> Appearances,
    ImmutableArray<LookView> Looks,
    ImmutableArray<string> Cautions,
    bool IsStrip,
    string Rest,
    ImmutableArray<SettingView> Settings
);

/// <summary>A rating or setting of a device as it can be changed.</summary>
/// <param name="Group">Where a person looks for it.</param>
public sealed record SettingView(
    PlateGroup Group,
    string Name,
    string Description,
    string Unit,
    string Value,
    string Type,
    double Minimum,
    double Maximum,
    ImmutableArray<string> Choices
);

public sealed record LookView(string Id, string Question, ImmutableArray<string> Answers, bool DeadOnly);

public sealed record SheetView(
    PathType Type,
    double Width,
    double Height,
    ImmutableArray<PartView> Parts,
    ImmutableArray<WireView> Wires,
    ImmutableArray<ReferenceView> References,
    ImmutableArray<DrawnCoupling> Couplings,
    ImmutableArray<DrawnStub> Stubs
);

public sealed record PartView(
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

public sealed record WireView(string Wire, ImmutableArray<PointView> Points, PointView? Label);

public sealed record PointView(double X, double Y);

public sealed record ReferenceView(TerminalId Terminal, string Wire, double X, double Y, bool IsTop);

public static class CircuitMapping
{
    public static CircuitView ToView(this CompiledCircuit compiled, Guid id, int version) =>
        ToView(compiled, compiled.Circuit, id, version);

    private static CircuitView ToView(CompiledCircuit compiled, Circuit c, Guid id, int version) =>
        new(
            id,
            version,
            c.Tag,
            c.Title,
            c.Area,
            c.Enclosure,
            c.Drawing,
            c.Notes,
            c.Reference,
            [.. c.Locations.Select(l => new LocationView(l.Id, l.Name, l.Type, l.CableMetres))],
            [.. c.Devices.Select(d => ToView(c, d))],
            c.Conductors,
            [.. compiled.Sheets.Select(ToView)],
            compiled.Isolation.Points,
            compiled.DesignReview.Findings,
            [.. c.Devices.SelectMany(d => d.Kind.Cautions(d)).Distinct().Select(x => $"{x}")],
            Circumstances.All
        );

    private static DeviceView ToView(Circuit circuit, Device d) =>
        new(
            d.Tag,
            d.Kind.Id,
            d.Kind.Name.ToString(),
            d.Location,
            d.Function,
            d.Kind.IsStrip
                ?
                [
                    .. circuit
                        .Conductors.SelectMany(x => new[] { x.From, x.To })
                        .Where(t => t.Device == d.Tag)
                        .Select(t => t.Name)
                        .Distinct(),
                ]
                : d.Kind.Terminals(d),
            d.Kind.Positions(d),
            d.Kind.Actuations(d),
            d.Kind.Appearances.Length > 0 ? d.Kind.Appearances : [],
            [.. d.Kind.Looks(d).Select(l => new LookView(l.Id, l.Question, [.. l.Answers], l.DeadOnly))],
            [.. d.Kind.Cautions(d).Select(x => $"{x}")],
            d.Kind.IsStrip,
            d.Kind.Positions(d)[d.Kind.InitialPosition(d)],
            [.. d.Kind.AllParameters.Select(p => ToView(p, d.Given(p.Name).ToString()))]
        );

    private static SettingView ToView(ParameterSpec spec, string value) =>
        spec switch
        {
            NumberSpec n => new SettingView(n.Group, n.Name, n.Description, n.Unit, value, "number", n.Minimum, n.Maximum, []),
            WordSpec { Choices.Length: > 0 } w => new SettingView(
                w.Group,
                w.Name,
                w.Description,
                "",
                value,
                "choice",
                0,
                0,
                [.. w.Choices]
            ),
            ContactsSpec c => new SettingView(c.Group, c.Name, c.Description, "", value, "contacts", 0, 0, []),
            _ => new SettingView(spec.Group, spec.Name, spec.Description, "", value, "text", 0, 0, []),
        };

    public static SheetView ToView(DrawingSheet s) =>
        new(
            s.Type,
            s.Width,
            s.Height,
            [
                .. s.Parts.Select(p => new PartView(
                    p.Device,
                    p.Kind,
                    p.Element,
                    p.Name,
                    p.Function,
                    p.Location,
                    p.Column,
                    p.X,
                    p.Y,
                    p.Width,
                    p.Height,
                    p.Ladder,
                    p.Letters,
                    p.IsDelayed,
                    p.Terminals,
                    p.References
                )),
            ],
            [
                .. s.Wires.Select(w => new WireView(
                    w.Wire,
                    [.. w.Points.Select(p => new PointView(p.X, p.Y))],
                    w.Label is { } l ? new PointView(l.X, l.Y) : null
                )),
            ],
            [.. s.References.Select(r => new ReferenceView(r.Terminal, r.Wire, r.X, r.Y, r.IsTop))],
            s.Couplings,
            s.Stubs
        );
}
