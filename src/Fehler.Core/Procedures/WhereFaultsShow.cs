using System.Collections.Concurrent;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>What brings a fault to light.</summary>
public enum ShownIn
{
    /// <summary>A step of the function test comes out otherwise.</summary>
    FunctionTest,

    /// <summary>A look at the device.</summary>
    Look,

    /// <summary>A component test, everything isolated and its wires off.</summary>
    BenchCheck,

    /// <summary>A reading between its own two points, with the circuit live or dead.</summary>
    Reading,
}

/// <summary>Where a fault shows, in words that say what to do and what is then seen.</summary>
public sealed record Showing(ShownIn In, Wording Text);

/// <summary>
/// Where each fault of a circuit shows. Some show nothing when the starter is tried (a dial set too high, one welded pole, an interlock
/// that is bridged): then a look, a component test or a step of the function test does.
/// </summary>
public sealed class WhereFaultsShow
{
    private readonly CompiledCircuit _compiled;
    private readonly Circuit _circuit;
    private readonly ConcurrentDictionary<(string, string), Showing?> _known = new();

    internal WhereFaultsShow(CompiledCircuit compiled) => (_compiled, _circuit) = (compiled, compiled.Circuit);

    /// <summary>The first that shows it of function test, looks, component tests and its own reading; null when nothing does.</summary>
    public Showing? Of(FaultMode fault) =>
        _known.GetOrAdd(
            (fault.Id, fault.Variant),
            _ =>
            {
                var faulty = new Simulator(_compiled.Network.With(fault.Alterations));
                return InFunctionTest(faulty) ?? InLooks(faulty) ?? InBenchCheck(faulty) ?? InReading(fault);
            }
        );

    private Showing? InFunctionTest(Simulator faulty)
    {
        var state = faulty.Start().State;
        foreach (var step in _compiled.FunctionTest.Steps)
        {
            var outcome = faulty.Do(state, [.. step.Before, .. step.Steps]);
            state = outcome.State;
            foreach (var (tag, expected) in step.Expected)
            {
                if (outcome.Appearances.GetValueOrDefault(tag) is { } seen && seen != expected)
                {
                    return new(ShownIn.FunctionTest, $"Function test, {step.Title}: {tag} shows {Word(seen)}, a good one {Word(expected)}");
                }
            }
        }

        return null;
    }

    private static Wording Word(string appearance)
    {
        if (appearance.EndsWith("star", StringComparison.Ordinal))
        {
            return $"{appearance[..^4]}{Term.Star}";
        }

        return appearance;
    }

    private Showing? InLooks(Simulator faulty)
    {
        var start = faulty.Start();
        for (var i = 0; i < _circuit.Devices.Length; i++)
        {
            var drawn = _circuit.Devices[i];
            foreach (var look in drawn.Kind.Looks(drawn))
            {
                var seen = faulty.Look(start.State, drawn.Tag, look.Id, drawn, () => start.Solution);
                if (seen != look.Answers[0])
                {
                    return new(ShownIn.Look, $"Look, {look.Question}: {seen}");
                }
            }
        }

        return null;
    }

    private Showing? InBenchCheck(Simulator faulty) =>
        _compiled.BenchCheck.Items.Where(i => i.IsMeasured).FirstOrDefault(i => !i.IsGood(i.ReadOn(faulty))) is { } item
            ? new(ShownIn.BenchCheck, $"Component test of {item.Device}, {item.What}: not {item.Good}")
            : null;

    private Showing? InReading(FaultMode fault) =>
        fault.ProofPoints is not { } points
            ? null
            : new(
                ShownIn.Reading,
                _compiled.Isolation.LiveTerminals.Contains(points.From) || _compiled.Isolation.LiveTerminals.Contains(points.To)
                    ? $"Volts from {points.From} to {points.To}, live"
                    : $"Ohms or insulation from {points.From} to {points.To}, isolated and proved dead"
            );
}
