using Fehler.Core.Diagnosis;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>A fault of unknown size is of one size: each reading narrows what the next may show.</summary>
public class FaultSizeTests
{
    private const double Supply = 230,
        Coil = 1000,
        Factor = 2;

    private static Prediction Foretold(FaultSize size, AtSizes value, double own)
    {
        var (foretold, spread, slope) = size.Of(value);
        return new Prediction(PredictionKind.Value, foretold, own, spread) { SizeSlope = slope };
    }

    private static FaultSize Narrowed(FaultSize size, AtSizes value, double own, double observed) =>
        size.NarrowedBy(guess => Foretold(guess, value, own), observed);

    /// <summary>Two resistances in series, by Ohm's law: what a bad joint takes at one place is missing at the other.</summary>
    private static double Across(double joint) => Supply * joint / (joint + Coil);

    private static double Behind(double joint) => Supply * Coil / (joint + Coil);

    private static AtSizes Around(Func<double, double> value, double given) =>
        new(value(given), value(Factor * given), value(given / Factor));

    [Fact]
    public void What_one_reading_says_of_a_joint_the_next_one_takes_into_account()
    {
        // The catalogue says 800 ohm, or twice that; this one has 1300.
        var (across, behind) = (Around(Across, 800), Around(Behind, 800));
        var unknown = FaultSize.Unknown(Factor);
        var size = Narrowed(unknown, across, 3, Across(1300));
        var next = Foretold(size, behind, 3);
        next.Value.ShouldBe(Behind(1300), 4);
        next.Deviation.ShouldBeLessThan(0.5 * Foretold(unknown, behind, 3).Deviation);
        next.Fit(Behind(1300)).ShouldBeGreaterThan(2 * Foretold(unknown, behind, 3).Fit(Behind(1300)));
    }

    /// <summary>
    /// By Ohm's law, not along a tangent: a joint of a fifth of the catalogue's ohms, told from the voltage that it leaves the coil, is then
    /// measured as what it is.
    /// </summary>
    [Theory]
    [InlineData(200)]
    [InlineData(400)]
    [InlineData(1600)]
    [InlineData(3000)]
    public void A_joint_far_from_the_catalogues_size_is_told_from_a_voltage(double joint)
    {
        var size = Narrowed(FaultSize.Unknown(Factor), Around(Behind, 800), 2, Behind(joint));
        var ohms = Foretold(size, Around(x => x, 800), 5);
        ohms.Value.ShouldBe(joint, 0.12 * joint);
        Math.Abs(ohms.Distance(joint)).ShouldBeLessThan(1);
    }

    /// <summary>The values of a voltage divider at three sizes are enough for all.</summary>
    [Theory]
    [InlineData(-3)]
    [InlineData(-0.5)]
    [InlineData(0)]
    [InlineData(2)]
    public void Every_value_of_a_linear_network_follows_from_three(double steps)
    {
        var joint = 800 * Math.Pow(Factor, steps);
        Around(Behind, 800).At(steps, Factor)!.Value.Value.ShouldBe(Behind(joint), 1e-6);
        Around(Across, 800).At(steps, Factor)!.Value.Value.ShouldBe(Across(joint), 1e-6);
        const double small = 1e-5;
        var slope = (Across(joint * Math.Pow(Factor, small)) - Across(joint)) / small;
        Around(Across, 800).At(steps, Factor)!.Value.Slope.ShouldBe(slope, 0.01 * slope);
    }

    /// <summary>A joint in series with a coil: a straight line, whatever rounding makes of its three values.</summary>
    [Theory]
    [InlineData(0)]
    [InlineData(1e-9)]
    [InlineData(-1e-9)]
    public void In_series_ohms_add(double rounding)
    {
        const double coil = 383.7;
        var series = new AtSizes(800 + coil + rounding, 1600 + coil, 400 + coil);
        series.At(-2.4, Factor)!.Value.Value.ShouldBe(800 * Math.Pow(Factor, -2.4) + coil, 0.01);
    }

    /// <summary>What acts as a factor is narrowed as a factor: two steps of a factor of two are a factor of four.</summary>
    [Theory]
    [InlineData(8)]
    [InlineData(2)]
    [InlineData(1)]
    public void A_resistance_to_earth_is_known_after_one_reading_of_it(double ohms)
    {
        var size = FaultSize.Unknown(Factor);
        var leak = new AtSizes(2, 4, 1);
        for (var i = 0; i < 3; i++)
        {
            size = Narrowed(size, leak, 0.1, ohms);
        }

        Foretold(size, leak, 0.1).Value.ShouldBe(ohms, 0.15 * ohms);
    }

    /// <summary>A mistake says nothing of the size, and where the size does not matter nothing is learned of it.</summary>
    [Fact]
    public void A_mistake_says_nothing_of_the_size()
    {
        var size = FaultSize.Unknown(Factor);
        Narrowed(size, new AtSizes(10, 12, 9), 1, 230).ShouldBe(size);
        Narrowed(size, AtSizes.Same(230), 5, 231).ShouldBe(size);
        size.NarrowedBy(_ => new Prediction(PredictionKind.Stray, 60), 50).ShouldBe(size);
    }
}
