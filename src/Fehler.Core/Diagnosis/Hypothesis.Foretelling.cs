using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <content>What it foretells: looks, readings in any set-up, and the same on the circuit without its fault.</content>
internal sealed partial class Hypothesis
{
    /// <summary>Where steps would lead to and what is seen of the devices then.</summary>
    public Arrival Foresee(IReadOnlyCollection<Step> steps) => _trajectories.After(State, steps);

    /// <summary>Whether a motor stands and hums after steps.</summary>
    public bool Stalls(ImmutableArray<Step> steps) => Shows(_trajectories.After(State, steps), (kind, look) => kind.IsStalled(look));

    /// <summary>Whether a motor stands and hums, or runs rough, while readings are taken with this set up.</summary>
    public bool Strains(Setup setup) =>
        Shows(_trajectories.After(WithButtonsReleased, setup.Held), (kind, look) => kind.IsStalled(look) || kind.IsRough(look));

    private bool Shows(Arrival arrival, Func<DeviceKind, string, bool> isSo) =>
        arrival.Appearances.Any(s => isSo(_healthy.Circuit.Device(s.Key).Kind, s.Value));

    /// <summary>What is seen of every device as it stands, by tag.</summary>
    public ImmutableSortedDictionary<string, string> SeenNow => (_standing ?? _trajectories.After(State, [])).Appearances;

    /// <summary>What a look at a device shows.</summary>
    public string Seen(string deviceTag, string lookId) =>
        _trajectories.Simulator.Look(
            State,
            deviceTag,
            lookId,
            _healthy.Circuit.Device(deviceTag),
            () => Prepare(Setup.AsItIs).Solve(Network)
        );

    /// <summary>Something that is pressed in by hand does not go: whoever does it feels that.</summary>
    public bool Resists(IEnumerable<Step> held) =>
        held.Any(step =>
            step.Device.Length > 0
            && _healthy.Circuit.Device(step.Device) is var device
            && device.Kind.Looks(device).FirstOrDefault(l => l.PressedTo == step.Position) is { } look
            && Seen(step.Device, look.Id) == look.Answers[1]
        );

    /// <summary>What a meter shows on all pairs of points with a setup, without changing anything.</summary>
    public Prediction[] Predict(Quantity quantity, OwnOhmTables tables, ImmutableArray<(TerminalId From, TerminalId To)> pairs, Setup setup)
    {
        var prepared = Prepare(setup);
        return Remembered(Predict(OfAllSizes, prepared, quantity, tables, pairs), quantity, pairs.AsSpan(), prepared);
    }

    /// <summary>
    /// What a meter would show if its fault were away and every device stood as it stands with it: what "good" means between two points of a
    /// circuit whose contactor everybody can see is out. Only what the fault holds moves to where it would stand without.
    /// </summary>
    public Prediction[] PredictSound(
        Quantity quantity,
        OwnOhmTables tables,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs,
        Setup setup
    ) =>
        Fault is null || IsRepaired
            ? Predict(quantity, tables, pairs, setup)
            : Predict(new Sizes(_healthy), Prepare(setup).Sound(Freed), quantity, tables, pairs);

