using System.Collections.Immutable;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Worth of a test in bits, against hand arithmetic (Shannon's entropy).</summary>
public class OutcomeGroupingTests
{
    private static readonly Prediction Full = new(PredictionKind.Value, 230, 11.5),
        Nothing = new(PredictionKind.Value, 0, 1.2),
        Open = new(PredictionKind.OverLimit),
        Stray = new(PredictionKind.Stray, 40);

    private const double Right = 1 - Likelihood.OutlierShare;

    /// <summary>Greatest stray voltage, V.</summary>
    private const double Span = 300;

    [Fact]
    public void Four_equal_units_are_two_bits_and_halving_them_is_worth_one()
    {
        var grouping = new OutcomeGrouping([0.25, 0.25, 0.25, 0.25], ["A", "B", "C", "D"], Span);
        grouping.Entropy.ShouldBe(2, 1e-9);
        grouping.Gain(Column(Full, Full, Nothing, Nothing), 0).ShouldBe(1 * Right, 1e-9);
        grouping.Gain(Column(Full, Nothing, Nothing, Nothing), 0).ShouldBe((2 - 0.75 * Math.Log2(3)) * Right, 1e-9);
    }

    [Fact]
    public void What_all_foretell_alike_is_worth_nothing()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"], Span);
        grouping.Gain(Column(Full, Full), 0).ShouldBe(0);
        grouping.Gain(Column(Open, Open), 0).ShouldBe(0);
    }

    [Fact]
    public void Two_faults_of_one_unit_need_not_be_told_apart()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "A"], Span);
        grouping.Entropy.ShouldBe(0, 1e-9);
        grouping.Gain(Column(Full, Nothing), 0).ShouldBe(0, 1e-9);
    }

    [Fact]
    public void OL_is_an_answer_of_its_own_and_a_stray_point_may_read_like_zero()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"], Span);
        grouping.Gain(Column(Open, Nothing), 0).ShouldBe(Right, 1e-9);
        // Five times in eight a stray point counts as next to nothing, half of it as settled: by hand (a Z channel) 0.2 bit between it and zero;
        // most of the way from the full voltage.
        grouping.Gain(Column(Stray, Nothing), 0).ShouldBeInRange(0.15, 0.35);
        grouping.Gain(Column(Stray, Full), 0).ShouldBeInRange(0.9 * Right, Right);
    }

    [Fact]
    public void Values_within_each_others_tolerance_are_one_answer()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"], Span);
        // Two thirds of a standard deviation apart: by numerical integration 0.08 bit, the least that is worth a proposal being 0.02.
        grouping.Gain(Column(Full, new Prediction(PredictionKind.Value, 238, 12)), 0).ShouldBeInRange(0.03, 0.12);
        grouping.Groups(Column(Full, new Prediction(PredictionKind.Value, 120, 6)), 0).Count.ShouldBe(2);
    }

    [Fact]
    public void An_unlikely_size_in_between_does_not_make_two_answers_one()
    {
        // A coil that reads OL when it is open and 400 ohm when sound; a joint of thousands of ohm may be anything in between.
        Prediction[][] table = Column(
            new Prediction(PredictionKind.Value, 5, 0.3),
            new Prediction(PredictionKind.Value, 60, 5, 60),
            new Prediction(PredictionKind.Value, 400, 30)
        );
        var grouping = new OutcomeGrouping([0.495, 0.01, 0.495], ["A", "B", "C"], Span);
        grouping.Gain(table, 0).ShouldBeGreaterThan(0.9);
        new OutcomeGrouping([0.4975, 0.005, 0.4975], ["A", "B", "C"], Span).Groups(table, 0).Count.ShouldBe(2);
    }

    [Fact]
    public void Worth_is_the_mutual_information_of_unit_and_reading()
    {
        // Against the densities integrated in steps of a twentieth of a volt.
        var random = new Random(5);
        for (var round = 0; round < 40; round++)
        {
            var count = random.Next(2, 12);
            var weights = Enumerable.Range(0, count).Select(_ => random.NextDouble()).ToArray();
            var sum = weights.Sum();
            weights = [.. weights.Select(w => w / sum)];
            ImmutableArray<string> units = [.. Enumerable.Range(0, count).Select(_ => $"U{random.Next(4)}")];
            Prediction[] predictions =
            [
                .. Enumerable
                    .Range(0, count)
                    .Select(_ =>
                        random.Next(5) == 0 ? Open
                        : random.Next(20, 400) is var volts ? new Prediction(PredictionKind.Value, volts, 0.05 * volts + 2)
                        : default
                    ),
            ];
            var grouping = new OutcomeGrouping(weights, units, Span);
            grouping.Groups(Column(predictions), 0).SelectMany(g => g).Order().ShouldBe(Enumerable.Range(0, count));
            grouping.Gain(Column(predictions), 0).ShouldBe(Right * Information(weights, units, predictions), 0.03);
        }
    }

    private static double Information(double[] weights, ImmutableArray<string> units, Prediction[] predictions)
    {
        const double step = 0.05;
        var names = units.Distinct().ToList();
        double Uncertainty(double[] masses) =>
            masses.Sum() is var all && all > 0 ? -masses.Where(m => m > 0).Sum(m => m * Math.Log2(m / all)) : 0;
        double[] Of(Func<int, double> mass) =>
            [.. names.Select(u => Enumerable.Range(0, units.Length).Where(h => units[h] == u).Sum(h => weights[h] * mass(h)))];
        var left = Uncertainty(Of(h => predictions[h].Kind == PredictionKind.OverLimit ? 1 : 0));
        for (var volts = step / 2; volts < 500; volts += step)
        {
            left += Uncertainty(
                Of(h =>
                    predictions[h].Kind == PredictionKind.OverLimit
                        ? 0
                        : step
                            * Math.Exp(-Math.Pow((volts - predictions[h].Value) / predictions[h].Sigma, 2) / 2)
                            / (predictions[h].Sigma * Math.Sqrt(2 * Math.PI))
                )
            );
        }

        return Uncertainty(Of(_ => 1)) - left;
    }

    private static Prediction[][] Column(params Prediction[] predictions) => [.. predictions.Select(p => new[] { p })];
}
