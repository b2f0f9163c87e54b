using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>
/// Operates a circuit: after each step it solves, lets every device decide what it does, and solves again until nothing
/// changes. Protective devices act one at a time, the most overloaded first. What never settles chatters.
/// </summary>
public sealed partial class Simulator(Network network)
{
    private const int MostRounds = 40;

    private readonly ImmutableArray<Device> _devices = network.Circuit.Devices;

    /// <summary>Devices, by index, that a fault keeps where they are or does not let go back; null where there is none.</summary>
    private readonly bool[]? _locked = Those(network, a => a is PositionLocked p ? p.Device : null),
        _sticking = Those(network, a => a is DoesNotReturn d ? d.Device : null);

    private readonly ImmutableArray<AppearsAs> _appearsAs = [.. network.Alterations.OfType<AppearsAs>()];

    private readonly ImmutableArray<DoesNotReach> _unreached = [.. network.Alterations.OfType<DoesNotReach>()];

    public Network Network { get; } = network;

    /// <summary>Told of every state that is solved on the way, in order.</summary>
    internal Action<Solution>? Solved { get; init; }

    /// <summary>The circuit at rest with the supply on, its fault in place.</summary>
    public Outcome Start() => Settle(Constrain(Found(CircuitState.AtRest(Network.Circuit))));

    /// <summary>
    /// Does one step from a state. Where a device both opens and closes contacts, the circuit first settles with everything
    /// open: a Stop behind a two-way button acts before its Start does.
    /// </summary>
    /// <exception cref="ArgumentException">The device has no such position: ask <see cref="StepRules"/> first.</exception>
    public Outcome Do(CircuitState state, Step step)
    {
        if (step.Device.Length == 0)
        {
            return Wait(state, step.Seconds, step.IsMeanwhile);
        }

        if (Refused(state, step) is not { } why)
        {
            return Settle(Apply(OnTheWay(state, step), step));
        }

        var outcome = Settle(state);
        return outcome with { Events = outcome.Events.Insert(0, why.ToString()) };
    }

    /// <summary>Does several steps one after the other and returns the last outcome.</summary>
    public Outcome Do(CircuitState state, IEnumerable<Step> steps)
    {
        Outcome? outcome = null;
        foreach (var step in steps)
        {
            outcome = Do(outcome?.State ?? state, step);
        }

        return outcome ?? Settle(state);
    }

    /// <summary>Looks at a state without doing anything.</summary>
    public Outcome Observe(CircuitState state) => Settle(Constrain(state));

    /// <summary>What a look at a device shows.</summary>
    /// <param name="state">How the circuit stands.</param>
    /// <param name="tag">The device.</param>
    /// <param name="lookId">One of its looks.</param>
    /// <param name="drawn">The device as the drawing has it.</param>
    /// <param name="solved">The circuit solved in that state; asked for only where the look goes by voltages and currents.</param>
    public string Look(CircuitState state, string tag, string lookId, Device drawn, Func<Solution> solved)
    {
        var index = Network.DeviceIndex(tag);
        var device = _devices[index];
        var look = device.Kind.Looks(device).First(l => l.Id == lookId);
        return look.PressedTo.Length > 0
            ? PressedByHand(state, index, look)
            : device.Kind.Shown(device, look, state.Devices[index], () => solved().MeterOf(index), drawn);
    }

    private string PressedByHand(CircuitState state, int index, Look look)
    {
        var device = _devices[index];
        var (rest, there) = (device.Kind.InitialPosition(device), PositionOf(device, look.PressedTo));
        var isStuck = _sticking?[index] == true && state.Devices[index].Position == there;
        var dead = isStuck ? state : Constrain(state.With(index, state.Devices[index] with { Position = rest }));
        return dead.Devices[index].Position == there ? look.Answers[2]
            : Arrange(dead, [new Step(device.Tag, look.PressedTo)]).Devices[index].Position == there ? look.Answers[0]
            : look.Answers[1];
    }

    /// <summary>
    /// Brings devices of a dead circuit to positions without asking what it does by itself: without voltage it does nothing.
    /// </summary>
    public CircuitState Arrange(CircuitState state, IEnumerable<Step> steps) => steps.Aggregate(state, Apply);

    private CircuitState OnTheWay(CircuitState state, Step step)
    {
        var index = Network.DeviceIndex(step.Device);
        var device = _devices[index];
        return
            device.Kind.BreaksBeforeMakes(device) && !IsLocked(index) && state.Devices[index].Position != PositionOf(device, step.Position)
            ? Settle(state.With(index, state.Devices[index] with { Moving = true, Held = true })).State
            : state;
    }