    /// <summary>
    /// What a reading shows that is not of two terminals as they are wired, by a meter that draws nothing: a lead on the free end of a lifted
    /// conductor, a low-impedance tester, or both.
    /// </summary>
    /// <param name="reading">How it is taken.</param>
    /// <param name="setup">The state it is taken in.</param>
    /// <param name="isSound">On the circuit without its fault, see <see cref="PredictSound"/>.</param>
    public Prediction PredictAsTaken(Reading reading, Setup setup, bool isSound)
    {
        var prepared = Prepare(setup);
        var isFree = isSound && Fault is not null && !IsRepaired;
        var sizes = isFree ? new Sizes(_healthy) : OfAllSizes;
        var state = isFree ? prepared.Sound(Freed).State : prepared.State;
        var (alone, hanging) = reading.FreeEnd.Length > 0 ? FreeEnd(reading, state) : ([], state);
        Prediction With(params ImmutableArray<Alteration> load) => Shown(reading, [.. alone, .. load], sizes, hanging);
        if (!reading.LowImpedance || !reading.Quantity.IsVolts())
        {
            return With();
        }

        // The tester's load is known to a few and some hundred kilohms; what that leaves open is part of what is not known.
        var (most, least) = (
            With(new Bridge(reading.From, reading.To, LowImpedanceOhms.Most)),
            With(new Bridge(reading.From, reading.To, LowImpedanceOhms.Least))
        );
        var half = (most.Value - least.Value) / 2;
        return most with { Value = least.Value + half, Sigma = Math.Sqrt(most.Sigma * most.Sigma + half * half) };
    }

    /// <summary>
    /// What a two-pole tester or a meter's low-impedance setting loads a point with, ohm: some 3 kohm to some 200 kohm (common practice; IEC
    /// 61243-3 tests the former with a switched load, from memory).
    /// </summary>
    private static readonly (double Least, double Most) LowImpedanceOhms = (3e3, 200e3);

    /// <summary>
    /// The free end hangs where the terminal is that it was lifted off, with nothing else there: the conductor is landed, everything else that
    /// ends at the terminal is off.
    /// </summary>
    private (ImmutableArray<Alteration> Alone, CircuitState Hanging) FreeEnd(Reading reading, CircuitState state)
    {
        var (off, device) = (reading.From, _healthy.Circuit.Device(reading.From.Device));
        return (
            [
                .. device
                    .Kind.Elements(device)
                    .Where(e => e.A == off.Name || e.B == off.Name)
                    .Select(e => new ElementOpen(device.Tag, e.Name)),
            ],
            state.Land(reading.FreeEnd) with
            {
                Lifted =
                [
                    .. state.Land(reading.FreeEnd).Lifted,
                    .. _healthy.Circuit.ConductorsAt(off).Where(c => c.Id != reading.FreeEnd).Select(c => c.EndAt(off)),
                ],
            }
        );
    }

    private Prediction Shown(Reading reading, ImmutableArray<Alteration> taken, Sizes sizes, CircuitState state)
    {
        var (from, to) = (reading.From, reading.To);
        var panel = sizes.Each(n => _healthy.With([.. n.Alterations, .. taken]));
        switch (reading.Quantity)
        {
            case Quantity.Volts:
                return _supply.On(Tolerances.Volts(panel.Solve(state), from, to, _size));
            case Quantity.DcVolts:
                return _supply.On(Tolerances.DcVolts(panel.Solve(state), from, to, _size));
            default:
                var given = panel.Given.Ohms(state, from, to).Value;
                var ohms = new AtSizes(
                    given,
                    panel.Larger?.Ohms(state, from, to).Value ?? given,
                    panel.Smaller?.Ohms(state, from, to).Value ?? double.NaN
                );
                return reading.Quantity == Quantity.Insulation
                    ? Tolerances.Insulation(ohms, _size)
                    : Tolerances.Ohms(
                        ohms,
                        _beginning.Compiled.MoreCopper.With([.. sizes.Given.Alterations, .. taken]).Ohms(state, from, to).Value,
                        _size,
                        copper: Copper(from, to)
                    );
        }
    }

