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

    [Fact]
    public void Four_equal_units_are_two_bits_and_halving_them_is_worth_one()
    {
        var grouping = new OutcomeGrouping([0.25, 0.25, 0.25, 0.25], ["A", "B", "C", "D"]);
        grouping.Entropy.ShouldBe(2, 1e-9);
        grouping.Gain(Column(Full, Full, Nothing, Nothing), 0).ShouldBe(1 * Right, 1e-9);
        grouping.Gain(Column(Full, Nothing, Nothing, Nothing), 0).ShouldBe((2 - 0.75 * Math.Log2(3)) * Right, 1e-9);
    }

    [Fact]
    public void What_all_foretell_alike_is_worth_nothing()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"]);
        grouping.Gain(Column(Full, Full), 0).ShouldBe(0);
        grouping.Gain(Column(Open, Open), 0).ShouldBe(0);
    }

    [Fact]
    public void Two_faults_of_one_unit_need_not_be_told_apart()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "A"]);
        grouping.Entropy.ShouldBe(0, 1e-9);
        grouping.Gain(Column(Full, Nothing), 0).ShouldBe(0, 1e-9);
    }

    [Fact]
    public void OL_is_an_answer_of_its_own_and_a_stray_point_may_read_like_zero()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"]);
        grouping.Gain(Column(Open, Nothing), 0).ShouldBe(Right, 1e-9);
        grouping.Gain(Column(Stray, Nothing), 0).ShouldBe(0);
        grouping.Gain(Column(Stray, Full), 0).ShouldBe(Right, 1e-9);
    }

    [Fact]
    public void Values_within_each_others_tolerance_are_one_answer()
    {
        var grouping = new OutcomeGrouping([0.5, 0.5], ["A", "B"]);
        grouping.Gain(Column(Full, new Prediction(PredictionKind.Value, 238, 12)), 0).ShouldBe(0);
        grouping.Groups(Column(Full, new Prediction(PredictionKind.Value, 120, 6)), 0).Count.ShouldBe(2);
    }

    [Fact]
    public void Groups_and_worth_agree_for_random_predictions()
    {
        var random = new Random(5);
        for (var round = 0; round < 200; round++)
        {
            var count = random.Next(2, 30);
            var weights = Enumerable.Range(0, count).Select(_ => random.NextDouble()).ToArray();
            var sum = weights.Sum();
            weights = [.. weights.Select(w => w / sum)];
            ImmutableArray<string> units = [.. Enumerable.Range(0, count).Select(_ => $"U{random.Next(6)}")];
            var table = Column([
                .. Enumerable
                    .Range(0, count)
                    .Select(_ =>
                        random.Next(5) switch
                        {
                            0 => Open,
                            1 => Stray,
                            _ => new Prediction(PredictionKind.Value, random.Next(400), 1 + random.Next(20)),
                        }
                    ),
            ]);
            var grouping = new OutcomeGrouping(weights, units);
            var groups = grouping.Groups(table, 0);
            groups.SelectMany(g => g).Order().ShouldBe(Enumerable.Range(0, count));
            var left = groups.Sum(g => Left(g, weights, units));
            grouping.Gain(table, 0).ShouldBe(groups.Count == 1 ? 0 : Right * (grouping.Entropy - left), 1e-9);
        }
    }

    private static double Left(List<int> group, double[] weights, ImmutableArray<string> units)
    {
        var total = group.Sum(h => weights[h]);
        return -group.GroupBy(h => units[h]).Select(g => g.Sum(h => weights[h])).Sum(p => p * Math.Log2(p / total));
    }

    private static Prediction[][] Column(params Prediction[] predictions) => [.. predictions.Select(p => new[] { p })];
}