    private CircuitState Apply(CircuitState state, Step step)
    {
        var index = Network.DeviceIndex(step.Device);
        var device = _devices[index];
        var position = PositionOf(device, step.Position);
        var byHand = device.Kind.Actuations(device).FirstOrDefault(a => a.Position == step.Position)?.DeadOnly == true;
        return Constrain(state.With(index, new DeviceState(position, byHand, state.Devices[index].Speed, Heat: state.Devices[index].Heat)));
    }

    /// <summary>Whether a step brings back what operated by itself.</summary>
    public bool IsReset(Step step) => StepRules.IsReset(Network.Circuit, step);

    private Wording? Refused(CircuitState state, Step step)
    {
        var index = Network.DeviceIndex(step.Device);
        return _devices[index].Kind.Refuses(_devices[index], state.Devices[index], step.Position);
    }

    private static int PositionOf(Device device, string name)
    {
        var position = device.Kind.Positions(device).IndexOf(name);
        return position >= 0
            ? position
            : throw new ArgumentException(
                $"{device.Tag} has no position '{name}'; it has: {string.Join(", ", device.Kind.Positions(device))}."
            );
    }

    private Outcome Settle(CircuitState state) => Settle(state, together: true) ?? Settle(state, together: false)!;

    /// <summary>
    /// Solves and lets devices act until nothing changes. When two magnets that pull in together only ever throw each other out
    /// again, it is a race and not a chatter: null, and the next try lets one go first.
    /// </summary>
    private Outcome? Settle(CircuitState state, bool together)
    {
        var events = ImmutableArray.CreateBuilder<string>();
        var seen = new Dictionary<CircuitState, int>();
        var history = new List<CircuitState>();
        var solution = Solve(state);
        for (var round = 0; round < MostRounds; round++)
        {
            if (!seen.TryAdd(state.Cooled, round))
            {
                // Back where it was: the devices that changed on the way chatter.
                if (together && Moved(history.Skip(seen[state.Cooled])) > 1)
                {
                    return null;
                }

                return Describe(state, solution, history.Skip(seen[state.Cooled]), events);
            }

            history.Add(state);
            var next = Next(state, solution, events, together);
            if (next.Equals(state))
            {
                break;
            }

            state = next;
            solution = Solve(state);
        }

        return Describe(state, solution, [], events);
    }

    private Solution Solve(CircuitState state)
    {
        var solution = Network.Solve(state);
        Solved?.Invoke(solution);
        return solution;
    }

    private int Moved(IEnumerable<CircuitState> cycle) =>
        Enumerable.Range(0, _devices.Length).Count(i => cycle.Select(s => s.Devices[i].Position).Distinct().Count() > 1);

    private CircuitState Next(CircuitState state, Solution solution, ImmutableArray<string>.Builder events, bool together)
    {
        List<(int Device, Transition Transition)>? proposals = null;
        for (var i = 0; i < _devices.Length; i++)
        {
            if (!_devices[i].Kind.IsSlow && !IsLocked(i))
            {
                var transition = Staged(i, state.Devices[i], _devices[i].Kind.Settle(_devices[i], state.Devices[i], solution.MeterOf(i)));
                if (transition.Next != state.Devices[i] && !Sticks(i, state.Devices[i], transition.Next))
                {
                    (proposals ??= []).Add((i, transition));
                }
            }
        }

        if (proposals is not null)
        {
            return Acted(state, proposals, events, together);
        }

        // Rotors are slow: they find their speed once the contacts have settled.
        for (var i = 0; i < _devices.Length; i++)
        {
            if (_devices[i].Kind.IsSlow)
            {
                var transition = _devices[i].Kind.Settle(_devices[i], state.Devices[i], solution.MeterOf(i));
                if (
                    transition.Next.Position != state.Devices[i].Position
                    || Math.Abs(transition.Next.Speed - state.Devices[i].Speed) > 1e-3
                )
                {
                    return RunUp(state, solution, events, i, transition.Next);
                }
            }
        }

        return state;
    }

