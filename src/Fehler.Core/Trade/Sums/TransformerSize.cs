using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>What a control transformer has to give: all that can be held in at once and the largest that pulls in meanwhile.</summary>
[Sum(
    "transformer-size",
    "Control",
    "Size of a control transformer",
    Source = "Sealed burdens and the largest pull-in added up: common practice"
)]
public sealed record TransformerSize : Sum
{
    [Option("Held in", "Coils that can be in at once", Maximum = 100)]
    public int Coils { get; init; } = 2;

    [Option("Held in", "Sealed, each", Unit = "VA", Maximum = 1000)]
    public double SealedVa { get; init; } = 8;

    [Option("Held in", "Lamps", Maximum = 200)]
    public int Lamps { get; init; } = 4;

    [Option("Held in", "Each lamp", Unit = "W", Maximum = 100)]
    public double LampWatts { get; init; } = 1.5;

    [Option("Pulls in", "Largest pull-in", Unit = "VA", Maximum = 5000)]
    public double PullInVa { get; init; } = 70;

    private static readonly double[] Sizes =
    [
        25,
        40,
        63,
        75,
        100,
        150,
        160,
        200,
        250,
        300,
        400,
        500,
        630,
        750,
        1000,
        1500,
        1600,
        2000,
        2500,
    ];

    public override SumResult Work()
    {
        Expect(Coils >= 0 && Lamps >= 0, "Count coils and lamps from 0 on.");
        var burden = Coils * SealedVa + Lamps * LampWatts + PullInVa;
        Positive(("What it feeds", burden));
        var size = Sizes.FirstOrDefault(s => s >= burden);
        return Result(
            [Line("Has to give", $"{Coils} · {N(SealedVa)} VA + {Lamps} · {N(LampWatts)} W + {N(PullInVa)} VA", burden, "VA")],
            size > 0 ? $"The next usual size is {N(size)} VA." : "More than one usual control transformer gives.",
            "Its volts have to hold while the largest pulls in: at the pull-in's power factor, by the maker's table."
        );
    }
}
