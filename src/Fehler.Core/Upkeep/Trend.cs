using System.Collections.Immutable;

namespace Fehler.Core.Upkeep;

/// <summary>Between what a followed value is to stay.</summary>
/// <param name="Least">Not below; null where there is no such limit.</param>
/// <param name="Most">Not above; null where there is no such limit.</param>
/// <param name="Why">Where the limit comes from.</param>
public sealed record SeriesLimit(double? Least, double? Most, string Why)
{
    /// <summary>Whether a value has passed it.</summary>
    public bool IsPassedBy(double value) => value < Least || value > Most;
}

/// <summary>When a limit will be reached if it goes on so.</summary>
/// <param name="About">By the line through the values.</param>
/// <param name="Earliest">By the steepest line that they bear.</param>
/// <param name="Latest">By the flattest; null where it may be five years and more.</param>
public sealed record LimitReached(DateTimeOffset About, DateTimeOffset Earliest, DateTimeOffset? Latest);

/// <summary>
/// The straight line through the values of a series, by least squares, with what the values say of its slope: a 90 % interval by Student's
/// t. What changes by factors (insulation) is fitted in the logarithm. A slope whose interval holds zero is no trend.
/// </summary>
public sealed record Trend
{
    /// <summary>Fewer values, or a shorter time, carry no line.</summary>
    public const int LeastValues = 4;

    /// <inheritdoc cref="LeastValues"/>
    public static readonly TimeSpan LeastSpan = TimeSpan.FromDays(60);

    /// <summary>Nobody plans further ahead, years.</summary>
    private const double Horizon = 5;

    private const double DaysAYear = 365.25;

    /// <summary>95 % quantiles of Student's t for 1 to 30 degrees of freedom (any table of it).</summary>
    private static readonly ImmutableArray<double> Quantiles =
    [
        6.314,
        2.920,
        2.353,
        2.132,
        2.015,
        1.943,
        1.895,
        1.860,
        1.833,
        1.812,
        1.796,
        1.782,
        1.771,
        1.761,
        1.753,
        1.746,
        1.740,
        1.734,
        1.729,
        1.725,
        1.721,
        1.717,
        1.714,
        1.711,
        1.708,
        1.706,
        1.703,
        1.701,
        1.699,
        1.697,
    ];

    private readonly bool _isLogarithmic;
    private readonly DateTimeOffset _last;

    private Trend(bool isLogarithmic, DateTimeOffset last) => (_isLogarithmic, _last) = (isLogarithmic, last);

    /// <summary>Change a year: a difference, or for what changes by factors the natural logarithm of a factor.</summary>
    public double SlopePerYear { get; private init; }

    /// <summary>Half the width of the 90 % interval of the slope.</summary>
    public double SlopeUncertainty { get; private init; }

    /// <summary>By the line, at the last value.</summary>
    public double Now { get; private init; }

    /// <summary>The values say that it changes at all.</summary>
    public bool IsSure => Math.Abs(SlopePerYear) > SlopeUncertainty;

    /// <summary>What the line says of a moment.</summary>
    public double At(DateTimeOffset when) => Back(Forth(Now) + SlopePerYear * Years(when));

    /// <summary>The line through values of one series.</summary>
    /// <returns>Null where there are too few, over too short a time.</returns>
    public static Trend? Through(Followed what, IReadOnlyList<(DateTimeOffset At, double Value)> values)
    {
        var isLogarithmic = what.ChangesByFactors();
        if (
            values.Count < LeastValues
            || values.Max(v => v.At) - values.Min(v => v.At) < LeastSpan
            || (isLogarithmic && values.Any(v => v.Value <= 0))
        )
        {
            return null;
        }

        var last = values.Max(v => v.At);
        var blank = new Trend(isLogarithmic, last);
        var (x, y) = (values.Select(v => blank.Years(v.At)).ToArray(), values.Select(v => blank.Forth(v.Value)).ToArray());
        var (meanX, meanY) = (x.Average(), y.Average());
        var spread = x.Sum(v => (v - meanX) * (v - meanX));
        var slope = x.Zip(y, (a, b) => (a - meanX) * (b - meanY)).Sum() / spread;
        var rest = x.Zip(y, (a, b) => Math.Pow(b - meanY - slope * (a - meanX), 2)).Sum();
        var freedom = values.Count - 2;
        return blank with
        {
            SlopePerYear = slope,
            SlopeUncertainty = Quantile(freedom) * Math.Sqrt(rest / freedom / spread),
            Now = blank.Back(meanY - slope * meanX),
        };
    }

    /// <summary>When it passes a limit at this rate; null where it does not head there, is past it, or the values do not say.</summary>
    public LimitReached? Reaches(SeriesLimit limit)
    {
        if (!IsSure || limit.IsPassedBy(Now))
        {
            return null;
        }

        var bound = SlopePerYear > 0 ? limit.Most : limit.Least;
        if (bound is not { } end || (_isLogarithmic && end <= 0))
        {
            return null;
        }

        var way = Math.Abs(Forth(end) - Forth(Now));
        var (about, steep, flat) = (
            way / Math.Abs(SlopePerYear),
            way / (Math.Abs(SlopePerYear) + SlopeUncertainty),
            way / (Math.Abs(SlopePerYear) - SlopeUncertainty)
        );
        return about > Horizon ? null : new LimitReached(After(about), After(steep), flat > Horizon ? null : After(flat));
    }

    internal static double Quantile(int freedom) =>
        freedom <= Quantiles.Length ? Quantiles[freedom - 1] : 1.645 + 1.52 / freedom + 1.4 / freedom / freedom;

    private DateTimeOffset After(double years) => _last.AddDays(years * DaysAYear);

    private double Years(DateTimeOffset when) => (when - _last).TotalDays / DaysAYear;

    private double Forth(double value) => _isLogarithmic ? Math.Log(value) : value;

    private double Back(double value) => _isLogarithmic ? Math.Exp(value) : value;
}
