using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>How unlike three volts or three amps are, and what that leaves of a motor.</summary>
[Sum(
    "unbalance",
    "Supply",
    "Three lines against each other",
    Source = "NEMA MG 1 part 12.45 and figure 14-1; V2/V1 as in IEC 60034-26; from memory"
)]
public sealed record LinesAlike : Sum
{
    [Option("Measured", "First", Maximum = 20000)]
    public double First { get; init; } = 460;

    [Option("Measured", "Second", Maximum = 20000)]
    public double Second { get; init; } = 467;

    [Option("Measured", "Third", Maximum = 20000)]
    public double Third { get; init; } = 450;

    [Option("Measured", "They are currents")]
    public bool AreAmps { get; init; }

    public override SumResult Work()
    {
        var unbalance = Unbalance.Of(First, Second, Third);
        var furthest = new[] { First, Second, Third }.MaxBy(v => Math.Abs(v - unbalance.Mean));
        var lines = new List<SumLine>
        {
            Line("Unbalance", $"|{N(furthest)} − {N(unbalance.Mean)}| / {N(unbalance.Mean)}", 100 * unbalance.Share, "%"),
            Line("Mean", $"({N(First)} + {N(Second)} + {N(Third)}) / 3", unbalance.Mean, AreAmps ? "A" : "V"),
        };
        if (unbalance.SequenceShare is { } sequence)
        {
            lines.Add(
                Line("Negative over positive sequence", "√((1 − √(3 − 6β)) / (1 + √(3 − 6β))), β = ΣV⁴ / (ΣV²)²", 100 * sequence, "%")
            );
        }

        if (!AreAmps && unbalance.Derating is { } derating)
        {
            lines.Add(Line("Power that a motor may still give", "by the curve of NEMA MG 1", 100 * derating, "%"));
        }

        return Result(
            [.. lines],
            AreAmps ? "Roll all three leads one place, rotation kept, and work out “Whose unbalance is it”."
                : unbalance.Derating is null ? "Above 5 %: do not run a motor on it."
                : "",
            AreAmps ? "" : "Amps of a motor are six to ten times as unlike as its volts."
        );
    }
}
