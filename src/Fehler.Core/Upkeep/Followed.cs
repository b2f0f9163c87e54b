namespace Fehler.Core.Upkeep;

/// <summary>What is followed over the years on a circuit.</summary>
public enum Followed
{
    /// <summary>Resistance of a coil, ohm.</summary>
    CoilOhms,

    /// <summary>Resistance between two leads of a motor or heater, ohm.</summary>
    WindingOhms,

    /// <summary>Insulation of a winding to earth, brought to 40 °C, ohm.</summary>
    Insulation,

    /// <summary>Current of one line while it runs, A.</summary>
    RunningAmps,

    /// <summary>Current of one line at the start, A.</summary>
    StartingAmps,

    /// <summary>How unlike the three line currents are, as a share.</summary>
    AmpsUnbalance,

    /// <summary>Volts between two lines, V.</summary>
    LineVolts,

    /// <summary>How unlike the three line voltages are, as a share.</summary>
    VoltsUnbalance,

    /// <summary>How long the overload took to trip, over what its class gives at that current.</summary>
    TripTime,

    /// <summary>Hours run, by the counter.</summary>
    Hours,

    /// <summary>Starts, by the counter.</summary>
    Starts,
}

/// <summary>What kinds of followed values have in common.</summary>
public static class FollowedWords
{
    /// <summary>What it is called.</summary>
    public static string Name(this Followed what) =>
        what switch
        {
            Followed.CoilOhms => "Coil",
            Followed.WindingOhms => "Winding",
            Followed.Insulation => "Insulation at 40 °C",
            Followed.RunningAmps => "Running current",
            Followed.StartingAmps => "Starting current",
            Followed.AmpsUnbalance => "Unbalance of the currents",
            Followed.LineVolts => "Supply",
            Followed.VoltsUnbalance => "Unbalance of the supply",
            Followed.TripTime => "Trip time over its class",
            Followed.Hours => "Hours run",
            _ => "Starts",
        };

    /// <summary>Its unit as it is written; empty for a count and a ratio.</summary>
    public static string Unit(this Followed what) =>
        what switch
        {
            Followed.CoilOhms or Followed.WindingOhms => "Ω",
            Followed.Insulation => "MΩ",
            Followed.RunningAmps or Followed.StartingAmps => "A",
            Followed.LineVolts => "V",
            Followed.AmpsUnbalance or Followed.VoltsUnbalance => "%",
            Followed.TripTime => "×",
            Followed.Hours => "h",
            _ => "",
        };

    /// <summary>What a value is multiplied by to stand in <see cref="Unit"/>.</summary>
    public static double Scale(this Followed what) =>
        what switch
        {
            Followed.Insulation => 1e-6,
            Followed.AmpsUnbalance or Followed.VoltsUnbalance => 100,
            _ => 1,
        };

    /// <summary>It changes by factors, not by steps: insulation halves and halves again.</summary>
    public static bool ChangesByFactors(this Followed what) => what == Followed.Insulation;

    /// <summary>It can only grow.</summary>
    public static bool IsCounter(this Followed what) => what is Followed.Hours or Followed.Starts;
}

/// <summary>Which values belong together over the years.</summary>
/// <param name="What">What is followed.</param>
/// <param name="Device">The device that it is about.</param>
/// <param name="Points">Where on it: "A1-A2", "U1-PE", "1"; empty for the whole device.</param>
/// <param name="State">In which state, as it was seen: "M1 runs reversed", "by itself"; empty where there is but one.</param>
public sealed record SeriesKey(Followed What, string Device, string Points = "", string State = "");

/// <summary>One value of a series.</summary>
/// <param name="Key">Which series.</param>
/// <param name="At">When it was measured.</param>
/// <param name="Value">In the unit of <see cref="Followed"/>.</param>
public sealed record SeriesValue(SeriesKey Key, DateTimeOffset At, double Value);
