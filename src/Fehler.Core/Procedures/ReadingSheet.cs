using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>A row of the reading sheet: two points and what a good circuit shows between them in each state.</summary>
public sealed record ReadingSheetRow(
    TerminalId From,
    TerminalId To,
    string Wires,
    string What,
    string AtRest,
    string StartHeld,
    string Running,
    string Released,
    string Pressed
);

/// <summary>
/// Expected values of a healthy circuit: volts at rest, with Start held and running; ohms isolated, armatures released and
/// pressed. All by simulation.
/// </summary>
public sealed class ReadingSheet
{
    internal ReadingSheet(CompiledCircuit compiled) => Rows = Derived(compiled);

    /// <summary>Device by device, then the control circuit to its return.</summary>
    public ImmutableArray<ReadingSheetRow> Rows { get; }

    private static ImmutableArray<ReadingSheetRow> Derived(CompiledCircuit compiled)
    {
        var (circuit, network) = (compiled.Circuit, compiled.Network);
        var simulator = new Simulator(network);
        var rest = simulator.Start();
        var start = compiled.RunUp.Starts.FirstOrDefault();
        var held = start is null ? rest : simulator.Do(rest.State, [.. start.Prepare, start.Act]);
        var running = start is not { Holds: true, LetGo: not null } ? held : simulator.Do(held.State, start.LetGo);
        running = simulator.Do(running.State, Step.Wait(compiled.RunUp.TimeToSettle(running.State).Value));
        var isolated = simulator.Do(rest.State, compiled.Isolation.Off);
        var pressed = simulator.Arrange(
            isolated.State,
            circuit.Devices.SelectMany(d =>
                d.Kind.Actuations(d)
                    .Where(a => a is { DeadOnly: true, Returns: true, IsPastOperator: false })
                    .Select(a => new Step(d.Tag, a.Position))
            )
        );
        var (released, releasedMore) = (network.OhmMeter(isolated.State), compiled.MoreCopper.OhmMeter(isolated.State));
        var (pressedMeter, pressedMore) = (network.OhmMeter(pressed), compiled.MoreCopper.OhmMeter(pressed));
        var live = compiled.Isolation.LiveTerminals;

        ReadingSheetRow Row(TerminalId from, TerminalId to, string what)
        {
            string Ohm(Func<TerminalId, TerminalId, Ohms> meter, Func<TerminalId, TerminalId, Ohms> more) =>
                live.Contains(from) || live.Contains(to) ? "stays live" : Show(meter(from, to), more(from, to));
            var direct = compiled.IsDirect(from) && compiled.IsDirect(to);
            string Volt(Outcome outcome) =>
                direct
                    ? Show(Tolerances.DcVolts(new SolvedAtSizes(outcome.Solution), from, to, FaultSize.None), Quantity.DcVolts)
                    : Show(Tolerances.Volts(new SolvedAtSizes(outcome.Solution), from, to, FaultSize.None), Quantity.Volts);
            return new ReadingSheetRow(
                from,
                to,
                $"{circuit.WireAt(from)} – {circuit.WireAt(to)}",
                what,
                Volt(rest),
                Volt(held),
                Volt(running),
                Ohm(released, releasedMore),
                Ohm(pressedMeter, pressedMore)
            );
        }

        var rows = ImmutableArray.CreateBuilder<ReadingSheetRow>();
        foreach (var device in circuit.Devices)
        {
            foreach (var element in device.Kind.Elements(device).Where(e => e.A[0] != '~' && e.B[0] != '~'))
            {
                var (a, b) = (device.Terminal(element.A), device.Terminal(element.B));
                if (circuit.WireAt(a).Length > 0 && circuit.WireAt(b).Length > 0)
                {
                    rows.Add(Row(a, b, $"{device.Tag} {element.Name}"));
                }
            }

            var terminals = device.Kind.Terminals(device).Where(t => t != "PE").ToList();
            if (device.Kind.Elements(device).Any(e => e.B[0] == '~') && terminals.Count == 3)
            {
                rows.AddRange(
                    Enumerable
                        .Range(0, 3)
                        .Select(k =>
                            Row(
                                device.Terminal(terminals[k]),
                                device.Terminal(terminals[(k + 1) % 3]),
                                $"{device.Tag} {terminals[k]}-{terminals[(k + 1) % 3]}"
                            )
                        )
                );
                rows.AddRange(terminals.Select(t => Row(device.Terminal(t), device.Terminal("PE"), $"{device.Tag} {t} to earth")));
            }
        }

        var power = circuit
            .Paths.Where(p => p.Type == PathType.Power)
            .SelectMany(p => p.Expression.Parts())
            .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t)))
            .ToHashSet();
        foreach (
            var terminal in circuit
                .Paths.Where(p => p.Type == PathType.Control)
                .SelectMany(p => p.Expression.Parts())
                .SelectMany(p => p.In.Concat(p.Out).Select(t => new TerminalId(p.Device, t)))
                .Where(t => !power.Contains(t))
                .Distinct()
        )
        {
            var to = compiled.ReturnOf(terminal);
            if (to != terminal)
            {
                rows.Add(Row(terminal, to, $"{terminal} to the return"));
            }
        }

        return rows.ToImmutable();
    }

    /// <summary>Windings known from their plate alone as the range of good ones, as the component test has it; the rest to two figures.</summary>
    private static string Show(Ohms ohms, Ohms more)
    {
        if (ohms.IsOpen || ohms.Value <= 1 || more / ohms < SeenInRanges)
        {
            return Show(Tolerances.Ohms(AtSizes.Same(ohms.Value), ohms.Value, FaultSize.None), Quantity.Ohms);
        }

        var (least, most) = BenchCheck.GoodOhms(ohms, more);
        return BenchCheck.Range(least, most);
    }

    /// <summary>From this standard deviation on a range says more than a figure.</summary>
    private const double SeenInRanges = 1.08;

    private static string Show(Prediction prediction, Quantity quantity) =>
        prediction switch
        {
            { Kind: PredictionKind.OverLimit } => "OL",
            { Kind: PredictionKind.Stray } => "stray",
            { Value: var v } when quantity.IsVolts() => v < (quantity == Quantity.DcVolts ? 0.5 : 1.5)
                ? "0 V"
                : FormattableString.Invariant($"{Words.Rounded(v, quantity):0.#} V{(quantity == Quantity.DcVolts ? " DC" : "")}"),
            { Value: var v } => v < 0.5 ? "0 Ω" : ReadingText.Show(new Ohms(Words.Rounded(v, quantity))),
        };
}
