using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>Between the supplies: two-terminal elements, reduced to series and parallel groups.</summary>
internal sealed partial class WiringReduction
{
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
}
