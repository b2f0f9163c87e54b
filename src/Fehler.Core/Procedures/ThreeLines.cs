using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Trade;

namespace Fehler.Core.Procedures;

/// <summary>Where three line values are taken as one set.</summary>
/// <param name="Id">Stable name within the circuit.</param>
/// <param name="Label">What a person calls the place.</param>
/// <param name="Terminals">The three points, in the order of the lines.</param>
public sealed record ThreeLinesPlace(string Id, string Label, ImmutableArray<TerminalId> Terminals)
{
    /// <summary>Where the leads go for each of the three values: between two lines, or the clamp around one.</summary>
    public ImmutableArray<(TerminalId From, TerminalId To)> Leads(Quantity quantity) =>
        quantity.IsAmps()
            ? [.. Terminals.Select(t => (t, t))]
            : [(Terminals[0], Terminals[1]), (Terminals[1], Terminals[2]), (Terminals[2], Terminals[0])];
}

/// <summary>
/// Three voltages between lines, or three line currents, entered as one set: what they say together, each line against the others and
/// against the plate.
/// </summary>
public sealed class ThreeLines
{
    /// <summary>A line that draws less than this share of the others draws nothing.</summary>
    private const double NothingShare = 0.1;

    /// <summary>
    /// From here on unlike volts and currents are to be looked into (common practice: one per cent of the volts makes six to ten of the
    /// currents).
    /// </summary>
    private const double VoltsToMind = 0.01,
        AmpsToMind = 0.1;

    /// <summary>How far the supply may be from what it is rated (IEC 60038, from memory).</summary>
    private const double SupplyBand = 0.1;

    /// <summary>From this share of its standing current on a motor stands, in all three lines.</summary>
    private const double StandsShare = 0.6;

    private readonly Circuit _circuit;

    internal ThreeLines(CompiledCircuit compiled)
    {
        _circuit = compiled.Circuit;
        Places =
        [
            .. _circuit
                .Devices.Where(d => d.Kind.Poles(d).Length >= 3)
                .Select(d => Place(d, [.. d.Kind.Poles(d).Take(3).Select(p => d.Terminal(p.Load))])),
        ];
    }

    /// <summary>Every place, from the supply down.</summary>
    public ImmutableArray<ThreeLinesPlace> Places { get; }

    /// <summary>The place of this name; null when there is none.</summary>
    public ThreeLinesPlace? Find(string id) => Places.FirstOrDefault(p => p.Id == id);

    /// <summary>What three values say together, in sentences with their numbers.</summary>
    /// <exception cref="RefusedException">No set of three line values.</exception>
    public ImmutableArray<string> Verdict(Quantity quantity, IReadOnlyList<double> values)
    {
        if (values.Count != 3)
        {
            throw new RefusedException("Three values make a set.");
        }

        return quantity switch
        {
            Quantity.Volts => [.. OfVolts(values)],
            Quantity.Amps => [.. OfAmps(values)],
            _ => throw new RefusedException("A set of three is of volts between lines or of currents while it runs."),
        };
    }

    private static ThreeLinesPlace Place(Device device, ImmutableArray<TerminalId> terminals) =>
        new(
            device.Tag,
            $"{device.Tag} {string.Join(", ", terminals.Select(t => t.Name))}{(device.Function.Length > 0 ? $" ({device.Function})" : "")}",
            terminals
        );

    private IEnumerable<string> OfVolts(IReadOnlyList<double> values)
    {
        var unbalance = Unbalance.Of(values[0], values[1], values[2]);
        yield return $"Mean {Number(unbalance.Mean, "0.#")} V; farthest from it {Number(values.MaxBy(v => Math.Abs(v - unbalance.Mean)), "0.#")} V: "
            + $"unbalance {Percent(unbalance.Share)}{(unbalance.SequenceShare is { } v2 ? $", V2/V1 {Percent(v2)}" : "")}.";
        var rated = _circuit.Supply.Kind.SourceOf(_circuit.Supply)!.LineVolts.Value;
        if (Math.Abs(unbalance.Mean - rated) > SupplyBand * rated)
        {
            yield return $"The mean is {Percent(unbalance.Mean / rated - 1)} from the supply's {Number(rated, "0")} V; "
                + $"{Percent(SupplyBand)} is allowed "
                + "(torque goes with the square of the volts).";
        }

        if (unbalance.Share > VoltsToMind)
        {
            yield return unbalance.Derating is { } left
                ? $"A motor bears {Number(left, "0.00")} of its power at that (NEMA MG 1); look for the line that is unlike before blaming the motor."
                : "More than 5 %: a motor is not to run on that. Look for an open line, a bad joint, a fuse.";
        }
    }

    private IEnumerable<string> OfAmps(IReadOnlyList<double> values)
    {
        var unbalance = Unbalance.Of(values[0], values[1], values[2]);
        var dead = Enumerable.Range(0, 3).Where(i => values[i] < NothingShare * values.Max()).ToList();
        var plate = _circuit.Devices.Select(d => d.Kind.PlateOf(d)).Where(p => p is not null).ToList();
        if (dead.Count == 1)
        {
            yield return $"Line {dead[0] + 1} draws nothing and the others do: that line is open, from the supply to the motor. "
                + "Such a motor draws 1.7 to 2 times its current while it runs and hums when it is started: switch it off.";
            yield break;
        }

        yield return $"Mean {Number(unbalance.Mean, "0.##")} A; farthest from it "
            + $"{Number(values.MaxBy(v => Math.Abs(v - unbalance.Mean)), "0.##")} A: "
            + $"unbalance {Percent(unbalance.Share)}.";
        if (plate is [{ } only])
        {
            var rated = only.LeadShare * only.Amps.Value;
            yield return $"The highest is {Percent(values.Max() / rated)} of the {Number(rated, "0.##")} A that the plate allows in a line"
                + $"{(values.Max() > rated ? ": overloaded, low volts, or an open or bad line." : ".")}";
            if (only.StartingMultiple > 0 && values.Min() > StandsShare * only.StartingMultiple * rated)
            {
                yield return $"That is what it draws standing, about {Number(only.StartingMultiple, "0.#")} times its plate: it does not turn. "
                    + "Switch it off: jammed load, brake not lifted, shorted turns, far too low volts.";
            }
        }

        if (unbalance.Share > AmpsToMind)
        {
            yield return "More than 10 % apart: measure the three voltages. Alike there, exchange all three leads by one place (the "
                + "direction stays): "
                + "what stays with the line is the supply's, what moves with the lead is the motor's.";
        }
    }

    private static string Percent(double share) => Number(100 * share, Math.Abs(share) < 0.1 ? "0.0#" : "0.#") + " %";

    private static string Number(double value, string format) => value.ToString(format, CultureInfo.InvariantCulture);
}
