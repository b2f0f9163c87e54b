using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>How many cores stations with Start and Stop need: three from each to the next, or four home from each and three from the last.</summary>
[Sum("station-cores", "Control", "Cores to the stations", Source = "Stops in series, Starts in parallel: common practice")]
public sealed record StationCores : Sum
{
    [Option("Stations", "Stations with Start and Stop", Minimum = 1, Maximum = 30)]
    public int Stations { get; init; } = 9;

    public override SumResult Work()
    {
        Expect(Stations is > 0 and <= 30, "Count 1 to 30 stations.");
        var home = 4 * Stations - 1;
        return Result(
            [
                Line("From each to the next", "3 in every cable", 3, "cores"),
                Line("Each home to the panel, in all", $"4 · {Stations} − 1", home, "cores"),
            ],
            "From one to the next needs fewer cores; home to the panel a fault is found without leaving it."
        );
    }
}
