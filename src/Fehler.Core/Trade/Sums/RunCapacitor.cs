using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Capacitance by what it draws: C = I / (2 π f U).</summary>
[Sum("run-capacitor", "Motor", "Run capacitor by its current", Source = "Definition of reactance")]
public sealed record RunCapacitor : Sum
{
    [Option("Measured", "Current through it", Unit = "A", Maximum = 100)]
    public double Amps { get; init; } = 4.5;

    [Option("Measured", "Volts across it", Unit = "V", Maximum = 1000)]
    public double Volts { get; init; } = 230;

    [Option("Supply", "Frequency", Unit = "Hz", Minimum = 16, Maximum = 400)]
    public double Hertz { get; init; } = 50;

    [Option("Plate", "What it is marked with; 0: not known", Unit = "µF", Maximum = 2000)]
    public double MarkedMicrofarads { get; init; }

    /// <summary>Run capacitors are made to ±5 to 10 %; below this one has lost its film (common practice).</summary>
    private const double Tolerance = 0.1;

    public override SumResult Work()
    {
        Positive(("Current", Amps), ("Volts", Volts), ("Frequency", Hertz));
        var farads = Amps / (2 * Math.PI * Hertz * Volts) * 1e6;
        return Result(
            [Line("Capacitance", $"{N(Amps)} A / (2π · {N(Hertz)} Hz · {N(Volts)} V)", farads, "µF")],
            MarkedMicrofarads <= 0 ? ""
                : Math.Abs(farads / MarkedMicrofarads - 1) <= Tolerance ? "Within ten percent of what it is marked with."
                : "Further than ten percent from what it is marked with: change it.",
            "Measure the volts across the capacitor itself: they are not those of the line. It stays charged; discharge it before it is touched."
        );
    }
}
