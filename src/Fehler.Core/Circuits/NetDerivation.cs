using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// The nets of a structure: which terminals the paths say are one potential, with the wire number each gets when
/// nobody has numbered it. A net is a set; how conductors run through it is a route, see <see cref="Routing"/>.
/// </summary>
internal sealed class NetDerivation
{
    private readonly Dictionary<TerminalId, TerminalId> _parent = [];
    private readonly List<TerminalId> _order = [];
    private readonly Dictionary<TerminalId, string> _proposed = [];
    private readonly HashSet<TerminalId> _power = [];
    private ImmutableArray<string> _supplies = [];
    private ImmutableDictionary<string, Device> _devices = ImmutableDictionary<string, Device>.Empty;

    /// <summary>Terminals of each net in reading order, with its proposed wire number and whether it carries power.</summary>
    /// <param name="paths">The structure.</param>
    /// <param name="devices">The devices; the wires of supplies are called as their terminals.</param>
    public static ImmutableArray<Net> Of(ImmutableArray<CircuitPath> paths, ImmutableArray<Device> devices)
    {
        var derivation = new NetDerivation
        {
            _supplies = [.. devices.Where(d => d.Kind.IsSupply).Select(d => d.Tag)],
            _devices = devices.ToImmutableDictionary(d => d.Tag),
        };
        foreach (var path in paths.OrderBy(p => p.Type))
        {
            derivation.Add(path);
        }

        return derivation.Nets();
    }

    private void Add(CircuitPath path)
    {
        var tops = Walk(path.Expression, path, [.. path.From]);
        for (var i = 0; i < Math.Min(tops.Length, path.To.Length); i++)
        {
            Join(tops[i], path.To[i]);
        }

        if (path.Type == PathType.Power)
        {
            foreach (var part in path.Expression.Parts())
            {
                _power.UnionWith(part.In.Concat(part.Out).Select(t => new TerminalId(part.Device, t)));
            }

            _power.UnionWith(path.From);
        }
    }

    /// <summary>Joins the heads of an expression to <paramref name="heads"/> and returns its ends.</summary>
    private ImmutableArray<TerminalId> Walk(PathExpression expression, CircuitPath path, ImmutableArray<TerminalId> heads)
    {
        switch (expression)
        {
            case Part part:
                for (var i = 0; i < part.In.Length; i++)
                {
                    Join(heads[i], new TerminalId(part.Device, part.In[i]));
                }

                foreach (var t in part.Out)
                {
                    Touch(new TerminalId(part.Device, t));
                }

                return [.. part.Out.Select(t => new TerminalId(part.Device, t))];
            case InSeries series:
                return series.Children.Aggregate(heads, (at, child) => Walk(child, path, at));
            case InParallel parallel:
                var ends = parallel.Children.Select(c => Walk(c, path, heads)).ToList();
                foreach (var other in ends.Skip(1))
                {
                    for (var i = 0; i < other.Length; i++)
                    {
                        Join(ends[0][i], other[i]);
                    }
                }

                return ends[0];
            default:
                throw new InvalidOperationException("Unknown path expression.");
        }
    }

    private void Touch(TerminalId t)
    {
        if (_parent.TryAdd(t, t))
        {
            _order.Add(t);
        }
    }

    private TerminalId Root(TerminalId t)
    {
        while (_parent[t] != t)
        {
            t = _parent[t] = _parent[_parent[t]];
        }

        return t;
    }

    private void Join(TerminalId a, TerminalId b)
    {
        Touch(a);
        Touch(b);
        _parent[Root(b)] = Root(a);
    }

    private ImmutableArray<Net> Nets()
    {
        var next = 1;
        var nets = ImmutableArray.CreateBuilder<Net>();
        var powerStage = new Dictionary<string, int>();
        foreach (var group in _order.GroupBy(Root))
        {
            var members = group.ToImmutableArray();
            var named = members.FirstOrDefault(m => m.Name == "PE" || _supplies.Contains(m.Device));
            var isPower = members.Any(_power.Contains);
            string wire;
            if (named != default)
            {
                wire = named.Name;
            }
            else if (isPower)
            {
                // Power conductors are numbered by stage behind the supply: 1L1, 2L1 ... (common practice).
                var position = PolePosition(members);
                var stage = powerStage[position] = powerStage.GetValueOrDefault(position) + 1;
                wire = $"{stage}{position}";
            }
            else
            {
                wire = $"{next++}";
            }

            nets.Add(new Net(wire, members, isPower));
        }

        return nets.ToImmutable();
    }

    private string PolePosition(ImmutableArray<TerminalId> members)
    {
        foreach (var member in members)
        {
            switch (_devices[member.Device].Own(member.Name))
            {
                case "1" or "2" or "U" or "U1":
                    return "L1";
                case "3" or "4" or "V" or "V1":
                    return "L2";
                case "5" or "6" or "W" or "W1":
                    return "L3";
                case "7" or "8":
                    return "N";
            }
        }

        return "P";
    }
}

/// <summary>Terminals that a healthy circuit holds at one potential.</summary>
internal sealed record Net(string Wire, ImmutableArray<TerminalId> Terminals, bool IsPower);
