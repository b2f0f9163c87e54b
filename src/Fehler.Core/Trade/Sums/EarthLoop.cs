using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>The instantaneous range of a miniature breaker, times its rated current.</summary>
public enum BreakerCurve
{
    [Word("B: at once at 5 times")]
    B,

    [Word("C: at once at 10 times")]
    C,

    [Word("D: at once at 20 times")]
    D,
}

/// <summary>Ohms of a protective conductor, and whether a fault to earth opens the breaker at once: Ik = U₀ / Zs.</summary>
[Sum(
    "earth-loop",
    "Supply",
    "Protective conductor and earth loop",
    Source = "IEC 60364-4-41 and IEC 60898-1 (5, 10, 20 times), from memory; copper at 20 °C by IEC 60228, from memory"
)]
public sealed record EarthLoop : Sum
{
    [Option("Conductor", "Length", Unit = "m", Maximum = 5000)]
    public double Metres { get; init; } = 25;

    [Option("Conductor", "Section", Unit = "mm²", Minimum = 0.5, Maximum = 400)]
    public double SquareMillimetres { get; init; } = 2.5;

    [Option("Loop", "Loop impedance; 0: not known", Unit = "Ω", Maximum = 1000)]
    public double LoopOhms { get; init; } = 0.8;

    [Option("Loop", "Volts to earth", Unit = "V", Maximum = 1000)]
    public double VoltsToEarth { get; init; } = 230;

    [Option("Breaker", "Rated current", Unit = "A", Maximum = 125)]
    public double BreakerAmps { get; init; } = 16;

    [Option("Breaker", "Curve")]
    public BreakerCurve Curve { get; init; } = BreakerCurve.C;

    public override SumResult Work()
    {
        Positive(("Section", SquareMillimetres));
        var conductor = Line(
            "Protective conductor",
            $"{N(Conductor.OhmsPerKilometre(SquareMillimetres))} Ω/km · {N(Metres)} m / 1000",
            Conductor.OhmsPerKilometre(SquareMillimetres) * Metres / 1000,
            "Ω"
        );
        if (LoopOhms <= 0)
        {
            return Result([conductor]);
        }

        Positive(("Volts to earth", VoltsToEarth), ("Rated current", BreakerAmps));
        var times = Curve switch
        {
            BreakerCurve.B => 5,
            BreakerCurve.C => 10,
            _ => 20,
        };
        var (fault, needed) = (VoltsToEarth / LoopOhms, times * BreakerAmps);
        return Result(
            [
                conductor,
                Line("Fault current", $"{N(VoltsToEarth)} V / {N(LoopOhms)} Ω", fault, "A"),
                Line("Needed to open at once", $"{times} · {N(BreakerAmps)} A", needed, "A"),
            ],
            fault >= needed
                ? $"Enough for {Curve}{N(BreakerAmps)}."
                : $"Not enough for {Curve}{N(BreakerAmps)}: it opens late or not at all. A thicker conductor, another curve or a "
                    + $"residual-current device, by local rules.",
            "Conductors are warm at a fault: rules ask for a reserve of some 20 %."
        );
    }
}
