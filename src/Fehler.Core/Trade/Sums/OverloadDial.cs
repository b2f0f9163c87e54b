using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Where an overload relay stands.</summary>
public enum OverloadPlace
{
    [Word("in the line to the motor")]
    Line,

    [Word("in the phase leads of a delta (star-delta starter)")]
    DeltaPhase,
}

/// <summary>What an overload relay is set to: plate current by the factor of its place, never above it.</summary>
[Sum(
    "overload-dial",
    "Motor",
    "Setting of the overload",
    Source = "1/√3 inside a delta: common practice; 125 % and 115 %: NEC 430.32, from memory"
)]
public sealed record OverloadDial : Sum
{
    [Option("Plate", "Rated current", Unit = "A", Maximum = 5000)]
    public double Amps { get; init; } = 8.1;

    [Option("Relay", "It stands")]
    public OverloadPlace Place { get; init; }

    [Option("Plate", "Service factor 1.15 or more, or rise of 40 K or less")]
    public bool HasReserve { get; init; }

    public override SumResult Work()
    {
        Positive(("Rated current", Amps));
        var factor = Place == OverloadPlace.DeltaPhase ? 1 / Root3 : 1;
        var ceiling = HasReserve ? 1.25 : 1.15;
        var dial = Amps * factor;
        return Result(
            [
                Line("Dial", Place == OverloadPlace.DeltaPhase ? $"{N(Amps)} A / √3" : "plate current", dial, "A"),
                Line("Highest trip rating where North American rules hold", $"{N(ceiling)} · {N(dial)} A", ceiling * dial, "A"),
            ],
            "Never above the plate: a relay that trips at its right setting tells of the motor, its load or its supply."
        );
    }
}