    private Prediction[] Predict(
        Sizes sizes,
        Prepared prepared,
        Quantity quantity,
        OwnOhmTables tables,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs
    )
    {
        if (quantity.IsLive())
        {
            var solved = (quantity == Quantity.StartingAmps ? prepared.Starting : prepared).Solve(sizes);
            return
            [
                .. pairs.Select(p =>
                    quantity switch
                    {
                        Quantity.Volts => _supply.On(Tolerances.Volts(solved, p.From, p.To, _size)),
                        Quantity.DcVolts => _supply.On(Tolerances.DcVolts(solved, p.From, p.To, _size)),
                        _ => Tolerances.Amps(solved, p.From, _size, Load(quantity, p.From)),
                    }
                ),
            ];
        }

        var isInsulation = quantity == Quantity.Insulation;
        var table = tables.Of(prepared.State, isInsulation);
        var given = table.Read(sizes.Given, pairs);
        var larger = sizes.Larger is null ? given : table.Read(sizes.Larger, pairs);
        var smaller = sizes.Smaller is null ? null : table.Read(sizes.Smaller, pairs);
        var more = isInsulation ? given : table.ReadMore(sizes.Given, pairs);
        return
        [
            .. given.Select(
                (value, i) =>
                {
                    var ohms = new AtSizes(value, larger[i], smaller?[i] ?? double.NaN);
                    return isInsulation
                        ? Tolerances.Insulation(ohms, _size)
                        : Tolerances.Ohms(ohms, more[i], _size, tables.Own(pairs[i]), Copper(pairs[i].From, pairs[i].To));
                }
            ),
        ];
    }

    /// <summary>The load that a running motor's currents share; none of another current, or of one of several motors.</summary>
    private SharedUnknown? Load(Quantity quantity, TerminalId at) =>
        quantity == Quantity.Amps && _beginning.Compiled.TestPoints.OfTheOnlyMotor.Contains(at) ? _load : null;

    /// <summary>The copper of the only motor, between two points of its own; none of another reading.</summary>
    private SharedUnknown? Copper(TerminalId from, TerminalId to) =>
        _beginning.Compiled.TestPoints.OfTheOnlyMotor is var own && own.Contains(from) && own.Contains(to) ? _copper : null;

    /// <summary>The devices that the fault holds, each where it goes without; everything else as it stands.</summary>
    private CircuitState Freed(CircuitState state)
    {
        foreach (var held in Fault!.Alterations)
        {
            var tag = held switch
            {
                PositionLocked locked => locked.Device,
                DoesNotReturn sticks => sticks.Device,
                DoesNotReach misses => misses.Device,
                FoundInPosition found when state.Devices[_healthy.DeviceIndex(found.Device)].Position == found.Position => found.Device,
                _ => null,
            };
            if (tag is null)
            {
                continue;
            }

            var index = _healthy.DeviceIndex(tag);
            var device = _healthy.Circuit.Devices[index];
            var freed = state.Devices[index] with { Moving = false };
            if (device.Kind.CoilOf(device) is null)
            {
                freed = freed with { Position = device.Kind.InitialPosition(device) };
            }

            state = state.With(index, device.Kind.Settle(device, freed, _healthy.Solve(state).MeterOf(index)).Next with { Moving = false });
        }

        return state;
    }

    /// <summary>The circuit as it now stands, were its fault away.</summary>
    public Solution SolvedSound() => Fault is null || IsRepaired ? SolvedNow() : Prepare(Setup.AsItIs).Sound(Freed).Solve(_healthy);

    /// <summary>The circuit as it now stands.</summary>
    public Solution SolvedNow() => Prepare(Setup.AsItIs).Solve(Network);

    /// <summary>Forgets what was solved for readings; it is solved again when it is asked for.</summary>
    public void Rest() => _prepared.Clear();

    /// <summary>About how much memory what was solved for readings takes.</summary>
    public long PreparedBytes => _prepared.Values.Sum(p => p.Bytes);

    /// <summary>After a reading taken with something held: it is let go, and whatever that started goes on.</summary>
    public void HoldAndRelease(Setup setup)
    {
        if (setup.Held.Length > 0)
        {
            var (before, held) = (State, Prepare(setup).State);
            Move(_trajectories.After(held, [.. setup.Held.Select(h => StepRules.PutBack(_healthy.Circuit, before, h))]).State);
        }
    }

