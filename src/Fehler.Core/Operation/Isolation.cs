using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>
/// How a circuit is isolated: the devices that have to be opened until everything behind them is dead, found by simulation,
/// and the terminals that stay live all the same. Isolators come first, then circuit-breakers; where neither is enough
/// the supply is switched off elsewhere.
/// </summary>
public sealed class Isolation
{
    /// <summary>Above this a point counts as live, V (extra-low voltage, dry: common practice is 25 to 50 V).</summary>
    private const double TouchableVolts = 25;

    internal Isolation(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        var simulator = new Simulator(compiled.Network);
        var ranked = circuit
            .Devices.Where(d => d.Kind.IsolatingPositions is not null)
            .GroupBy(d => d.Kind.IsolatingPositions!.Value.Rank)
            .OrderBy(g => g.Key);
        var opened = new List<Device>();
        foreach (var rank in ranked)
        {
            opened.AddRange(rank);
            (Off, On) = (Steps(opened, p => p.Off), Steps(opened, p => p.On));
            var solution = simulator.Do(CircuitState.AtRest(circuit), Off).Solution;
            LiveTerminals =
            [
                .. circuit.Devices.SelectMany(d => Landed(circuit, d)).Where(t => solution.Volts(t).Magnitude > TouchableVolts),
            ];
            if (circuit.Devices.Where(IsWorkedOn).All(d => !Landed(circuit, d).Any(LiveTerminals.Contains)))
            {
                break;
            }
        }

        Points = [.. opened.Select(d => d.Tag)];
    }

    /// <summary>Tags of the devices to open.</summary>
    public ImmutableArray<string> Points { get; }

    public ImmutableArray<Step> Off { get; } = [];

    public ImmutableArray<Step> On { get; } = [];

    /// <summary>Terminals that stay live: those above the isolating devices.</summary>
    public ImmutableHashSet<TerminalId> LiveTerminals { get; } = [];

    /// <summary>What has to be dead: everything that neither supplies nor isolates.</summary>
    private static bool IsWorkedOn(Device device) => device.Kind.IsolatingPositions is null && !device.Kind.IsStrip;

    private static IEnumerable<TerminalId> Landed(Circuit circuit, Device device) =>
        circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Where(t => t.Device == device.Tag).Distinct();

    private static ImmutableArray<Step> Steps(List<Device> devices, Func<(string Off, string On, int Rank), string> position) =>
        [.. devices.Select(d => new Step(d.Tag, position(d.Kind.IsolatingPositions!.Value)))];
}
