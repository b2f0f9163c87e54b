using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>
/// A circuit as a drawing office or somebody who traces a panel has it: tables in one CSV text, apart by empty lines. What it is (circuit,
/// title, area, enclosure, drawing), places (place, name, type, cable), devices (device, kind, place, function, parameters) and wires (from,
/// to, wire, metres, mm2). The structure is found from the wires, see <see cref="WiringReduction"/>.
/// </summary>
public static class WiringList
{
    private static readonly string[] Heads = ["circuit", "title", "area", "enclosure", "drawing"],
        Places = ["place", "name", "type", "cable"],
        Devices = ["device", "kind", "place", "function", "parameters"],
        Wires = ["from", "to", "wire", "metres", "mm2"];

    private static readonly string[][] Known = [Heads, Places, Devices, Wires];

    /// <summary>Whether a text looks like a wiring list rather than like a circuit file.</summary>
    public static bool IsOne(string text) =>
        text.TrimStart('\uFEFF', ' ', '\r', '\n', '\t') is var start
        && (
            start.StartsWith("circuit", StringComparison.OrdinalIgnoreCase)
            || start.StartsWith("place", StringComparison.OrdinalIgnoreCase)
            || start.StartsWith("device", StringComparison.OrdinalIgnoreCase)
            || start.StartsWith("from", StringComparison.OrdinalIgnoreCase)
        );

    /// <summary>Reads a wiring list.</summary>
    /// <param name="text">The tables; fields apart by comma, semicolon or tab.</param>
    /// <param name="name">Designation of a circuit whose list does not say it.</param>
    /// <exception cref="CircuitException">Something in it is wrong; names the line.</exception>
    public static Circuit Read(string text, string name)
    {
        if (text.Length > CircuitLimits.FileBytes)
        {
            throw new CircuitException("list", "is larger than 2 MB; a wiring list has some tens of kilobytes.");
        }

        var tables = Tables(text);
        var head = tables.FirstOrDefault(r => r.Table == Heads);
        var devices = tables.Where(r => r.Table == Devices).Select(ReadDevice).ToImmutableArray();
        var places = tables.Where(r => r.Table == Places).Select(ReadPlace).ToImmutableArray();
        if (places.IsEmpty)
        {
            places = [.. devices.Select(d => d.Location).Distinct().Select(UsualPlace)];
        }

        var wires = tables.Where(r => r.Table == Wires).ToList();
        Require(devices.Length > 0, "list", "has no table of devices: device, kind, place, function, parameters.");
        Require(wires.Count > 0, "list", "has no table of wires: from, to, wire, metres, mm2.");
        var conductors = wires.Select((w, i) => ReadWire(w, i, devices)).ToImmutableArray();
        var paths = new WiringReduction(devices, conductors).Paths();
        return new CircuitBuilder
        {
            Tag = head?["circuit"] ?? name,
            Title = head?["title"] is { Length: > 0 } title ? title : "Traced panel",
            Area = head?["area"] ?? "",
            Enclosure = head?["enclosure"] ?? "",
            Drawing = head?["drawing"] ?? "",
            Locations = places,
            Devices = devices,
            Paths = paths,
            Conductors = Numbered(conductors, devices.Where(d => d.Kind.IsSupply).Select(d => d.Tag).ToHashSet()),
            Reference = paths.Any(p => p.Type == PathType.Control && p.To.Length > 0) ? null : Earthed(devices, conductors),
        }.Build();
    }

    /// <summary>Where there is no control circuit, readings refer to the neutral, or to earth.</summary>
    private static TerminalId Earthed(ImmutableArray<Device> devices, ImmutableArray<Conductor> conductors)
    {
        var supply = devices.First(d => d.Kind.IsSupply);
        return conductors.SelectMany(c => new[] { c.From, c.To }).Contains(supply.Terminal("N"))
            ? supply.Terminal("N")
            : supply.Terminal("PE");
    }