    /// <summary>The most overloaded protective device acts alone, magnets one at a time where that is wanted, all others together.</summary>
    private CircuitState Acted(
        CircuitState state,
        List<(int Device, Transition Transition)> proposals,
        ImmutableArray<string>.Builder events,
        bool together
    )
    {
        var urgent = proposals.MaxBy(p => p.Transition.Urgency);
        if (urgent.Transition.Urgency > 0)
        {
            events.Add($"{_devices[urgent.Device].Tag} opens on overcurrent");
            return state.With(urgent.Device, urgent.Transition.Next);
        }

        if (!together && proposals.Count(p => IsPullIn(state, p)) is > 1)
        {
            var first = proposals.First(p => IsPullIn(state, p)).Device;
            proposals = [.. proposals.Where(p => p.Device == first || !IsPullIn(state, p))];
        }

        var devices = state.Devices.ToBuilder();
        foreach (var (device, transition) in proposals)
        {
            devices[device] = transition.Next;
        }

        return state with
        {
            Devices = devices.MoveToImmutable(),
        };
    }

    private static bool IsPullIn(CircuitState state, (int Device, Transition Transition) p) =>
        p.Transition.Next.Position > state.Devices[p.Device].Position;

    /// <summary>A device that opens some contacts and closes others passes through a stage in which all of them are open.</summary>
    private Transition Staged(int device, DeviceState state, Transition transition)
    {
        if (transition.Next.Position != state.Position)
        {
            return transition with
            {
                Next = transition.Next with { Moving = _devices[device].Kind.BreaksBeforeMakes(_devices[device]), Progress = 0 },
            };
        }

        return state.Moving && !state.Held ? transition with { Next = transition.Next with { Moving = false } } : transition;
    }

    private Outcome Describe(CircuitState state, Solution solution, IEnumerable<CircuitState> cycle, ImmutableArray<string>.Builder events)
    {
        var states = cycle.ToList();
        var appearances = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < _devices.Length; i++)
        {
            var device = _devices[i];
            var appearance = device.Kind.Appearance(device, state.Devices[i], solution.MeterOf(i));
            if (appearance is null)
            {
                continue;
            }

            for (var s = 1; s < states.Count; s++)
            {
                if (states[s].Devices[i].Position != states[0].Devices[i].Position)
                {
                    appearance = "chatters";
                    break;
                }
            }

            foreach (var altered in _appearsAs)
            {
                if (altered.Device == device.Tag && altered.Instead == appearance)
                {
                    appearance = altered.Appearance;
                    break;
                }
            }

            appearances[device.Tag] = appearance;
        }

        return new Outcome(state, solution, appearances.ToImmutable(), events.ToImmutable());
    }

    private CircuitState Found(CircuitState state) =>
        Network
            .Alterations.OfType<FoundInPosition>()
            .Aggregate(
                state,
                (s, f) =>
                {
                    var index = Network.DeviceIndex(f.Device);
                    return s.With(index, s.Devices[index] with { Position = f.Position });
                }
            );

    private CircuitState Constrain(CircuitState state)
    {
        foreach (var missed in _unreached)
        {
            state = Unreached(state, missed);
        }

        return _locked is null
            ? state
            : Network
                .Alterations.OfType<PositionLocked>()
                .Aggregate(
                    state,
                    (s, locked) =>
                    {
                        var index = Network.DeviceIndex(locked.Device);
                        return s.With(index, s.Devices[index] with { Position = locked.Position, Held = false, Moving = false });
                    }
                );
    }

    private CircuitState Unreached(CircuitState state, DoesNotReach missed)
    {
        var index = Network.DeviceIndex(missed.Device);
        return state.Devices[index].Position == missed.Position
            ? state.With(
                index,
                state.Devices[index] with
                {
                    Position = _devices[index].Kind.InitialPosition(_devices[index]),
                    Moving = false,
                }
            )
            : state;
    }

    private bool IsLocked(int device) => _locked is { } locked && locked[device];

    private bool Sticks(int device, DeviceState from, DeviceState to) =>
        from.Position != 0 && to.Position == 0 && _sticking is { } sticking && sticking[device];

    private static bool[]? Those(Network network, Func<Alteration, string?> tag)
    {
        bool[]? those = null;
        foreach (var alteration in network.Alterations)
        {
            if (tag(alteration) is { } device)
            {
                (those ??= new bool[network.Circuit.Devices.Length])[network.DeviceIndex(device)] = true;
            }
        }

        return those;
    }

    private string PositionName(int device, DeviceState state)
    {
        var names = _devices[device].Kind.Positions(_devices[device]);
        return state.Position < names.Length ? names[state.Position] : "operates";
    }
}
