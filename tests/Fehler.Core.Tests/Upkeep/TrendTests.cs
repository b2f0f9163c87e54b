using Fehler.Core.Upkeep;
using MathNet.Numerics;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearRegression;

namespace Fehler.Core.Tests.Upkeep;

/// <summary>The line through values against a library's regression and Student's t.</summary>
public class TrendTests
{
    private static readonly DateTimeOffset Begin = new(2024, 1, 1, 0, 0, 0, TimeSpan.Zero);

    private static List<(DateTimeOffset, double)> Yearly(params double[] values) =>
        [.. values.Select((v, i) => (Begin.AddDays(365.25 * i), v))];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(7)]
    [InlineData(30)]
    [InlineData(31)]
    [InlineData(60)]
    [InlineData(500)]
    public void Quantiles_are_those_of_students_t(int freedom) =>
        Trend.Quantile(freedom).ShouldBe(StudentT.InvCDF(0, 1, freedom, 0.95), 0.002);

    [Fact]
    public void Slope_and_its_interval_are_a_librarys()
    {
        double[] y = [100, 101.5, 101, 104, 103.5, 106.5];
        var trend = Trend.Through(Followed.CoilOhms, Yearly(y))!;
        double[] x = [.. Enumerable.Range(0, y.Length).Select(i => (double)i)];
        var (intercept, slope) = SimpleRegression.Fit(x, y);
        trend.SlopePerYear.ShouldBe(slope, 1e-9);
        trend.Now.ShouldBe(intercept + slope * 5, 1e-9);
        var standard = GoodnessOfFit.StandardError(x.Select(v => intercept + slope * v), y, 2);
        var spread = x.Sum(v => Math.Pow(v - x.Average(), 2));
        trend.SlopeUncertainty.ShouldBe(StudentT.InvCDF(0, 1, 4, 0.95) * standard / Math.Sqrt(spread), 0.002);
        trend.IsSure.ShouldBeTrue();
    }

    [Fact]
    public void Insulation_that_halves_each_year_reaches_its_limit_when_halving_says()
    {
        // 80, 40, 20, 10 MOhm: at 10 now, 5 in a year, whatever the noise.
        var trend = Trend.Through(Followed.Insulation, Yearly(80e6, 40.4e6, 19.8e6, 10e6))!;
        var reached = trend.Reaches(new SeriesLimit(5e6, null, ""))!;
        var last = Begin.AddDays(3 * 365.25);
        (reached.About - last).TotalDays.ShouldBe(365, 12);
        reached.Earliest.ShouldBeLessThan(reached.About);
        reached.Latest!.Value.ShouldBeGreaterThan(reached.About);
    }

    [Fact]
    public void What_does_not_head_for_the_limit_never_reaches_it() =>
        Trend.Through(Followed.Insulation, Yearly(10e6, 20e6, 40e6, 80e6))!.Reaches(new SeriesLimit(5e6, null, "")).ShouldBeNull();

    [Fact]
    public void Scatter_alone_is_no_trend()
    {
        var trend = Trend.Through(Followed.RunningAmps, Yearly(10, 10.4, 9.7, 10.2, 9.9, 10.1))!;
        trend.IsSure.ShouldBeFalse();
        trend.Reaches(new SeriesLimit(null, 11, "")).ShouldBeNull();
    }

    [Theory]
    [InlineData(3, 365)]
    [InlineData(6, 10)]
    public void Too_few_values_or_too_short_a_time_carry_no_line(int count, double daysApart) =>
        Trend
            .Through(Followed.CoilOhms, [.. Enumerable.Range(0, count).Select(i => (Begin.AddDays(daysApart * i), 100.0 + i))])
            .ShouldBeNull();
}
