using System.Globalization;
using Fehler.Core.Circuits;
using static Fehler.Core.Circuits.CircuitException;

namespace Fehler.Core.Editing;

/// <content>Wires: their numbers, the terminals they run through, where an end is landed.</content>
public static partial class CircuitEditor
{
    private static Circuit Renumber(Circuit circuit, RenumberWire edit)
    {
        Require(circuit.Conductors.Any(c => c.Wire == edit.Wire), "edit.wire", $"There is no wire {edit.Wire}.");
        var fresh = edit.NewWire.Trim();
        Require(fresh.Length is > 0 and <= 20, "edit.newWire", "Give the number that is on the ferrules.");
        Require(
            fresh == edit.Wire || circuit.Conductors.All(c => c.Wire != fresh),
            "edit.newWire",
            $"Wire {fresh} is there already and is another potential."
        );
        return Numbered(circuit, wire => wire == edit.Wire ? fresh : wire);
    }

    private static Circuit Renumber(Circuit circuit, RenumberWires edit)
    {
        const int most = 100_000;
        Require(edit.First is >= 0 and < most, "edit.first", $"The first number goes from 0 to {most - 1}.");
        Require(edit.Step is > 0 and <= 1000, "edit.step", "Each wire is 1 to 1000 further than the one before.");
        var fresh = circuit
            .Conductors.Select(c => c.Wire)
            .Distinct()
            .Where(w => w.Length < 10 && w.All(char.IsAsciiDigit))
            .OrderBy(w => int.Parse(w, CultureInfo.InvariantCulture))
            .Select((wire, i) => (wire, Number: (edit.First + i * edit.Step).ToString(CultureInfo.InvariantCulture)))
            .ToDictionary(x => x.wire, x => x.Number);
        Require(fresh.Count > 0, "edit", "No wire has a plain number; renumber each by its own.");
        return Numbered(circuit, wire => fresh.GetValueOrDefault(wire, wire));
    }

    /// <summary>All wires by their new numbers at once; a strip's clamp is called as its wire.</summary>
    private static Circuit Numbered(Circuit circuit, Func<string, string> number)
    {
        var strips = circuit.Devices.Where(d => d.Kind.IsStrip).Select(d => d.Tag).ToHashSet();
        return circuit with
        {
            Conductors =
            [
                .. circuit.Conductors.Select(c =>
                {
                    var fresh = number(c.Wire);
                    TerminalId At(TerminalId t) => strips.Contains(t.Device) && t.Name == c.Wire ? t with { Name = fresh } : t;
                    return c with { Id = fresh + c.Id[c.Wire.Length..], Wire = fresh, From = At(c.From), To = At(c.To) };
                }),
            ],
        };
    }

    private static IEnumerable<(TerminalId, TerminalId)> Chain(Circuit circuit, RouteChained edit)
    {
        var ends = edit
            .Terminals.Select(t =>
                TerminalId.TryParse(t, out var id)
                    ? id
                    : throw new CircuitException("edit.terminals", $"'{t}' is not a terminal like KM1:A1.")
            )
            .ToList();
        Require(ends.Count > 1, "edit.terminals", $"Wire {edit.Wire} runs between at least two terminals.");
        return ends.Zip(ends.Skip(1));
    }

    private static IEnumerable<(TerminalId, TerminalId)> OverStrip(Circuit circuit, RouteOverStrip edit)
    {
        var strip = Known(circuit, edit.Strip);
        Require(strip.Kind.IsStrip, "edit.strip", $"{edit.Strip} is not a terminal strip.");
        return circuit
            .Conductors.Where(c => c.Wire == edit.Wire)
            .SelectMany(c => new[] { c.From, c.To })
            .Distinct()
            .Where(t => t.Device != strip.Tag)
            .Select(t => (strip.Terminal(edit.Wire), t));
    }

    private static Circuit Route(Circuit circuit, string wire, IEnumerable<(TerminalId From, TerminalId To)> route)
    {
        var before = circuit.Conductors.Where(c => c.Wire == wire).ToList();
        Require(before.Count > 0, "edit.wire", $"There is no wire {wire}.");
        var conductors = route.Select(
            (r, i) =>
                before.FirstOrDefault(b => (b.From, b.To) == r || (b.To, b.From) == r) is { } same
                    ? same with
                    {
                        Id = $"{wire}.{i + 1}",
                    }
                    : new Conductor($"{wire}.{i + 1}", wire, r.From, r.To, circuit.MetresBetween(r.From, r.To), before[0].SquareMillimetres)
        );
        return Checked(circuit with { Conductors = [.. circuit.Conductors.Where(c => c.Wire != wire), .. conductors] });
    }

    private static Circuit Move(Circuit circuit, MoveEnd edit)
    {
        var conductor =
            circuit.Conductors.FirstOrDefault(c => c.Id == edit.Conductor)
            ?? throw new CircuitException("edit.conductor", $"There is no conductor {edit.Conductor}.");
        var to = TerminalId.TryParse(edit.Terminal, out var id)
            ? id
            : throw new CircuitException("edit.terminal", $"'{edit.Terminal}' is not a terminal like KM1:A1.");
        var moved = edit.From ? conductor with { From = to } : conductor with { To = to };
        return Checked(
            circuit with
            {
                Conductors = circuit.Conductors.Replace(conductor, moved with { Metres = circuit.MetresBetween(moved.From, moved.To) }),
            }
        );
    }
}
