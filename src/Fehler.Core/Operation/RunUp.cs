using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>One way of making a circuit work: a button, a switch of the process, a drum switch.</summary>
/// <param name="Prepare">What has to be so before: permissives given, control switched on.</param>
/// <param name="Act">What starts it.</param>
/// <param name="LetGo">Letting go of the button; null for what stays where it is put.</param>
/// <param name="Holds">It goes on working when let go.</param>
/// <param name="Working">Appearance of the driven devices while it works, by tag.</param>
public sealed record Start(
    ImmutableArray<Step> Prepare,
    Step Act,
    Step? LetGo,
    bool Holds,
    ImmutableSortedDictionary<string, string> Working
)
{
    /// <summary>Steps after which the circuit works and, where it can, nothing is held.</summary>
    public ImmutableArray<Step> Run => Holds && LetGo is not null ? [.. Prepare, Act, LetGo] : [.. Prepare, Act];

    /// <summary>The step that takes the actuator back to where it was.</summary>
    public Step Back(Circuit circuit)
    {
        var device = circuit.Device(Act.Device);
        return LetGo ?? new Step(device.Tag, device.Kind.Positions(device)[device.Kind.InitialPosition(device)]);
    }

    /// <summary>Steps that end a run which is kept up by hand.</summary>
    public ImmutableArray<Step> End =>
        Holds ? []
        : LetGo is not null ? [LetGo]
        : [];
}

/// <summary>
/// Every way in which the healthy circuit can be brought to work, found by trying its buttons and switches in simulation: what a
/// function test, a reading sheet and somebody who tries the machine all begin with.
/// </summary>
public sealed class RunUp
{
    /// <summary>Waits that are tried, shortest first, until nothing more happens: a star-delta change-over, a qualifying delay.</summary>
    private static readonly double[] Waits = [2, 5, 10, 20, 60, 120];

    private readonly Circuit _circuit;
    private readonly Simulator _simulator;

    internal RunUp(CompiledCircuit compiled)
    {
        var circuit = _circuit = compiled.Circuit;
        _simulator = new Simulator(compiled.Network);
        var rest = _simulator.Start();
        WorksAtRest = Working(rest).Count > 0;
        var actuators = circuit.Devices.Where(d => d.Kind.IsolatingPositions is null).SelectMany(Makers).ToList();
        ImmutableArray<Step> given = [.. actuators.Where(a => a.LetGo is null && IsNormallyOpen(a.Act)).Select(a => a.Act)];
        var enabled = Enabling(rest.State, actuators, given);
        ImmutableArray<Step>[] preparations =
        [
            [],
            given,
            enabled,
            [.. given, .. enabled],
        ];
        Starts = WorksAtRest
            ? []
            : [.. actuators.Select(a => Starting(rest.State, a.Act, a.LetGo, preparations)).Where(s => s is not null).Select(s => s!)];
    }

    /// <summary>Something runs as soon as the supply is on (a manual starter left on).</summary>
    public bool WorksAtRest { get; }

    public ImmutableArray<Start> Starts { get; }

    /// <summary>Buttons that open: they end a run.</summary>
    public IEnumerable<Device> Stops =>
        _circuit.Devices.Where(d =>
            d.Kind.Actuations(d).Any(a => a is { Returns: true, DeadOnly: false })
            && d.Kind.Elements(d)[0].Role == ElementRole.NormallyClosed
        );

    /// <summary>Ways to end a run, whatever began it: a button that opens pressed and let go, or what was put where it runs put back.</summary>
    public IEnumerable<ImmutableArray<Step>> Ends =>
        Stops
            .Select(d => new Step(d.Tag, d.Kind.Actuations(d).First(a => a is { Returns: true, DeadOnly: false }).Position))
            .Select(pressed => ImmutableArray.Create(pressed, StepRules.Rested(_circuit, pressed)))
            .Concat(Starts.Where(s => s.LetGo is null).Select(s => ImmutableArray.Create(s.Back(_circuit))));

    /// <summary>Driven devices that work, with what is seen of them.</summary>
    public ImmutableSortedDictionary<string, string> Working(Outcome outcome) =>
        outcome.Appearances.Where(a => _circuit.Device(a.Key).Kind.IsWorking(a.Value)).ToImmutableSortedDictionary();

    /// <summary>How long one has to wait from here until nothing more happens by itself; 0 when nothing does.</summary>
    public Seconds TimeToSettle(CircuitState state)
    {
        var last = _simulator.Do(state, Step.Wait(Waits[^1]));
        return new(
            last.Events.IsEmpty ? 0 : Waits.First(w => _simulator.Do(state, Step.Wait(w)).Appearances.SequenceEqual(last.Appearances))
        );
    }

    /// <summary>Actuations that close something, with the step that undoes them where they do not stay.</summary>
    private static IEnumerable<(Step Act, Step? LetGo)> Makers(Device device)
    {
        var first = device.Kind.Elements(device).FirstOrDefault()?.Role;
        if (first is not (ElementRole.NormallyOpen or ElementRole.Pole))
        {
            yield break;
        }

        var rest = device.Kind.Positions(device)[device.Kind.InitialPosition(device)];
        foreach (var actuation in device.Kind.Actuations(device).Where(a => a is { DeadOnly: false, Resets: false } && a.Position != rest))
        {
            yield return (new Step(device.Tag, actuation.Position), actuation.Returns ? new Step(device.Tag, rest) : null);
        }
    }

    private bool IsNormallyOpen(Step act)
    {
        var device = _circuit.Device(act.Device);
        return device.Kind.Elements(device)[0].Role == ElementRole.NormallyOpen
            && device.Kind.Actuations(device).Count(a => !a.DeadOnly) <= 2;
    }

    /// <summary>A button whose press leaves something in without anything working yet: control on.</summary>
    private ImmutableArray<Step> Enabling(CircuitState rest, List<(Step Act, Step? LetGo)> actuators, ImmutableArray<Step> given)
    {
        foreach (var before in new[] { [], given })
        {
            var from = _simulator.Do(rest, before);
            foreach (var (act, letGo) in actuators.Where(a => a.LetGo is not null))
            {
                var after = _simulator.Do(from.State, [act, letGo!]);
                if (Working(after).Count == 0 && !after.Appearances.SequenceEqual(from.Appearances))
                {
                    return [act, letGo!];
                }
            }
        }

        return [];
    }

    private Start? Starting(CircuitState rest, Step act, Step? letGo, ImmutableArray<Step>[] preparations)
    {
        foreach (var prepare in preparations.Select(p => p.Where(s => s.Device != act.Device).ToImmutableArray()))
        {
            var before = _simulator.Do(rest, prepare);
            if (Working(before).Count > 0)
            {
                continue;
            }

            var acted = _simulator.Do(before.State, act);
            if (Working(acted) is { Count: > 0 } working)
            {
                return new Start(prepare, act, letGo, letGo is null || Working(_simulator.Do(acted.State, letGo)).Count > 0, working);
            }
        }

        return null;
    }
}