    /// <summary>Writes a circuit as a wiring list.</summary>
    public static string Write(Circuit circuit)
    {
        var text = new StringBuilder();
        Line(Heads);
        Line([circuit.Tag, circuit.Title, circuit.Area, circuit.Enclosure, circuit.Drawing]);
        text.Append('\n');
        Line(Places);
        foreach (var l in circuit.Locations)
        {
            Line([l.Id, l.Name, CircuitFile.TypeName(l.Type), Number(l.CableMetres)]);
        }

        text.Append('\n');
        Line(Devices);
        foreach (var d in circuit.Devices)
        {
            Line([d.Tag, d.Kind.Id, d.Location, d.Function, string.Join("; ", d.Parameters.Select(p => $"{p.Key}={p.Value}"))]);
        }

        text.Append('\n');
        Line(Wires);
        foreach (var c in circuit.Conductors)
        {
            Line([$"{c.From}", $"{c.To}", c.Wire, Number(c.Metres), Number(c.SquareMillimetres)]);
        }

        return text.ToString();

        void Line(IEnumerable<string> fields) => text.AppendJoin(',', fields.Select(Quoted)).Append('\n');
        static string Number(double number) => number.ToString("0.####", CultureInfo.InvariantCulture);
        static string Quoted(string field) =>
            field.IndexOfAny([',', ';', '"', '\n', '\r', '\t']) < 0
                ? field
                : $"\"{field.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
    }

    private sealed record Row(string[] Table, ImmutableArray<string> Fields, long Line)
    {
        public string At => $"line {Line}";

        public string this[string column] => Array.IndexOf(Table, column) is var i && i < Fields.Length ? Fields[i].Trim() : "";
    }

    private static List<Row> Tables(string text)
    {
        var rows = new List<Row>();
        string[]? table = null;
        foreach (var (line, fields) in SeparatedText.Rows(text))
        {
            var header = Known.FirstOrDefault(t =>
                string.Equals(t[0], fields[0], StringComparison.OrdinalIgnoreCase)
                && fields.Length > 1
                && string.Equals(t[1], fields[1].Trim(), StringComparison.OrdinalIgnoreCase)
            );
            if (header is not null)
            {
                table = header;
                continue;
            }

            Require(
                table is not null,
                $"line {line}",
                $"stands before any table; begin with {string.Join(", ", Devices)} and then {string.Join(", ", Wires)}."
            );
            Require(
                fields.Length <= table!.Length,
                $"line {line}",
                $"has {fields.Length} fields; this table has {string.Join(", ", table)}. Put texts with commas in quotation marks."
            );
            rows.Add(new Row(table, [.. fields], line));
        }

        return rows;
    }

    private static Location ReadPlace(Row row) =>
        UsualPlace(row["place"]) with
        {
            Name = row["name"].Length > 0 ? row["name"] : row["place"],
            Type = row["type"].ToUpperInvariant() switch
            {
                "" => UsualPlace(row["place"]).Type,
                "ENCLOSURE" => LocationType.Enclosure,
                "FIELD" => LocationType.FieldStation,
                "MOTOR" => LocationType.Motor,
                _ => throw new CircuitException(row.At, $"'{row["type"]}' is not enclosure, field or motor."),
            },
            CableMetres = Number(row, "cable", 0),
        };

    /// <summary>Without a table of places, "motor" is at the motor, "panel" the enclosure, anything else in the field.</summary>
    private static Location UsualPlace(string id) =>
        id.StartsWith("motor", StringComparison.OrdinalIgnoreCase) ? new Location(id, id, LocationType.Motor, 20)
        : id.StartsWith("panel", StringComparison.OrdinalIgnoreCase) ? new Location(id, id, LocationType.Enclosure, 0)
        : new Location(id, id, LocationType.FieldStation, 20);

    private static Device ReadDevice(Row row)
    {
        var kind =
            DeviceKinds.Find(row["kind"])
            ?? throw new CircuitException(
                row.At,
                $"'{row["kind"]}' is no kind of device; expected one of: {string.Join(", ", DeviceKinds.All.Select(k => k.Id))}."
            );
        var parameters = Device.NoParameters;
        foreach (var given in row["parameters"].Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var (name, value) = given.IndexOf('=', StringComparison.Ordinal) is > 0 and var i
                ? (given[..i].Trim(), given[(i + 1)..].Trim())
                : ("", "");
            var spec =
                kind.AllParameters.FirstOrDefault(p => p.Name == name)
                ?? throw new CircuitException(
                    row.At,
                    $"'{given}' is not a parameter of a {kind.Name}; write name=value, apart by semicolons: "
                        + $"{string.Join(", ", kind.AllParameters.Select(p => p.Name))}."
                );
            parameters = parameters.SetItem(
                name,
                spec switch
                {
                    NumberSpec => double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
                        ? number
                        : throw new CircuitException(row.At, $"'{value}' is not a number for {name}; write decimals with a point."),
                    ContactsSpec or NamesSpec => ParameterValue.FromWords(
                        value.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                    ),
                    _ => value,
                }
            );
        }

        return new Device(row["device"], kind, row["place"].Length > 0 ? row["place"] : "panel", parameters, row["function"]);
    }

