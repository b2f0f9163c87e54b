using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Whether the capacitance of a long control cable holds a coil in: Cmax = 500 · sealed VA / U² in µF at 50 Hz.</summary>
[Sum(
    "cable-holds-coil",
    "Control",
    "Does the cable hold the coil in",
    Source = "Handbook rule, 500 at 50 Hz, 417 at 60 Hz, 0.3 µF/km: from memory"
)]
public sealed record CableHoldsCoil : Sum
{
    [Option("Coil", "Rated volts", Unit = "V", Minimum = 6, Maximum = 690)]
    public double Volts { get; init; } = 230;

    [Option("Coil", "Sealed", Unit = "VA", Maximum = 1000)]
    public double SealedVa { get; init; } = 8;

    [Option("Supply", "Frequency", Unit = "Hz", Minimum = 16, Maximum = 400)]
    public double Hertz { get; init; } = 50;

    [Option("Cable", "Capacitance", Unit = "µF/km", Maximum = 2)]
    public double MicrofaradsPerKilometre { get; init; } = 0.3;

    [Option("Cable", "Length of the Stop's cable; 0: not known", Unit = "m", Maximum = 20000)]
    public double Metres { get; init; }

    /// <summary>At 50 Hz; it goes with the inverse of the frequency.</summary>
    private const double AtFifty = 500;

    public override SumResult Work()
    {
        Positive(("Rated volts", Volts), ("Sealed burden", SealedVa), ("Frequency", Hertz), ("Capacitance", MicrofaradsPerKilometre));
        var factor = AtFifty * 50 / Hertz;
        var most = factor * SealedVa / (Volts * Volts);
        var metres = most / MicrofaradsPerKilometre * 1000;
        return Result(
            [
                Line("Longest cable", $"{N(most)} µF / {N(MicrofaradsPerKilometre)} µF/km", metres, "m"),
                Line("Largest capacitance", $"{N(factor)} · {N(SealedVa)} VA / ({N(Volts)} V)²", most, "µF"),
            ],
            Metres <= 0 ? ""
                : Metres > metres
                    ? $"{N(Metres)} m is longer: pressing Stop may not let it out. A load across the coil, direct current, or a "
                        + $"lower control voltage."
                : $"{N(Metres)} m is shorter: Stop lets it out."
        );
    }
}
