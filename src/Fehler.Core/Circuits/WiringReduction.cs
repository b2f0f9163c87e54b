using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// Finds the structure of a circuit from its wires: three-pole devices one behind the other from the supply on, and between the supplies
/// series and parallel groups of two-terminal elements. What is neither (a bridge between two rungs) stays an element of its own between two
/// named points: it is drawn as a path of its own and computed like everything else.
/// </summary>
internal sealed partial class WiringReduction
{
    private static readonly string[] Lines = ["L1", "L2", "L3"],
        Returns = ["N", "PE"];

    private readonly ImmutableArray<Device> _devices;
    private readonly TerminalNets _nets;
    private readonly List<CircuitPath> _paths = [];
    private readonly HashSet<TerminalId> _covered = [];
    private readonly HashSet<string> _placed = [];

    /// <summary>Nets that current comes from or goes to: nothing is reduced across them.</summary>
    private readonly HashSet<int> _rails = [];

    public WiringReduction(ImmutableArray<Device> devices, ImmutableArray<Conductor> conductors)
    {
        _devices = [.. devices.Select(d => d.Kind.WithDefaults(d))];
        _nets = new TerminalNets(conductors);
    }

    public ImmutableArray<CircuitPath> Paths()
    {
        Power();
        Chain();
        Sources();
        Control();
        Rest();
        return [.. _paths];
    }

    private Device Supply =>
        _devices.FirstOrDefault(d => d.Kind.IsSupply) ?? throw new CircuitException("list", "has no device of kind 'supply'.");

    private int Net(TerminalId terminal) => _nets.Of(terminal);

    /// <summary>A terminal that stands for a net in paths: of a supply or source if one is on it, or one that a path has led to.</summary>
    private TerminalId Point(int net) =>
        _nets
            .Terminals.Where(t => Net(t) == net && !IsClamp(t))
            .OrderBy(t =>
                t.Device == Supply.Tag ? 0
                : _covered.Contains(t) ? 1
                : 2
            )
            .FirstOrDefault()
            is { Device: not null } point
            ? point
            : throw new CircuitException(
                "list",
                $"joins clamps with each other and nothing else: {_nets.Terminals.First(t => Net(t) == net)}."
            );

    private bool IsClamp(TerminalId t) => _devices.First(d => d.Tag == t.Device).Kind.IsStrip;

    private bool IsWired(Device device, string terminal) => _nets.Has(device.Terminal(terminal));

    private void Add(string name, PathType type, IEnumerable<TerminalId> from, IEnumerable<TerminalId> to, PathExpression expression)
    {
        var path = new CircuitPath(name, type, [.. from], [.. to], expression);
        _paths.Add(path);
        _covered.UnionWith(path.From);
        _covered.UnionWith(path.To);
        foreach (var part in expression.Parts())
        {
            _covered.UnionWith(part.In.Concat(part.Out).Select(t => new TerminalId(part.Device, t)));
        }
    }

    private static string Name(Device device) => device.Function.Length > 0 ? device.Function : device.Tag;

    /// <summary>Windings and electronics that feed something: their outputs are rails, their inputs end a path.</summary>
    private void Sources()
    {
        foreach (var t in Returns.Where(t => IsWired(Supply, t)))
        {
            _rails.Add(Net(Supply.Terminal(t)));
        }

        foreach (var device in _devices.Where(d => !d.Kind.IsSupply))
        {
            var elements = device.Kind.Elements(device);
            foreach (var e in elements.Where(e => e.Role == ElementRole.Source))
            {
                _rails.UnionWith(new[] { e.A, e.B }.Where(t => IsWired(device, t)).Select(t => Net(device.Terminal(t))));
            }

            if (elements.Any(e => e.B[0] == '~') && device.Kind.PlateOf(device) is null)
            {
                _rails.UnionWith(device.Kind.Terminals(device).Where(t => IsWired(device, t)).Select(t => Net(device.Terminal(t))));
            }
        }

        // Below the protection of the motor the control circuit begins.
        foreach (var part in _paths.SelectMany(p => p.Expression.Parts()))
        {
            _rails.UnionWith(part.In.Concat(part.Out).Select(t => new TerminalId(part.Device, t)).Where(_nets.Has).Select(Net));
        }
    }

    /// <summary>
    /// Whatever is wired and stands in no path yet: primaries, protective conductors, single leads, contacts of which one side is spare.
    /// </summary>
    private void Rest()
    {
        foreach (var device in _devices.Where(d => !d.Kind.IsStrip && !d.Kind.IsSupply))
        {
            foreach (var terminal in device.Kind.Terminals(device).Where(t => IsWired(device, t) && !_covered.Contains(device.Terminal(t))))
            {
                var at = device.Terminal(terminal);
                var others = _nets.Terminals.Any(t => t != at && Net(t) == Net(at) && !IsClamp(t) && _covered.Contains(t));
                if (others)
                {
                    Add($"{Name(device)} {terminal}", PathType.Control, [Point(Net(at))], [], new Part(device.Tag, [terminal], []));
                }
                else
                {
                    // Nothing has led here yet: others will be led from it.
                    _covered.Add(at);
                }
            }
        }
    }
}
