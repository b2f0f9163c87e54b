using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// How devices stand in a path: one after the other, side by side, or a single part. Control paths are one
/// conductor wide, power paths as wide as the poles of their devices. Inserting a device in series or in parallel
/// is an edit of this expression; conductors, drawing and network follow from it.
/// </summary>
public abstract record PathExpression
{
    /// <summary>All parts in reading order.</summary>
    public abstract IEnumerable<Part> Parts();
}

/// <summary>
/// One device in a path: the terminals the path enters by and those it leaves by, position by position. A part
/// with no leaving terminals ends the path (a motor).
/// </summary>
public sealed record Part(string Device, ImmutableArray<string> In, ImmutableArray<string> Out) : PathExpression
{
    public override IEnumerable<Part> Parts() => [this];

    public bool Equals(Part? other) =>
        other is not null && Device == other.Device && In.SequenceEqual(other.In) && Out.SequenceEqual(other.Out);

    public override int GetHashCode() => HashCode.Combine(Device, In.Length, Out.Length);

    /// <summary><c>KM1:13-14</c>, or <c>KM1:1-2,3-4,5-6</c>, or <c>M1:U,V,W</c> at the end of a path.</summary>
    public override string ToString() => $"{Device}:{string.Join(',', Out.IsEmpty ? In : In.Zip(Out, (a, b) => $"{a}-{b}"))}";

    /// <summary>Reads the form written by <see cref="ToString"/>.</summary>
    /// <exception cref="FormatException">The text is not of that form.</exception>
    public static Part Parse(string text)
    {
        var colon = text.IndexOf(':', StringComparison.Ordinal);
        if (colon <= 0 || colon == text.Length - 1)
        {
            throw new FormatException(
                $"'{text}' is not a part: write device:in-out (KM1:13-14), several poles with commas (KM1:1-2,3-4,5-6), or the "
                    + "terminals that end a path (M1:U,V,W)."
            );
        }

        var pairs = text[(colon + 1)..].Split(',', StringSplitOptions.TrimEntries).Select(p => p.Split('-')).ToList();
        var width = pairs[0].Length;
        if (width > 2 || pairs.Any(p => p.Length != width || p.Any(string.IsNullOrWhiteSpace)))
        {
            throw new FormatException($"'{text}' mixes forms: every pole is in-out, or every terminal ends the path.");
        }

        return new Part(text[..colon], [.. pairs.Select(p => p[0])], width == 2 ? [.. pairs.Select(p => p[1])] : []);
    }
}

/// <summary>Parts one after the other: the current through one goes through all.</summary>
public sealed record InSeries(ImmutableArray<PathExpression> Children) : PathExpression
{
    public override IEnumerable<Part> Parts() => Children.SelectMany(c => c.Parts());

    public bool Equals(InSeries? other) => other is not null && Children.SequenceEqual(other.Children);

    public override int GetHashCode() => HashCode.Combine("series", Children.Length);
}

/// <summary>Parts side by side: each joins the same conductors above and below.</summary>
public sealed record InParallel(ImmutableArray<PathExpression> Children) : PathExpression
{
    public override IEnumerable<Part> Parts() => Children.SelectMany(c => c.Parts());

    public bool Equals(InParallel? other) => other is not null && Children.SequenceEqual(other.Children);

    public override int GetHashCode() => HashCode.Combine("parallel", Children.Length);
}