    private static Conductor ReadWire(Row row, int index, ImmutableArray<Device> devices)
    {
        TerminalId Terminal(string column)
        {
            var at = TerminalId.TryParse(row[column], out var id)
                ? id
                : throw new CircuitException(row.At, $"'{row[column]}' is not a terminal like KM1:A1.");
            var device =
                devices.FirstOrDefault(d => d.Tag == id.Device)
                ?? throw new CircuitException(row.At, $"{id} names a device that is not in the table of devices.");
            Require(
                device.Kind.HasTerminal(device, id.Name),
                row.At,
                $"{id} does not exist: {device.Tag} has {string.Join(", ", device.Kind.Terminals(device))}."
            );
            return at;
        }

        return new Conductor(
            $"#{index}",
            row["wire"],
            Terminal("from"),
            Terminal("to"),
            Number(row, "metres", Conductor.NotStated),
            Number(row, "mm2", Conductor.DefaultSquareMillimetres)
        );
    }

    private static double Number(Row row, string column, double otherwise) =>
        row[column].Length == 0 ? otherwise
        : double.TryParse(row[column].Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number
        : throw new CircuitException(row.At, $"'{row[column]}' is not a number of {column}.");

    /// <summary>One number a wire, the one that any of its conductors is marked with, and an id along it.</summary>
    private static ImmutableArray<Conductor> Numbered(ImmutableArray<Conductor> conductors, HashSet<string> supplies)
    {
        var nets = new TerminalNets(conductors);
        var used = conductors.Select(c => c.Wire).Where(w => w.Length > 0).ToHashSet();
        var numbers = new Dictionary<int, string>();
        var counts = new Dictionary<string, int>();
        var next = 1;
        foreach (var c in conductors.OrderBy(c => c.Wire.Length == 0))
        {
            numbers.TryAdd(nets.Of(c.From), c.Wire.Length > 0 ? c.Wire : ComingIn(nets.Of(c.From)) ?? Fresh());
        }

        return
        [
            .. conductors.Select(c =>
            {
                var wire = numbers[nets.Of(c.From)];
                return c with { Wire = wire, Id = $"{wire}.{counts[wire] = counts.GetValueOrDefault(wire) + 1}" };
            }),
        ];

        // What nobody has numbered of the incoming wires is called as its terminal.
        string? ComingIn(int net) =>
            nets.Terminals.FirstOrDefault(t => supplies.Contains(t.Device) && nets.Of(t) == net) is { Name: { } name } && used.Add(name)
                ? name
                : null;

        string Fresh()
        {
            while (!used.Add($"{next}"))
            {
                next++;
            }

            return $"{next}";
        }
    }

    private static void Require(bool condition, string at, string message)
    {
        if (!condition)
        {
            throw new CircuitException(at, message);
        }
    }
}

/// <summary>Which terminals the conductors of a list join.</summary>
internal sealed class TerminalNets
{
    private readonly Dictionary<TerminalId, int> _index = [];
    private readonly int[] _net;

    public TerminalNets(IReadOnlyCollection<Conductor> conductors)
    {
        foreach (var t in conductors.SelectMany(c => new[] { c.From, c.To }))
        {
            _index.TryAdd(t, _index.Count);
        }

        var joined = new UnionFind(_index.Count);
        foreach (var c in conductors)
        {
            joined.Join(_index[c.From], _index[c.To]);
        }

        _net = joined.Roots();
    }

    /// <summary>Terminals that something is landed on.</summary>
    public IEnumerable<TerminalId> Terminals => _index.Keys;

    public bool Has(TerminalId terminal) => _index.ContainsKey(terminal);

    /// <summary>Number of the net that a terminal is on.</summary>
    public int Of(TerminalId terminal) => _net[_index[terminal]];
}
