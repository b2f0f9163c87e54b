using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Drawing;

/// <summary>Branches that are folded away: drawn as a stub with their names.</summary>
/// <param name="Of">The branches, which lie side by side.</param>
internal sealed record Stub(ImmutableArray<PathExpression> Of) : PathExpression
{
    private const int MostNames = 3;

    public override IEnumerable<Part> Parts() => Of.SelectMany(e => e.Parts());

    public string Text
    {
        get
        {
            var tags = Parts().Select(p => p.Device).Distinct().ToList();
            return string.Join(", ", tags.Take(MostNames)) + (tags.Count > MostNames ? $" +{tags.Count - MostNames}" : "");
        }
    }
}

/// <summary>
/// The path in question: every branch in which nothing is kept becomes a stub. What lies in series with something that is kept stays, since
/// the current flows through it.
/// </summary>
/// <param name="keeps">Whether a part is kept.</param>
internal sealed class Folding(Func<Part, bool> keeps)
{
    public bool Keeps(PathExpression expression) => expression.Parts().Any(keeps);

    /// <summary>The same with its idle branches folded; the first of branches that are all idle stays, or the path would be torn.</summary>
    public PathExpression Of(PathExpression expression)
    {
        switch (expression)
        {
            case InSeries series:
                return new InSeries([.. series.Children.Select(Of)]);
            case InParallel parallel:
                var first = Keeps(parallel) ? -1 : 0;
                var children = new List<PathExpression>();
                foreach (var (child, i) in parallel.Children.Select((c, i) => (c, i)))
                {
                    if (i == first || Keeps(child))
                    {
                        children.Add(Of(child));
                    }
                    else if (children.LastOrDefault() is Stub beside)
                    {
                        children[^1] = new Stub(beside.Of.Add(child));
                    }
                    else
                    {
                        children.Add(new Stub([child]));
                    }
                }

                return children.Count == 1 ? children[0] : new InParallel([.. children]);
            default:
                return expression;
        }
    }
}
