using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Three readings of a winding held against each other: wound alike they read alike.</summary>
[Sum(
    "winding-ohms",
    "Motor",
    "Windings against each other",
    Source = "Star 2R, delta 2R/3: network of three alike; spread of some percent: common practice"
)]
public sealed record WindingOhms : Sum
{
    [Option("Measured", "U to V", Unit = "Ω", Maximum = 100000)]
    public double First { get; init; } = 5.6;

    [Option("Measured", "V to W", Unit = "Ω", Maximum = 100000)]
    public double Second { get; init; } = 5.6;

    [Option("Measured", "W to U", Unit = "Ω", Maximum = 100000)]
    public double Third { get; init; } = 5.6;

    [Option("Motor", "Connected in delta")]
    public bool IsDelta { get; init; }

    /// <summary>Above this the windings are not alike (common practice); below what leads and digits of a usual meter do.</summary>
    private const double MostSpread = 10;

    public override SumResult Work()
    {
        double[] read = [First, Second, Third];
        Expect(
            read.All(r => double.IsFinite(r) && r >= 0) && read.Max() > 0,
            "Three readings in ohm are needed; a winding that reads OL is open and needs no sum."
        );
        var mean = read.Average();
        var spread = 100 * (read.Max() - read.Min()) / mean;
        var one = IsDelta ? 1.5 * mean : mean / 2;
        return Result(
            [
                Line("Spread", $"({N(read.Max())} Ω − {N(read.Min())} Ω) / {N(mean)} Ω", spread, "%"),
                Line("One winding", IsDelta ? $"3/2 · {N(mean)} Ω" : $"{N(mean)} Ω / 2", one, "Ω"),
            ],
            spread > MostSpread
                ? "Not alike: turns are shorted in the winding that the low readings share, or a joint is bad where the high ones "
                    + "meet. Measure again at the motor's terminals with the leads zeroed."
                : "Alike: nothing that this measurement shows. Turns shorted to each other need a winding tester to be excluded."
        );
    }
}
