using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// Finds the structure of a circuit from its wires: three-pole devices one behind the other from the supply on, and between the supplies
/// series and parallel groups of two-terminal elements. What is neither (a bridge between two rungs) stays an element of its own between two
/// named points: it is drawn as a path of its own and computed like everything else.
/// </summary>
internal sealed class WiringReduction
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

    /// <summary>Three poles from the incoming lines on, until a motor ends them.</summary>
    private void Power()
    {
        var lines = Lines.Where(l => IsWired(Supply, l)).Select(Supply.Terminal).ToList();
        foreach (var line in lines)
        {
            _rails.Add(Net(line));
        }

        if (lines.Count < 3)
        {
            return;
        }

        var open = new Queue<ImmutableArray<int>>([
            [.. lines.Select(Net)],
        ]);
        var reached = new List<ImmutableArray<int>> { open.Peek() };
        while (open.TryDequeue(out var bundle))
        {
            foreach (var step in Leaving(bundle).GroupBy(s => s.Out.IsEmpty ? s.Device.Tag : string.Join(',', s.To.Order())))
            {
                Follow(bundle, [.. step], reached, open);
            }
        }
    }

    /// <summary>What stands behind one another, and nothing beside it, is one path.</summary>
    private void Chain()
    {
        for (var joined = true; joined; )
        {
            joined = false;
            foreach (var first in _paths.Where(p => p.To.IsEmpty))
            {
                var ends = Ends(first.Expression);
                var next = ends.IsEmpty ? [] : _paths.Where(p => p != first && SameNets(p.From, ends)).ToList();
                if (
                    next is [var second]
                    && second.From.Select(Net).SequenceEqual(ends.Select(Net))
                    && !_paths.Exists(p => SameNets(p.To, ends))
                )
                {
                    _paths[_paths.IndexOf(first)] = new CircuitPath(
                        first.Name,
                        PathType.Power,
                        first.From,
                        second.To,
                        Joined(first.Expression, second.Expression, series: true)
                    );
                    _paths.Remove(second);
                    joined = true;
                    break;
                }
            }
        }
    }

    private bool SameNets(ImmutableArray<TerminalId> a, ImmutableArray<TerminalId> b) =>
        a.Length == b.Length && a.Select(Net).Order().SequenceEqual(b.Select(Net).Order());

    private static ImmutableArray<TerminalId> Ends(PathExpression expression) =>
        expression switch
        {
            Part part => [.. part.Out.Select(t => new TerminalId(part.Device, t))],
            InSeries series => Ends(series.Children[^1]),
            InParallel parallel => Ends(parallel.Children[0]),
            _ => [],
        };

    private sealed record PowerStep(Device Device, ImmutableArray<string> In, ImmutableArray<string> Out, ImmutableArray<int> To);

    /// <summary>Devices whose three poles, or three leads, lie on these three nets.</summary>
    private IEnumerable<PowerStep> Leaving(ImmutableArray<int> bundle)
    {
        foreach (var device in _devices.Where(d => !d.Kind.IsSupply && !_placed.Contains(d.Tag)))
        {
            var poles = device.Kind.Poles(device).Where(p => IsWired(device, p.Line) && IsWired(device, p.Load)).ToList();
            foreach (
                var (near, far) in new[] { poles, [.. poles.Select(p => (p.Load, p.Line))] }
                    .Where(p => p.Count == 3)
                    .Select(p => (p.Select(x => x.Item1).ToList(), p.Select(x => x.Item2).ToList()))
            )
            {
                var nets = near.Select(t => Net(device.Terminal(t))).ToList();
                if (nets.Order().SequenceEqual(bundle.Order()))
                {
                    var order = bundle.Select(n => nets.IndexOf(n)).ToList();
                    yield return new PowerStep(
                        device,
                        [.. order.Select(i => near[i])],
                        [.. order.Select(i => far[i])],
                        [.. order.Select(i => Net(device.Terminal(far[i])))]
                    );
                    break;
                }
            }

            var leads = device.Kind.Terminals(device).Where(t => t != "PE" && IsWired(device, t)).ToList();
            var ends = leads.Where(t => bundle.Contains(Net(device.Terminal(t)))).ToList();
            if (
                poles.Count == 0
                && HasInside(device)
                && ends.Count == 3
                && ends.Select(t => Net(device.Terminal(t))).Distinct().Count() == 3
            )
            {
                yield return new PowerStep(device, [.. bundle.Select(n => ends.First(t => Net(device.Terminal(t)) == n))], [], []);
            }
        }
    }

    /// <summary>Its elements lead to points inside it: a motor, a bank of heaters.</summary>
    private static bool HasInside(Device device) =>
        device.Kind.Elements(device).Any(e => e.B[0] == '~') && device.Kind.PlateOf(device) is not null;

    /// <summary>One device, or several side by side that lead to the same three points (a reversing pair).</summary>
    private void Follow(
        ImmutableArray<int> bundle,
        ImmutableArray<PowerStep> steps,
        List<ImmutableArray<int>> reached,
        Queue<ImmutableArray<int>> open
    )
    {
        var first = steps[0];
        if (first.Out.IsEmpty)
        {
            // Six leads end in two paths; a device is placed when all of its leads are.
            var part = new Part(first.Device.Tag, first.In, []);
            if (_covered.Contains(first.Device.Terminal(first.In[0])))
            {
                return;
            }

            Add(Name(first.Device), PathType.Power, bundle.Select(Point), [], part);
            return;
        }

        foreach (var step in steps)
        {
            _placed.Add(step.Device.Tag);
        }

        var known = reached.FirstOrDefault(r => r.Order().SequenceEqual(first.To.Order()));
        var target = known.IsDefault ? first.To : known;
        var parts = steps
            .Select(s => (PathExpression)new Part(s.Device.Tag, s.In, [.. target.Select(n => s.Out[s.To.IndexOf(n)])]))
            .ToImmutableArray();
        Add(
            string.Join(", ", steps.Select(s => Name(s.Device))),
            PathType.Power,
            bundle.Select(Point),
            known.IsDefault ? [] : known.Select(Point),
            parts.Length == 1 ? parts[0] : new InParallel(parts)
        );
        if (known.IsDefault)
        {
            reached.Add(target);
            open.Enqueue(target);
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

    /// <summary>An element, or a group of them, between two nets.</summary>
    private sealed record Branch(int A, int B, PathExpression Expression)
    {
        public Branch Turned => new(B, A, Turn(Expression));

        private static PathExpression Turn(PathExpression expression) =>
            expression switch
            {
                Part part => new Part(part.Device, part.Out, part.In),
                InSeries series => new InSeries([.. series.Children.Reverse().Select(Turn)]),
                InParallel parallel => new InParallel([.. parallel.Children.Select(Turn)]),
                _ => expression,
            };

        public Branch From(int net) => A == net ? this : Turned;

        public int Other(int net) => A == net ? B : A;
    }

    private void Control()
    {
        var branches = _devices
            .Where(d => !d.Kind.IsSupply)
            .SelectMany(d =>
                d.Kind.Elements(d)
                    .Where(e => e.A[0] != '~' && e.B[0] != '~' && e.Role != ElementRole.Source && IsWired(d, e.A) && IsWired(d, e.B))
                    .Where(e => !_covered.Contains(d.Terminal(e.A)) || !_covered.Contains(d.Terminal(e.B)))
                    .Where(e => Net(d.Terminal(e.A)) != Net(d.Terminal(e.B)))
                    .Select(e => new Branch(Net(d.Terminal(e.A)), Net(d.Terminal(e.B)), new Part(d.Tag, [e.A], [e.B])))
            )
            .ToList();
        while (Parallel(branches) || Series(branches)) { }

        // From the feeding side to the return: the neutral, the earthed or the second pole.
        foreach (var branch in branches.OrderBy(b => Rank(b.A) + Rank(b.B)))
        {
            var b = Rank(branch.A) <= Rank(branch.B) ? branch : branch.Turned;
            Add(PathName(b.Expression), PathType.Control, [Point(b.A)], [Point(b.B)], b.Expression);
        }
    }

    /// <summary>What a path is called by: the coil or lamp that it exists for, or its first device.</summary>
    private string PathName(PathExpression expression)
    {
        var parts = expression.Parts().ToList();
        var load = parts.FirstOrDefault(p =>
            _devices.First(d => d.Tag == p.Device) is var d && d.Kind.CoilOf(d) is not null && p.In[0] == d.Kind.CoilOf(d)!.Element.A
        );
        var device = _devices.First(d => d.Tag == (load ?? parts[0]).Device);
        return Name(device);
    }

    /// <summary>Feeds first, returns last.</summary>
    private int Rank(int net)
    {
        foreach (var t in _nets.Terminals.Where(t => Net(t) == net))
        {
            var device = _devices.First(d => d.Tag == t.Device);
            var own = device.Own(t.Name);
            if (device.Kind.IsSupply)
            {
                return own switch
                {
                    "PE" => 9,
                    "N" => 8,
                    "L3" => 7,
                    "L2" => 6,
                    _ => 0,
                };
            }

            if (device.Kind.DirectOutput is { } output && (own == output.Plus || own == output.Minus))
            {
                return own == output.Plus ? 1 : 8;
            }

            if (device.Kind.Elements(device).Any(e => e.B[0] == '~') && device.Kind.PlateOf(device) is null)
            {
                return own switch
                {
                    "3" => 1,
                    "4" => 8,
                    "0" => 7,
                    "2" => 6,
                    _ => 2,
                };
            }
        }

        // Behind protection the first line feeds and the others return.
        return _paths
            .SelectMany(p => p.Expression.Parts())
            .Select(p =>
                p.Out.IndexOf(
                    p.Out.FirstOrDefault(o => _nets.Has(new TerminalId(p.Device, o)) && Net(new TerminalId(p.Device, o)) == net) ?? ""
                )
            )
            .Where(i => i >= 0)
            .Select(i =>
                i switch
                {
                    0 => 2,
                    1 => 6,
                    _ => 7,
                }
            )
            .DefaultIfEmpty(4)
            .First();
    }

    private static bool Parallel(List<Branch> branches)
    {
        for (var i = 0; i < branches.Count; i++)
        {
            for (var j = i + 1; j < branches.Count; j++)
            {
                var (a, b) = (branches[i], branches[j]);
                if ((a.A, a.B) == (b.A, b.B) || (a.A, a.B) == (b.B, b.A))
                {
                    branches[i] = new Branch(a.A, a.B, Joined(a.Expression, b.From(a.A).Expression, series: false));
                    branches.RemoveAt(j);
                    return true;
                }
            }
        }

        return false;
    }

    private bool Series(List<Branch> branches)
    {
        foreach (var net in branches.SelectMany(b => new[] { b.A, b.B }).Distinct().Where(n => !_rails.Contains(n)))
        {
            var here = branches.Where(b => b.A == net || b.B == net).ToList();
            if (here is [var first, var second] && first.Other(net) != second.Other(net))
            {
                var (a, b) = (first.Other(net), second.Other(net));
                branches.Remove(first);
                branches[branches.IndexOf(second)] = new Branch(
                    a,
                    b,
                    Joined(first.From(a).Expression, second.From(net).Expression, series: true)
                );
                return true;
            }
        }

        return false;
    }

    private static PathExpression Joined(PathExpression a, PathExpression b, bool series)
    {
        static IEnumerable<PathExpression> Flat(PathExpression e, bool series) =>
            (e, series) switch
            {
                (InSeries s, true) => s.Children,
                (InParallel p, false) => p.Children,
                _ => [e],
            };
        ImmutableArray<PathExpression> children = [.. Flat(a, series), .. Flat(b, series)];
        return series ? new InSeries(children) : new InParallel(children);
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
