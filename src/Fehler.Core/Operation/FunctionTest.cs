using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>One step of the function test: what to do and what a good circuit then shows.</summary>
/// <param name="Id">Stable name of the step.</param>
/// <param name="Title">What is tested.</param>
/// <param name="Before">What brings the circuit there first (start it), nothing when the step before left it so.</param>
/// <param name="Steps">What to do.</param>
/// <param name="Expected">Appearance by device tag; found by simulating the healthy circuit.</param>
/// <param name="Caution">What to mind; may be empty.</param>
public sealed record FunctionTestStep(
    string Id,
    string Title,
    ImmutableArray<Step> Before,
    ImmutableArray<Step> Steps,
    ImmutableSortedDictionary<string, string> Expected,
    string Caution
)
{
    /// <summary>What a clamp around each line shows while the circuit runs so; empty where nothing runs that has three lines.</summary>
    public ImmutableArray<LineCurrent> Currents { get; init; } = [];

    /// <summary>Device whose trip is tried here and may be timed with a test set; empty for none.</summary>
    public string TripOf { get; init; } = "";
}

/// <summary>Current of a line in good order, at the load that the motor's data say.</summary>
/// <param name="Terminal">Where the clamp goes around the conductor.</param>
/// <param name="Amps">What it shows there, A.</param>
public sealed record LineCurrent(TerminalId Terminal, double Amps);

/// <summary>
/// The proof that the whole circuit works, derived from its devices: every start holds, every stop stops and wins over Start, the overload
/// trips and does not restart, nothing starts while it is tripped or the emergency stop is in, power coming back does not start it unless the
/// healthy circuit does so. What is expected is what the healthy circuit does in simulation, never a rule.
/// </summary>
public sealed class FunctionTest
{
    internal FunctionTest(CompiledCircuit compiled) => Steps = [.. new Derivation(compiled).Steps];

    /// <summary>In the order in which they are done.</summary>
    public ImmutableArray<FunctionTestStep> Steps { get; }

    /// <summary>The step of this name; null when there is none.</summary>
    public FunctionTestStep? Find(string id) => Steps.FirstOrDefault(s => s.Id == id);

    private sealed class Derivation
    {
        /// <summary>Less than this through a line is no motor that runs, A.</summary>
        private const double LeastAmps = 0.2;

        private readonly CompiledCircuit _compiled;
        private readonly Circuit _circuit;
        private readonly RunUp _runUp;
        private readonly Simulator _simulator;
        private CircuitState _state;
        private ImmutableArray<Step> _before = [];

        /// <summary>Steps that lead back from the test before; they become part of the next one's beginning.</summary>
        private ImmutableArray<Step> _lead = [];

        public Derivation(CompiledCircuit compiled)
        {
            _compiled = compiled;
            var circuit = _circuit = compiled.Circuit;
            _runUp = compiled.RunUp;
            _simulator = new Simulator(compiled.Network);
            _state = _simulator.Start().State;
            Add(
                "rest",
                _runUp.WorksAtRest ? "Supply on: it runs at once, as this circuit does" : "At rest, supply on: nothing starts by itself",
                "Stand clear: a fault may start the motor as the supply comes on.",
                Step.Wait(1)
            );
            if (circuit.Devices.Any(d => d.Kind.WatchesSupply) && !_runUp.WorksAtRest)
            {
                PhasesTakenAway();
            }

            StartsAndStops();
            foreach (var device in circuit.Devices)
            {
                Maintained(device);
            }
        }

        public List<FunctionTestStep> Steps { get; } = [];

        private void StartsAndStops()
        {
            var stops = _runUp.Stops.ToList();
            for (var k = 0; k < Math.Max(_runUp.Starts.Length, stops.Count); k++)
            {
                if (_runUp.Starts.IsEmpty)
                {
                    return;
                }

                var start = _runUp.Starts[k % _runUp.Starts.Length];
                if (k < _runUp.Starts.Length)
                {
                    Start(start);
                }

                if (stops.Count > 0)
                {
                    Stop(start, stops[k % stops.Count]);
                }
                else
                {
                    _state = _simulator.Do(_state, start.Back(_circuit)).State;
                }
            }

            foreach (
                var (running, other) in _runUp.Starts.SelectMany(a =>
                    _runUp.Starts.Where(b => b.Act.Device != a.Act.Device && !b.Working.SequenceEqual(a.Working)).Select(b => (a, b))
                )
            )
            {
                Against(running, other, stops);
            }
        }