    private Prepared Prepare(Setup setup)
    {
        if (!_prepared.TryGetValue(setup, out var prepared))
        {
            prepared = new Prepared(Arranged(setup));
            _prepared[setup] = prepared;
        }

        return prepared;
    }

    private CircuitState Arranged(Setup setup)
    {
        if (setup.HasLifts)
        {
            var whole = Prepare(setup.WithWiresOn()).State;
            return whole with { Lifted = whole.Lifted.Union(setup.Lifts(_healthy.Circuit).Select(l => l.Conductor.EndAt(l.End))) };
        }

        if (setup.Change == SetupChange.None)
        {
            var state = WithButtonsReleased;
            return setup.Held.IsEmpty ? state
                : setup.Dead ? _trajectories.Simulator.Arrange(state, setup.Held)
                : _trajectories.After(state, setup.Held).State;
        }

        // Switching off or on is worked out once; what is then held on a dead circuit moves nothing else.
        if (setup.Held.IsEmpty)
        {
            return _trajectories.After(WithButtonsReleased, [.. setup.Steps(_beginning.Compiled)]).State;
        }

        var changed = Prepare(setup with { Held = [] }).State;
        return setup.Dead ? _trajectories.Simulator.Arrange(changed, setup.Held) : _trajectories.After(changed, setup.Held).State;
    }

    /// <summary>The circuit with its fault as large as the catalogue has it and, where its size is not known, larger and smaller.</summary>
    private Sizes OfAllSizes => _size.Mean == 0 ? new Sizes(Network, _larger) : new Sizes(Network, _larger, Smaller);

    /// <summary>Asked for only once something is known of the size: until then a step to one side says enough.</summary>
    private Network? Smaller => _smaller ??= _larger is null ? null : OfSize(_healthy, Fault!, 1 / Fault!.SizeFactor);

    private static Network OfSize(Network healthy, FaultMode fault, double factor) =>
        healthy.With([.. fault.Alterations.Select(a => a.Scaled(factor))]);

    /// <param name="Given">With the fault at the catalogue's size.</param>
    /// <param name="Larger">One step larger; null where the size is known.</param>
    /// <param name="Smaller">One step smaller; null where nothing is known of the size yet, or all.</param>
    private sealed record Sizes(Network Given, Network? Larger = null, Network? Smaller = null)
    {
        public Sizes Each(Func<Network, Network> change) =>
            new(change(Given), Larger is null ? null : change(Larger), Smaller is null ? null : change(Smaller));

        public SolvedAtSizes Solve(CircuitState state) => new(Given.Solve(state), Larger?.Solve(state), Smaller?.Solve(state));
    }

    /// <summary>A state set up for readings, solved when first needed.</summary>
    private sealed class Prepared(CircuitState state)
    {
        private Solution? _solution;
        private Solution? _larger;
        private Solution? _smaller;
        private Prepared? _starting;
        private Prepared? _sound;

        public CircuitState State { get; } = state;

        public long Bytes =>
            (_solution?.Bytes ?? 0) + (_larger?.Bytes ?? 0) + (_smaller?.Bytes ?? 0) + (_starting?.Bytes ?? 0) + (_sound?.Bytes ?? 0) + 200;

        /// <summary>The same on the circuit without the fault.</summary>
        public Prepared Sound(Func<CircuitState, CircuitState> freed) => _sound ??= new Prepared(freed(State));

        /// <summary>The same with every rotor still standing: the first moment of a start.</summary>
        public Prepared Starting =>
            _starting ??= new Prepared(State with { Devices = [.. State.Devices.Select(d => d with { Speed = 0 })] });

        public Solution Solve(Network network) => _solution ??= network.Solve(State);

        public SolvedAtSizes Solve(Sizes sizes) =>
            new(Solve(sizes.Given), _larger ??= sizes.Larger?.Solve(State), _smaller ??= sizes.Smaller?.Solve(State));
    }
}
