using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>
/// Whether unlike currents come from the supply or from the motor: all three leads are moved on by one line, which keeps the direction.
/// What stays with the line is the supply's; what moves with the lead is the motor's.
/// </summary>
[Sum("whose-unbalance", "Motor", "Whose unbalance is it", Source = "All three leads rolled by one place: common practice")]
public sealed record WhoseUnbalance : Sum
{
    [Option("As it is", "Line 1", Unit = "A", Maximum = 5000)]
    public double First { get; init; } = 10;

    [Option("As it is", "Line 2", Unit = "A", Maximum = 5000)]
    public double Second { get; init; } = 11.5;

    [Option("As it is", "Line 3", Unit = "A", Maximum = 5000)]
    public double Third { get; init; } = 10;

    [Option("Leads rolled: that of line 1 on 2, of 2 on 3, of 3 on 1", "Line 1", Unit = "A", Maximum = 5000)]
    public double RolledFirst { get; init; } = 10;

    [Option("Leads rolled: that of line 1 on 2, of 2 on 3, of 3 on 1", "Line 2", Unit = "A", Maximum = 5000)]
    public double RolledSecond { get; init; } = 10;

    [Option("Leads rolled: that of line 1 on 2, of 2 on 3, of 3 on 1", "Line 3", Unit = "A", Maximum = 5000)]
    public double RolledThird { get; init; } = 11.5;

    /// <summary>Less unlike than this nobody can tell from a clamp's own error.</summary>
    private const double TooLittle = 0.03;

    public override SumResult Work()
    {
        double[] before = [First, Second, Third],
            after = [RolledFirst, RolledSecond, RolledThird];
        Positive(("The current of each line", before.Concat(after).Min()));
        var (was, now) = (Unbalance.Of(First, Second, Third), Unbalance.Of(RolledFirst, RolledSecond, RolledThird));

        // Two patterns add up to each set: one that stays with the lines, one that has moved on by a line with the leads. Each adds up to
        // nothing over the three lines, so that the difference of both sets gives the one that moves, and what is left stays.
        var (a, b) = (Deviations(before, was.Mean), Deviations(after, now.Mean));
        var difference = Enumerable.Range(0, 3).Select(i => b[i] - a[i]).ToArray();

        // d[i] = moves[i - 1] - moves[i], with moves adding up to nothing: solved for each line.
        var moves = Enumerable.Range(0, 3).Select(i => (difference[(i + 1) % 3] - difference[i]) / 3).ToArray();
        var stays = Enumerable.Range(0, 3).Select(i => a[i] - moves[i]).ToArray();
        var (motor, supply) = (moves.Max(Math.Abs), stays.Max(Math.Abs));
        return Result(
            [
                Line("Of it the supply's", "what stays with the line, over the mean", 100 * supply, "%"),
                Line("Of it the motor's", "what moves with the lead, over the mean", 100 * motor, "%"),
                Line("Unlike as it is", $"farthest from {N(was.Mean)} A / {N(was.Mean)} A", 100 * was.Share, "%"),
                Line("Unlike with the leads rolled", $"farthest from {N(now.Mean)} A / {N(now.Mean)} A", 100 * now.Share, "%"),
            ],
            Math.Max(was.Share, now.Share) < TooLittle ? "They are alike: nothing to tell apart."
                : motor > 2 * supply
                    ? "It moves with the leads: the motor or its cable. Winding ohms, insulation, joints in the terminal box."
                : supply > 2 * motor ? "It stays with the lines: the supply. Volts between lines, fuses, joints and contacts up to here."
                : "Both have a share in it: measure the volts between the lines first."
        );
    }

    private static double[] Deviations(double[] values, double mean) => [.. values.Select(v => (v - mean) / mean)];
}