        private void Start(Start start)
        {
            var tag = start.Act.Device;
            _before = start.Prepare;
            Add(
                $"{(start.LetGo is null ? start.Act.Position : "press")}-{tag}",
                $"{Verb(start.Act)} ({Named(tag)})",
                "The motor starts. Warn everyone at the machine.",
                start.Act
            );
            if (_runUp.TimeToSettle(_state).Value is > 0 and var seconds)
            {
                Add($"wait-{tag}", FormattableString.Invariant($"Wait {seconds:0} s: what changes by itself?"), "", Step.Wait(seconds));
            }

            if (start.LetGo is not null)
            {
                Add($"release-{tag}", $"Let go of {Named(tag)}: it keeps running only if the circuit retains", "", start.LetGo);
            }

            WithCurrents();
        }

        private void Stop(Start start, Device stop)
        {
            var tag = start.Act.Device;
            Run(start);
            Add($"stop-{stop.Tag}-after-{tag}", $"Running: press {Named(stop.Tag)}", "", new Step(stop.Tag, "pressed"));
            if (start.LetGo is { } letGo && Steps.All(s => s.Id != $"both-{stop.Tag}-{tag}"))
            {
                Add(
                    $"both-{stop.Tag}-{tag}",
                    $"{Named(stop.Tag)} still pressed: press {Named(tag)} as well, let go of it",
                    "Stand clear: where the stop does not win it starts.",
                    start.Act,
                    letGo
                );
            }

            Add(
                $"stop-{stop.Tag}-released-after-{tag}",
                $"Let go of {Named(stop.Tag)}: it stays stopped",
                "",
                [new Step(stop.Tag, "released"), .. start.End]
            );
        }

        /// <summary>Interlocks: what another start does while one runs.</summary>
        private void Against(Start running, Start other, List<Device> stops)
        {
            Run(running);
            Add(
                $"against-{other.Act.Device}-{other.Act.Position}-while-{running.Act.Device}-{running.Act.Position}",
                $"While {Named(running.Act.Device)} has it running: {Lower(Verb(other.Act))} ({Named(other.Act.Device)})",
                "Interlocks are tested here: stand clear.",
                other.LetGo is null ? [other.Act] : [other.Act, other.LetGo]
            );
            Step[] back =
            [
                .. running.End,
                .. other.LetGo is null ? [other.Back(_circuit)] : Array.Empty<Step>(),
                .. stops.Take(1).SelectMany(s => new[] { new Step(s.Tag, "pressed"), new Step(s.Tag, "released") }),
            ];
            _state = _simulator.Do(_state, back).State;
            _lead = [.. back];
        }

        /// <summary>
        /// What stays where it is put: emergency stop, limit, overload's test trip, supply. Tried while that runs which it ends.
        /// </summary>
        private void Maintained(Device device)
        {
            if (
                _runUp.Starts.Any(s => s.Act.Device == device.Tag)
                || (device.Kind.IsolatingPositions is not (null or { Rank: > 1 }) && _compiled.Isolation.Points.Contains(device.Tag))
            )
            {
                return;
            }

            foreach (
                var actuation in device
                    .Kind.Actuations(device)
                    .Where(a => a is { Returns: false, DeadOnly: false, IsHarsh: false } && a.Position != Rest(device))
            )
            {
                var parts = device.Kind.TriedOneByOne(device);
                foreach (var part in parts.IsEmpty ? [""] : parts)
                {
                    var start = There(device, actuation, part, isFirst: part.Length == 0 || part == parts[0]);
                    Back(device, start);
                }
            }
        }

        /// <param name="device">What is operated.</param>
        /// <param name="actuation">How.</param>
        /// <param name="part">The part of it that is tried; empty for all.</param>
        /// <param name="isFirst">Whether the start is refused is asked once.</param>
        /// <returns>The start that it was tried with; null where nothing starts.</returns>
        private Start? There(Device device, Actuation actuation, string part, bool isFirst)
        {
            var act = new Step(device.Tag, actuation.Position);
            var ended = _runUp.Starts.FirstOrDefault(s => Ends(s, act));
            var start = ended ?? _runUp.Starts.FirstOrDefault();
            if (start is not null)
            {
                Run(start);
            }

            var (of, suffix) = part.Length > 0 ? ($", {part}", $"-{part.Replace(' ', '-')}") : ("", "");
            Add($"{device.Tag}-{actuation.Position}{suffix}", $"Running: {Lower(actuation.Verb)} ({Named(device.Tag)}{of})", "", act);
            Steps[^1] = Steps[^1] with { TripOf = device.Kind.DialOf(device) is null ? "" : device.Tag };
            if (isFirst && ended?.LetGo is { } letGo && device.Kind.SourceOf(device) is null)
            {
                Add(
                    $"{device.Tag}-{actuation.Position}-start",
                    $"With {Named(device.Tag)} left so: press {Named(ended.Act.Device)}, let go: is the start refused?",
                    "Stand clear: a bridged contact lets it start.",
                    ended.Act,
                    letGo
                );
            }

            return start;
        }

