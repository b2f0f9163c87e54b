using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Between which volts a monitoring relay holds.</summary>
[Sum("monitor", "Supply", "Window of a monitoring relay", Source = "Set point and percent as on the dial: common practice")]
public sealed record MonitorThresholds : Sum
{
    [Option("Dial", "Set point", Unit = "V", Maximum = 1000)]
    public double Volts { get; init; } = 235;

    [Option("Dial", "Down to, below it", Unit = "%", Maximum = 50)]
    public double Below { get; init; } = 16;

    [Option("Dial", "Up to, above it", Unit = "%", Maximum = 50)]
    public double Above { get; init; } = 16;

    public override SumResult Work()
    {
        Positive(("Set point", Volts));
        return Result(
            [
                Line("Drops out below", $"{N(Volts)} V · (1 − {N(Below)} %)", Volts * (1 - Below / 100), "V"),
                Line("Drops out above", $"{N(Volts)} V · (1 + {N(Above)} %)", Volts * (1 + Above / 100), "V"),
            ],
            "Set to the volts that are there it tells of change; set to the plate it tells what the motor may stand. Both have their reason."
        );
    }
}
