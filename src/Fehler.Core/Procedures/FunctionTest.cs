using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>One step of the function test: what to do and what a good circuit then shows.</summary>
/// <param name="Id">Stable name of the step.</param>
/// <param name="Title">What is tested.</param>
/// <param name="Before">What brings the circuit there first (start it), nothing when the step before left it so.</param>
/// <param name="Steps">What to do.</param>
/// <param name="Expected">Appearance by device tag; found by simulating the healthy circuit.</param>
/// <param name="Caution">What to mind; may be empty.</param>
public sealed record FunctionTestStep(
    string Id, string Title, ImmutableArray<Step> Before, ImmutableArray<Step> Steps, ImmutableSortedDictionary<string, string> Expected, string Caution);

/// <summary>
/// The proof that the whole circuit works, derived from its devices: every start holds, every stop stops, the overload
/// trips and does not restart, power coming back does not start it unless the healthy circuit does so.
/// </summary>
public static class FunctionTest
{
    private static readonly System.Runtime.CompilerServices.ConditionalWeakTable<Circuit, IReadOnlyList<FunctionTestStep>> Made = [];

    public static IReadOnlyList<FunctionTestStep> Of(Circuit circuit) => Made.GetValue(circuit, Derive);

    private static IReadOnlyList<FunctionTestStep> Derive(Circuit circuit)
    {
        var simulator = new Simulator(Network.Of(circuit));
        var state = simulator.Start().State;
        var steps = new List<FunctionTestStep>();
        ImmutableArray<Step> before = [];
        var starts = Buttons(circuit, ElementRole.NormallyOpen).ToList();

        void Add(string id, string title, string caution, params Step[] actions)
        {
            var outcome = simulator.Do(state, [.. before, .. actions]);
            state = outcome.State;
            steps.Add(new FunctionTestStep(id, title, before, [.. actions], outcome.Appearances, caution));
            before = [];
        }

        void Run() => before = [.. starts.Take(1).SelectMany(s => new[] { new Step(s.Tag, "pressed"), new Step(s.Tag, "released") })];

        Add("rest", "At rest, supply on: nothing starts by itself", "Stand clear: a fault may start the motor as the supply comes on.", Step.Wait(1));
        foreach (var start in starts)
        {
            Add($"press-{start.Tag}", $"Press and hold {Named(start)}", "The motor starts. Warn everyone at the machine.", new Step(start.Tag, "pressed"));
            Add($"release-{start.Tag}", $"Let go of {Named(start)}: it keeps running only if the circuit retains", "", new Step(start.Tag, "released"));
            foreach (var stop in Buttons(circuit, ElementRole.NormallyClosed))
            {
                Run();
                Add($"stop-{stop.Tag}-after-{start.Tag}", $"Running: press {Named(stop)}", "", new Step(stop.Tag, "pressed"));
                Add($"stop-{stop.Tag}-released-after-{start.Tag}", $"Let go of {Named(stop)}: it stays stopped", "", new Step(stop.Tag, "released"));
            }
        }

        foreach (var device in circuit.Devices)
        {
            foreach (var actuation in device.Kind.Actuations(device).Where(a => !a.Returns && a.Position != Rest(device) && (device.Kind.IsolatingPositions is null or { Rank: > 1 } || !Isolation.Of(circuit).Points.Contains(device.Tag))))
            {
                Run();
                Add($"{device.Tag}-{actuation.Position}", $"Running: {Lower(actuation.Verb)} ({Named(device)})", "", new Step(device.Tag, actuation.Position));
                var back = device.Kind.Actuations(device).First(a => a.Position == Rest(device));
                Add($"{device.Tag}-{back.Position}", $"{back.Verb} ({Named(device)}): what happens now?", "Stand clear: it may start.", new Step(device.Tag, back.Position));
            }
        }

        return steps;
    }

    private static string Rest(Device device) => device.Kind.Positions(device)[device.Kind.InitialPosition(device)];

    /// <summary>Push-buttons whose first contact closes (starts) or opens (stops).</summary>
    private static IEnumerable<Device> Buttons(Circuit circuit, ElementRole role) => circuit.Devices
        .Where(d => d.Kind.Actuations(d).Any(a => a is { Returns: true, DeadOnly: false }) && d.Kind.Elements(d)[0].Role == role);

    private static string Named(Device device) => device.Function.Length > 0 ? $"{device.Function} {device.Tag}" : device.Tag;

    private static string Lower(string verb) => char.ToLowerInvariant(verb[0]) + verb[1..];
}
