using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Insulation brought to 40 °C, where limits are stated: it halves for every 10 K.</summary>
[Sum("insulation", "Motor", "Insulation at 40 °C", Source = "IEEE 43, from memory: halves for 10 K; 5 MΩ for machines below 1 kV")]
public sealed record InsulationAtForty : Sum
{
    [Option("Measured", "After one minute", Unit = "MΩ", Maximum = 1000000)]
    public double Megohms { get; init; } = 20;

    [Option("Measured", "Winding at", Unit = "°C", Minimum = -40, Maximum = 200)]
    public double Celsius { get; init; } = 20;

    [Option("Measured", "After ten minutes; 0: not measured", Unit = "MΩ", Maximum = 1000000)]
    public double TenMinutes { get; init; }

    /// <summary>Least for low-voltage machines, and the least index, which says nothing once there are gigohms (IEEE 43, from memory).</summary>
    public const double Least = 5;

    private const double LeastIndex = 2,
        IndexIsIdleAbove = 5000;

    public override SumResult Work()
    {
        Positive(("Insulation", Megohms));
        var forty = AtForty(Megohms, Celsius);
        var line = Line("At 40 °C", $"{N(Megohms)} MΩ · 0.5^((40 − {N(Celsius)}) / 10)", forty, "MΩ");
        var says =
            forty < Least
                ? $"Below {N(Least)} MΩ: clean and dry it, do not start it."
                : $"Above the {N(Least)} MΩ that low-voltage machines need.";
        if (TenMinutes <= 0)
        {
            return Result([line], says) with { Plot = Plot(forty) };
        }

        var index = TenMinutes / Megohms;
        return Result(
            [line, Line("Polarisation index", $"{N(TenMinutes)} MΩ / {N(Megohms)} MΩ", index)],
            says,
            forty > IndexIsIdleAbove ? "Above 5 GΩ the index says nothing."
                : index < LeastIndex ? "Index below 2: damp or dirty."
                : "Index 2 or more: dry and clean."
        ) with
        {
            Plot = Plot(forty),
        };
    }

    /// <summary>A winding's insulation at 40 °C from what it measured at another temperature, both in the same unit.</summary>
    public static double AtForty(double measured, double celsius) => measured * Math.Pow(0.5, (40 - celsius) / 10);

    /// <summary>What this winding and the least good one would measure, cold to warm.</summary>
    private SumPlot Plot(double forty)
    {
        SumCurve Curve(string name, double atForty) =>
            new(name, [.. Enumerable.Range(0, 21).Select(i => 4.0 * i).Select(t => new SumPoint(t, atForty / AtForty(1, t)))]);
        return new SumPlot("winding at °C", "MΩ", false, [Curve("this one", forty), Curve("least", Least)], new SumPoint(Celsius, Megohms));
    }
}
