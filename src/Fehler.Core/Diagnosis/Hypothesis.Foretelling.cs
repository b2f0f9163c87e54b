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
    public bool Stalls(ImmutableArray<Step> steps) =>
        _trajectories.After(State, steps).Appearances.Any(s => _healthy.Circuit.Device(s.Key).Kind.IsStalled(s.Value));

    /// <summary>What is seen of every device as it stands, by tag.</summary>
    public ImmutableSortedDictionary<string, string> SeenNow => (_standing ?? _trajectories.After(State, [])).Appearances;

    /// <summary>What a look at a device shows.</summary>
    public string Seen(string deviceTag, string lookId)
    {
        var index = Network.DeviceIndex(deviceTag);
        var device = Network.Circuit.Devices[index];
        return device.Kind.Shown(
            device,
            lookId,
            State.Devices[index],
            () => Prepare(Setup.AsItIs).Solve(Network).MeterOf(index),
            _healthy.Circuit.Devices[index]
        );
    }

    /// <summary>What a meter shows on all pairs of points with a setup, without changing anything.</summary>
    public Prediction[] Predict(Quantity quantity, OwnOhmTables tables, ImmutableArray<(TerminalId From, TerminalId To)> pairs, Setup setup)
    {
        var prepared = Prepare(setup);
        return Remembered(Predict(Network, _twin, prepared, quantity, tables, pairs), quantity, pairs.AsSpan(), prepared);
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
            : Predict(_healthy, null, Prepare(setup).Sound(Freed), quantity, tables, pairs);

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
        var (fault, sized) = isFree ? ([], null) : (Network.Alterations, _twin?.Alterations);
        var state = isFree ? prepared.Sound(Freed).State : prepared.State;
        var (alone, hanging) = reading.FreeEnd.Length > 0 ? FreeEnd(reading, state) : ([], state);
        Prediction With(params ImmutableArray<Alteration> load) => Shown(reading, [.. alone, .. load], fault, sized, hanging);
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

    private Prediction Shown(
        Reading reading,
        ImmutableArray<Alteration> taken,
        ImmutableArray<Alteration> fault,
        ImmutableArray<Alteration>? sized,
        CircuitState state
    )
    {
        var (from, to) = (reading.From, reading.To);
        var panel = _healthy.With([.. fault, .. taken]);
        var twin = sized is { } other ? _healthy.With([.. other, .. taken]) : null;
        switch (reading.Quantity)
        {
            case Quantity.Volts:
                return _supply.On(Tolerances.Volts(panel.Solve(state), from, to, twin?.Solve(state), _size));
            case Quantity.DcVolts:
                return _supply.On(Tolerances.DcVolts(panel.Solve(state), from, to, twin?.Solve(state), _size));
            default:
                var ohms = panel.Ohms(state, from, to).Value;
                var twinOhms = twin?.Ohms(state, from, to).Value ?? ohms;
                return reading.Quantity == Quantity.Insulation
                    ? Tolerances.Insulation(ohms, twinOhms, _size)
                    : Tolerances.Ohms(
                        ohms,
                        twinOhms,
                        _beginning.Compiled.MoreCopper.With([.. fault, .. taken]).Ohms(state, from, to).Value,
                        _size,
                        copper: Copper(from, to)
                    );
        }
    }

    private Prediction[] Predict(
        Network network,
        Network? sized,
        Prepared prepared,
        Quantity quantity,
        OwnOhmTables tables,
        ImmutableArray<(TerminalId From, TerminalId To)> pairs
    )
    {
        if (quantity.IsLive())
        {
            var isStarting = quantity == Quantity.StartingAmps;
            var solution = isStarting ? prepared.Starting.Solve(network) : prepared.Solve(network);
            var twin =
                sized is null ? null
                : isStarting ? prepared.Starting.SolveTwin(sized)
                : prepared.SolveTwin(sized);
            return
            [
                .. pairs.Select(p =>
                    quantity switch
                    {
                        Quantity.Volts => _supply.On(Tolerances.Volts(solution, p.From, p.To, twin, _size)),
                        Quantity.DcVolts => _supply.On(Tolerances.DcVolts(solution, p.From, p.To, twin, _size)),
                        _ => Tolerances.Amps(solution, p.From, twin, _size, Load(quantity, p.From)),
                    }
                ),
            ];
        }

        var isInsulation = quantity == Quantity.Insulation;
        var table = tables.Of(prepared.State, isInsulation);
        var ohms = table.Read(network, pairs);
        var twinOhms = sized is null ? ohms : table.Read(sized, pairs);
        var more = isInsulation ? ohms : table.ReadMore(network, pairs);
        return
        [
            .. ohms.Select(
                (value, i) =>
                    isInsulation
                        ? Tolerances.Insulation(value, twinOhms[i], _size)
                        : Tolerances.Ohms(value, twinOhms[i], more[i], _size, tables.Own(pairs[i]), Copper(pairs[i].From, pairs[i].To))
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
                _ => null,
            };
            if (tag is null)
            {
                continue;
            }

            var index = _healthy.DeviceIndex(tag);
            var device = _healthy.Circuit.Devices[index];
            var freed = state.Devices[index] with { Moving = false };
            state = state.With(
                index,
                device.Kind.CoilOf(device) is null
                    ? freed with
                    {
                        Position = device.Kind.InitialPosition(device),
                    }
                    : device.Kind.Settle(device, freed, _healthy.Solve(state).MeterOf(index)).Next with
                    {
                        Moving = false,
                    }
            );
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
            var held = Prepare(setup).State;
            Move(_trajectories.After(held, [.. setup.Held.Select(Released)]).State);
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

    /// <summary>A state set up for readings, solved when first needed.</summary>
    private sealed class Prepared(CircuitState state)
    {
        private Solution? _solution;
        private Solution? _twin;
        private Prepared? _starting;
        private Prepared? _sound;

        public CircuitState State { get; } = state;

        public long Bytes => (_solution?.Bytes ?? 0) + (_twin?.Bytes ?? 0) + (_starting?.Bytes ?? 0) + (_sound?.Bytes ?? 0) + 200;

        /// <summary>The same on the circuit without the fault.</summary>
        public Prepared Sound(Func<CircuitState, CircuitState> freed) => _sound ??= new Prepared(freed(State));

        /// <summary>The same with every rotor still standing: the first moment of a start.</summary>
        public Prepared Starting =>
            _starting ??= new Prepared(State with { Devices = [.. State.Devices.Select(d => d with { Speed = 0 })] });

        public Solution Solve(Network network) => _solution ??= network.Solve(State);

        public Solution SolveTwin(Network network) => _twin ??= network.Solve(State);
    }
}
