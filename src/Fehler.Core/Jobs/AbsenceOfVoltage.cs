using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>A pair of points that has to be measured before a circuit counts as dead.</summary>
/// <param name="Quantity">Volts, or ohms for the protective conductor that “dead to earth” rests on.</param>
/// <param name="From">First lead.</param>
/// <param name="To">Second lead.</param>
/// <param name="Text">What it is between, as it is said.</param>
/// <param name="Good">What it shows where everything is as it should be.</param>
public sealed record ProvingPoint(Quantity Quantity, TerminalId From, TerminalId To, string Text, string Good);

/// <summary>
/// What has to be measured before this circuit is proved dead at the point of work: the protective conductor first, then behind the
/// isolating devices each phase to phase, to neutral and to earth, and every control supply and other source. Common practice, as in EN 50110-1 6.2.4
/// (from memory); local codes come first.
/// </summary>
public sealed class AbsenceOfVoltage
{
    /// <summary>What more than this shows is not dead, V: what leaks in shows less on a two-pole tester.</summary>
    public const double DeadBelowVolts = 12;

    /// <summary>A protective conductor of more than this is none, ohm.</summary>
    private const double OpenAboveOhms = 10;

    internal AbsenceOfVoltage(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        var live = compiled.Isolation.LiveTerminals;
        var landed = circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Distinct().ToList();
        var earthWire = circuit.WireAt(circuit.Earth);
        TerminalId? neutral = landed.Contains(circuit.Supply.Terminal("N")) ? circuit.Supply.Terminal("N") : null;
        var neutralWire = neutral is { } n ? circuit.WireAt(n) : "";

        // Behind each isolating device, one point a wire; what runs from there as another wire is looked at as a supply of its own.
        var phases = compiled
            .Isolation.Points.SelectMany(tag => landed.Where(t => t.Device == tag && !live.Contains(t)))
            .Where(t => circuit.WireAt(t) != earthWire && circuit.WireAt(t) != neutralWire)
            .DistinctBy(circuit.WireAt)
            .Take(MostPhases)
            .ToList();
        var sources = Sources(compiled, landed).Where(s => !live.Contains(s) && circuit.WireAt(s) != earthWire).ToList();
        var points = new List<ProvingPoint>();
        if (ProtectiveAtWork(circuit) is { } protective)
        {
            points.Add(
                new ProvingPoint(
                    Quantity.Ohms,
                    protective.At,
                    circuit.Earth,
                    $"Protective conductor: {protective.At} to the bar",
                    FormattableString.Invariant($"about {Math.Max(0.1, protective.Ohms):0.0#} Ω")
                )
            );
        }

        void Volts(TerminalId from, TerminalId to, string text)
        {
            if (from != to && !points.Exists(p => (p.From, p.To) == (from, to) || (p.From, p.To) == (to, from)))
            {
                points.Add(new ProvingPoint(Quantity.Volts, from, to, text, "0 V"));
            }
        }

        for (var i = 0; i < phases.Count; i++)
        {
            foreach (var other in phases.Skip(i + 1))
            {
                Volts(phases[i], other, $"{Named(circuit, phases[i])} to {Named(circuit, other)}");
            }
        }

        foreach (var phase in phases)
        {
            if (neutral is { } to)
            {
                Volts(phase, to, $"{Named(circuit, phase)} to neutral");
            }

            Volts(phase, circuit.Earth, $"{Named(circuit, phase)} to earth");
        }

        foreach (var source in sources)
        {
            Volts(source, compiled.ReturnOf(source), $"Control supply: {Named(circuit, source)} to its return");
            Volts(source, circuit.Earth, $"Control supply: {Named(circuit, source)} to earth");
        }

        if (neutral is { } zero)
        {
            Volts(zero, circuit.Earth, "Neutral to earth: it may carry what another circuit leaves on it");
        }

        Points = [.. points];
    }

    private const int MostPhases = 6;

    /// <summary>In the order in which they are measured.</summary>
    public ImmutableArray<ProvingPoint> Points { get; }

    /// <summary>Why a table of readings is no proof; null when it is one.</summary>
    public string? Refuse(ImmutableArray<ProvingReading> readings)
    {
        foreach (var reading in readings.Where(r => !Points.Any(p => p.From == r.From && p.To == r.To)))
        {
            return $"{reading.From} to {reading.To} is not asked for here; record it as a reading of its own.";
        }

        foreach (var point in Points)
        {
            if (readings.FirstOrDefault(r => r.From == point.From && r.To == point.To) is not { } reading)
            {
                return $"Not measured yet: {point.Text}.";
            }

            ReadingValue value;
            try
            {
                value = ReadingText.Parse(reading.Typed ?? "", point.Quantity);
            }
            catch (RefusedException e)
            {
                return $"{point.Text}: {e.Message}";
            }

            if (Shows(point, value) is { } wrong)
            {
                return wrong;
            }
        }

        return null;
    }

    private static string? Shows(ProvingPoint point, ReadingValue value)
    {
        var shown = ReadingText.Show(value, point.Quantity);
        if (point.Quantity == Quantity.Volts)
        {
            return value is { Kind: ReadingKind.Number } && Math.Abs(value.Number) < DeadBelowVolts
                ? null
                : $"{point.Text} shows {shown}: that is not dead. Look for a foreign supply, a point that was not opened, or what leaks in "
                    + "(a two-pole tester settles that), and treat it as live.";
        }

        return value is { Kind: ReadingKind.Number } && value.Number < OpenAboveOhms
            ? null
            : $"{point.Text} shows {shown}, expected {point.Good}: with it open “dead to earth” proves nothing. Find and mend it first.";
    }

    private static string Named(Circuit circuit, TerminalId at) =>
        circuit.WireAt(at) is { Length: > 0 } wire ? $"{at} (wire {wire})" : at.ToString();

    /// <summary>Heads of the control circuits and what feeds them beside the isolating devices: transformers, rectifiers, foreign supplies.</summary>
    private static IEnumerable<TerminalId> Sources(CompiledCircuit compiled, List<TerminalId> landed)
    {
        var circuit = compiled.Circuit;
        var solution = new Simulator(compiled.Network).Start().Solution;
        return circuit
            .Paths.Where(p => p.Type == PathType.Control)
            .SelectMany(p => p.From)
            .Where(landed.Contains)
            .Where(t =>
                Math.Max(solution.Volts(t, compiled.ReturnOf(t)).Magnitude, solution.DcVolts(t, compiled.ReturnOf(t)).Magnitude.Value)
                > DeadBelowVolts
            )
            .DistinctBy(circuit.WireAt)
            .Take(MostSources);
    }

    private const int MostSources = 3;

    /// <summary>Where the protective conductor of what is worked on ends, and what it measures to the bar by length and section.</summary>
    private static (TerminalId At, double Ohms)? ProtectiveAtWork(Circuit circuit)
    {
        var wire = circuit.WireAt(circuit.Earth);
        var ends = circuit.Conductors.Where(c => c.Wire == wire).ToList();
        var at = ends.SelectMany(c => new[] { c.From, c.To })
            .Where(t => t != circuit.Earth && t.Name == "PE" && circuit.LocationOf(t).Type == LocationType.Motor)
            .FirstOrDefault();
        return at == default ? null : (at, ends.Where(c => c.From == at || c.To == at).Sum(c => c.Ohms.Value));
    }
}
