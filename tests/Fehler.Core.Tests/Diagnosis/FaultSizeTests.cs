using Fehler.Core.Diagnosis;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>A fault of unknown size is of one size: each reading narrows what the next may show.</summary>
public class FaultSizeTests
{
    private static Prediction Foretold(FaultSize size, double given, double stepped, double own)
    {
        var (value, spread, slope) = size.Between(given, stepped);
        return new Prediction(PredictionKind.Value, value, own, spread) { SizeSlope = slope };
    }

    /// <summary>Two resistances in series, by Ohm's law: what a bad joint takes at one place is missing at the other.</summary>
    [Fact]
    public void What_one_reading_says_of_a_joint_the_next_one_takes_into_account()
    {
        const double supply = 230,
            coil = 1000;
        static double Across(double joint) => supply * joint / (joint + coil);
        static double Behind(double joint) => supply * coil / (joint + coil);
        var size = FaultSize.Unknown;
        // The catalogue says 800 ohm, or twice that; this one has 1300.
        var first = Foretold(size, Across(800), Across(1600), 3);
        size = size.NarrowedBy(first, Across(1300));
        var next = Foretold(size, Behind(800), Behind(1600), 3);
        next.Value.ShouldBe(Behind(1300), 8);
        next.Deviation.ShouldBeLessThan(0.5 * Foretold(FaultSize.Unknown, Behind(800), Behind(1600), 3).Deviation);
        next.Fit(Behind(1300)).ShouldBeGreaterThan(2 * Foretold(FaultSize.Unknown, Behind(800), Behind(1600), 3).Fit(Behind(1300)));
    }

    /// <summary>What acts as a factor is narrowed as a factor: two steps of a factor of two are a factor of four.</summary>
    [Theory]
    [InlineData(8)]
    [InlineData(2)]
    [InlineData(1)]
    public void A_resistance_to_earth_is_known_after_one_reading_of_it(double ohms)
    {
        var size = FaultSize.Unknown;
        for (var i = 0; i < 3; i++)
        {
            size = size.NarrowedBy(Foretold(size, 2, 4, 0.1), ohms);
        }

        Foretold(size, 2, 4, 0.1).Value.ShouldBe(ohms, 0.15 * ohms);
    }

    /// <summary>A mistake says nothing of the size, and where the size does not matter nothing is learned of it.</summary>
    [Fact]
    public void A_mistake_says_nothing_of_the_size()
    {
        var size = FaultSize.Unknown;
        size.NarrowedBy(Foretold(size, 10, 12, 1), 230).ShouldBe(size);
        size.NarrowedBy(Foretold(size, 230, 230, 5), 231).ShouldBe(size);
        size.NarrowedBy(new Prediction(PredictionKind.Stray, 60), 50).ShouldBe(size);
    }
}
