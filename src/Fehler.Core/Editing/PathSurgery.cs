using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Editing;

/// <summary>Takes parts out of a path's expression and puts others in.</summary>
internal static class PathSurgery
{
    /// <summary>The expression with every part changed.</summary>
    public static PathExpression Each(PathExpression expression, Func<Part, Part> change) =>
        expression switch
        {
            Part part => change(part),
            InSeries s => new InSeries([.. s.Children.Select(c => Each(c, change))]),
            InParallel p => new InParallel([.. p.Children.Select(c => Each(c, change))]),
            _ => expression,
        };

    /// <summary>The expression with something else in the place of a part.</summary>
    public static PathExpression Replaced(PathExpression expression, Part old, Func<PathExpression, PathExpression> with) =>
        expression switch
        {
            Part part => part.Equals(old) ? with(part) : part,
            InSeries s => new InSeries([.. s.Children.Select(c => Replaced(c, old, with))]),
            InParallel p => new InParallel([.. p.Children.Select(c => Replaced(c, old, with))]),
            _ => expression,
        };

    /// <summary>The expression without a part; null when nothing is left. A branch that loses its only part goes.</summary>
    public static PathExpression? Without(PathExpression expression, Part part) =>
        expression switch
        {
            Part p => p.Equals(part) ? null : p,
            InSeries s => Joined([.. s.Children.Select(c => Without(c, part)).OfType<PathExpression>()], series: true),
            InParallel p => Joined([.. p.Children.Select(c => Without(c, part)).OfType<PathExpression>()], series: false),
            _ => expression,
        };

    /// <summary>Series within series and parallel within parallel are one.</summary>
    public static PathExpression Flat(PathExpression expression) =>
        expression switch
        {
            InSeries s => Joined([.. s.Children.Select(Flat).SelectMany(c => c is InSeries inner ? inner.Children : [c])], series: true)!,
            InParallel p => Joined(
                [.. p.Children.Select(Flat).SelectMany(c => c is InParallel inner ? inner.Children : [c])],
                series: false
            )!,
            _ => expression,
        };

    private static PathExpression? Joined(ImmutableArray<PathExpression> children, bool series) =>
        children.Length switch
        {
            0 => null,
            1 => children[0],
            _ => series ? new InSeries(children) : new InParallel(children),
        };
}