        private void Back(Device device, Start? start)
        {
            var back = device.Kind.Actuations(device).First(a => a.Position == Rest(device));
            Step[] steps = [new(device.Tag, back.Position), .. start?.End ?? []];
            var seconds = _runUp.TimeToSettle(_simulator.Do(_state, steps).State).Value;
            Add(
                $"{device.Tag}-{back.Position}",
                $"{back.Verb} ({Named(device.Tag)}): what happens now?",
                "Stand clear: it may start.",
                seconds > 0 ? [.. steps, Step.Wait(seconds)] : steps
            );
        }

        /// <summary>With everything at rest: what watches the supply lets go, and comes back with the phase.</summary>
        private void PhasesTakenAway()
        {
            foreach (var device in _circuit.Devices)
            {
                foreach (var taken in device.Kind.Actuations(device).Where(a => a.IsHarsh))
                {
                    WhatIsShown(new Step(device.Tag, taken.Position), taken.Verb, "");
                    WhatIsShown(new Step(device.Tag, Rest(device)), "Put it back", $"-after-{taken.Position}");
                }
            }
        }

        private void WhatIsShown(Step act, string verb, string after)
        {
            var seconds = _runUp.TimeToSettle(_simulator.Do(_state, act).State).Value;
            Add(
                $"{act.Device}-{act.Position}{after}".Replace(' ', '-'),
                $"At rest: {Lower(verb)}: what does the monitoring show?",
                "Isolate before a fuse is taken out or put back.",
                seconds > 0 ? [act, Step.Wait(seconds)] : [act]
            );
        }

        /// <summary>
        /// The run that was just tried is worth a clamp: at the relay that watches the motor's lines, else at the first three poles that carry.
        /// </summary>
        private void WithCurrents()
        {
            var solution = _simulator.Observe(_state).Solution;
            var lines = _circuit
                .Devices.Where(d => d.Kind.Poles(d).Length >= 3)
                .OrderByDescending(d => d.Kind.DialOf(d) is not null)
                .Select(d =>
                    d.Kind.Poles(d).Take(3).Select(p => d.Terminal(p.Load)).Select(t => new LineCurrent(t, solution.Amps(t).Value))
                )
                .FirstOrDefault(lines => lines.All(l => l.Amps > LeastAmps));
            if (lines is not null)
            {
                Steps[^1] = Steps[^1] with { Currents = [.. lines] };
            }
        }

        private bool Ends(Start start, Step act)
        {
            var running = _simulator.Do(_state, start.Run);
            return _runUp.Working(running).Count > 0 && _runUp.Working(_simulator.Do(running.State, act)).Count == 0;
        }

        private void Run(Start start) => _before = _runUp.Working(_simulator.Observe(_state)).Count > 0 ? [] : start.Run;

        private void Add(string id, string title, string caution, params Step[] actions)
        {
            if (Steps.Any(s => s.Id == id))
            {
                id = $"{id}-{Steps.Count}";
            }

            var outcome = _simulator.Do(_state, [.. _before, .. actions]);
            _state = outcome.State;
            Steps.Add(new FunctionTestStep(id, title, [.. _lead, .. _before], [.. actions], outcome.Appearances, caution));
            _before = _lead = [];
        }

        private string Verb(Step act)
        {
            var device = _circuit.Device(act.Device);
            return device.Kind.Actuations(device).First(a => a.Position == act.Position).Verb;
        }

        private string Named(string tag) => _circuit.Device(tag) is { Function.Length: > 0 } device ? $"{device.Function} {tag}" : tag;
    }

    private static string Rest(Device device) => device.Kind.Positions(device)[device.Kind.InitialPosition(device)];

    private static string Lower(string verb) => char.ToLowerInvariant(verb[0]) + verb[1..];
}
