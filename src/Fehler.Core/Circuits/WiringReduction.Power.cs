using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>The power side: devices of three poles one behind the other, from the supply on.</summary>
internal sealed partial class WiringReduction
{
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
}
