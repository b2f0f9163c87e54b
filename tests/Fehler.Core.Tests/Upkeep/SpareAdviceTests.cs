using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Upkeep;
using MathNet.Numerics.Distributions;

namespace Fehler.Core.Tests.Upkeep;

public class SpareAdviceTests
{
    [Theory]
    [InlineData(1, 0, 2, 0.02, 2)]
    [InlineData(12, 6, 2, 0.1, 8)]
    [InlineData(80, 40, 2, 0.2, 26)]
    [InlineData(5, 9, 1, 0.5, 52)]
    public void What_is_held_is_the_least_that_a_poisson_law_asks_for(int installed, int failures, double years, double alike, double weeks)
    {
        var advice = SpareAdvice.Of(installed, failures, years, alike, weeks);
        var law = new Poisson(advice.NeededMeanwhile);
        (advice.Hold == installed || law.CumulativeDistribution(advice.Hold) >= 0.95).ShouldBeTrue();
        (advice.Hold == 0 || law.CumulativeDistribution(advice.Hold - 1) < 0.95).ShouldBeTrue();
        advice.ChanceWithout.ShouldBe(1 - law.Probability(0), 1e-9);
    }

    [Fact]
    public void Much_experience_speaks_for_itself_and_none_for_the_kind()
    {
        SpareAdvice.Of(50, 100, 10, 0.001, 4).FailuresAYear.ShouldBe(10, 5);
        SpareAdvice.Of(1, 0, 0, 0.03, 4).FailuresAYear.ShouldBe(0.03, 1e-9);
    }

    [Fact]
    public void Twins_have_one_name_and_what_does_not_fit_another()
    {
        static InstalledPart Part(DirectOnLine family, string tag, bool isCoil) =>
            family.Build().Compile().InstalledParts.All.Single(p => p.Device == tag && p.IsCoil == isCoil);
        var a = new DirectOnLine { Tag = "A-1", Title = "One" };
        var b = new DirectOnLine { Tag = "B-2", Title = "Two" };
        Part(a, "KM1", true).Name.ShouldBe(Part(b, "KM1", true).Name);
        Part(a with { Control = ControlSupply.LineToLine }, "KM1", true).Name.ShouldNotBe(Part(b, "KM1", true).Name);
        Part(a, "KM1", false).Rating.ShouldContain("A");
        a.Build().Compile().InstalledParts.All.ShouldAllBe(p => p.Noun.Length > 0 && p.Rating.Length > 0);
    }
}
