using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>What a coil may read: on direct current volts by amps, on alternating current far below U² / VA, which is mostly reactance.</summary>
[Sum(
    "coil-ohms",
    "Control",
    "Are a coil's ohms plausible",
    Source = "Ohm's law; an alternating-current coil is mostly reactance: common practice"
)]
public sealed record CoilOhms : Sum
{
    [Option("Coil", "Rated volts", Unit = "V", Minimum = 6, Maximum = 690)]
    public double Volts { get; init; } = 208;

    [Option("Coil", "Pull-in VA; on direct current its watts", Unit = "VA", Maximum = 5000)]
    public double Burden { get; init; } = 70;

    [Option("Coil", "Direct current")]
    public bool IsDirect { get; init; }

    [Option("Measured", "Read; 0: not measured", Unit = "Ω", Maximum = 1000000)]
    public double Read { get; init; }

    /// <summary>A coil on direct current is made to some ten percent, and warm reads up to a third more.</summary>
    private const double LeastShare = 0.85,
        MostShare = 1.4;

    public override SumResult Work()
    {
        Positive(("Rated volts", Volts), ("Burden", Burden));
        var ohms = Volts * Volts / Burden;
        var line = Line(
            IsDirect ? "It reads about" : "It reads less than",
            $"({N(Volts)} V)² / {N(Burden)} {(IsDirect ? "W" : "VA")}",
            ohms,
            "Ω"
        );
        return Result(
            [line],
            Read <= 0 ? ""
                : IsDirect
                    ? Read < LeastShare * ohms ? "Less than that: turns are shorted, or another coil is in it."
                        : Read > MostShare * ohms ? "More than that: a bad joint, or another coil is in it."
                        : "Plausible."
                : Read >= ohms ? "As much or more than its impedance: another coil, or a bad joint."
                : "Plausible by this bound. Turns shorted show against a twin, not against this.",
            IsDirect ? "" : "Of two coils of one make that read unlike the lower one is suspect."
        );
    }
}
