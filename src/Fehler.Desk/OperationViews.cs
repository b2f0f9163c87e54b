using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Desk;

/// <summary>What a healthy circuit does when it is operated: everything that the drawing animates.</summary>
/// <param name="Positions">Position of every device by tag.</param>
/// <param name="Made">Contacts and poles by "tag:13-14": whether they are made.</param>
/// <param name="Seen">What a person sees and hears, by tag.</param>
/// <param name="LiveWires">Numbers of the wires that are live.</param>
/// <param name="Events">What happened by itself in the last step.</param>
/// <param name="NextEventSeconds">How long until something happens by itself; null when nothing will.</param>
/// <param name="Seconds">Time that has passed since the supply came on.</param>
public sealed record OperationView(
    ImmutableSortedDictionary<string, string> Positions,
    ImmutableSortedDictionary<string, bool> Made,
    ImmutableSortedDictionary<string, string> Seen,
    ImmutableSortedSet<string> LiveWires,
    ImmutableArray<string> Events,
    double? NextEventSeconds,
    double Seconds
);

/// <summary>Steps to do from the circuit at rest with its supply on.</summary>
public sealed record OperateCircuit(ImmutableArray<Step> Steps);

public static class OperationMapping
{
    /// <summary>Does the steps from the circuit at rest, or as it stands.</summary>
    /// <param name="compiled">The circuit.</param>
    /// <param name="steps">The steps, in order.</param>
    /// <param name="standing">How its devices stand; null at rest.</param>
    /// <exception cref="RefusedException">A step that the circuit does not know.</exception>
    public static OperationView Operate(CompiledCircuit compiled, IReadOnlyList<Step> steps, CircuitState? standing = null)
    {
        var (circuit, simulator) = (compiled.Circuit, new Simulator(compiled.Network));
        StepRules.Require(circuit, steps);
        var outcome = standing is null ? simulator.Start() : simulator.Observe(standing);
        foreach (var step in steps)
        {
            outcome = simulator.Do(outcome.State, step);
        }

        return View(
            circuit,
            outcome.State,
            outcome.Appearances,
            LiveWires.Of(compiled, outcome.Solution),
            outcome.Events,
            simulator.NextEvent(outcome)?.Value,
            steps.Sum(s => s.Seconds)
        );
    }

    /// <summary>A circuit as it was seen to stand, nothing done.</summary>
    public static OperationView Standing(Circuit circuit, DiagnosisResult result) =>
        View(circuit, result.Standing, result.Seen, result.LiveWires, [], null, 0);

    private static OperationView View(
        Circuit circuit,
        CircuitState state,
        ImmutableSortedDictionary<string, string> seen,
        ImmutableSortedSet<string> live,
        ImmutableArray<string> events,
        double? nextEvent,
        double seconds
    ) =>
        new(
            circuit
                .Devices.Select((d, i) => (d.Tag, Position: Name(d, state.Devices[i].Position)))
                .ToImmutableSortedDictionary(x => x.Tag, x => x.Position),
            circuit
                .Devices.SelectMany(
                    (d, i) =>
                        d.Kind.Elements(d).Where(e => e.IsContact).Select(e => ($"{d.Tag}:{e.Name}", d.Kind.IsMade(d, e, state.Devices[i])))
                )
                .ToImmutableSortedDictionary(x => x.Item1, x => x.Item2),
            seen,
            live,
            events,
            nextEvent,
            seconds
        );

    private static string Name(Device device, int position)
    {
        var names = device.Kind.Positions(device);
        return position < names.Length ? names[position] : "operated";
    }
}
