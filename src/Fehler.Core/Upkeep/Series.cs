using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Trade;

namespace Fehler.Core.Upkeep;

/// <summary>A followed value of a circuit over the years, since its device was last replaced.</summary>
/// <param name="Key">What is followed, where, in which state.</param>
/// <param name="Values">In the order of time; those from before the last replacement too.</param>
/// <param name="Replaced">When the device was replaced last; null when it never was.</param>
/// <param name="Limit">Between what it is to stay; null where nobody can say.</param>
/// <param name="Trend">The line through the values since; null where they carry none.</param>
/// <param name="Reaches">When it reaches the limit if it goes on so; null where it does not.</param>
public sealed record Series(
    SeriesKey Key,
    ImmutableArray<SeriesValue> Values,
    DateTimeOffset? Replaced,
    SeriesLimit? Limit,
    Trend? Trend,
    LimitReached? Reaches
)
{
    /// <summary>A cabinet's warmth makes this much of a coil's or a winding's ohms: 40 K of copper.</summary>
    private const double CopperShare = 0.15;

    /// <summary>From here on unlike currents are looked into, and unlike volts stop a motor (NEMA MG 1, from memory).</summary>
    private const double MostAmpsUnbalance = 0.10,
        MostVoltsUnbalance = 0.05;

    /// <summary>Starts that a contactor's main contacts bear at AC-3 (common practice: one to two million; the maker's figure comes first).</summary>
    private const double ContactLife = 1e6;

    /// <summary>How far the supply may be from what it is rated (IEC 60038, from memory).</summary>
    private const double SupplyBand = 0.1;

    /// <summary>The first value since the device was replaced.</summary>
    public SeriesValue First => Current[0];

    /// <summary>The last value.</summary>
    public SeriesValue Last => Values[^1];

    /// <summary>It has passed its limit.</summary>
    public bool IsBeyond => Limit?.IsPassedBy(Last.Value) == true;

    /// <summary>The values of what is fitted now; of a device that was never measured since, the last ones.</summary>
    private ImmutableArray<SeriesValue> Current => Since(Values, Replaced);

    /// <summary>What the last value says beside the first, the limit and the line, in a sentence.</summary>
    public string Says
    {
        get
        {
            var (last, first) = (Shown(Last.Value), Shown(First.Value));
            if (IsBeyond)
            {
                return $"{last}: beyond {LimitShown}.";
            }

            if (Reaches is { } reaches)
            {
                return $"{last}, {first} at first: reaches {Shown(Bound)} in about {Away(reaches.About)} "
                    + $"({Away(reaches.Earliest)} to {(reaches.Latest is { } latest ? Away(latest) : "five years or more")}).";
            }

            return Trend is not { IsSure: true } ? $"{last}; no trend that these values carry." : $"{last}, {first} at first.";
        }
    }

    /// <summary>The side of the limit that the line heads for.</summary>
    private double Bound => (Trend is { SlopePerYear: > 0 } ? Limit?.Most : Limit?.Least) ?? 0;

    /// <summary>The limit with its unit and reason.</summary>
    public string LimitShown =>
        Limit switch
        {
            null => "",
            { Least: { } least, Most: { } most } => $"{Shown(least)} to {Shown(most)} ({Limit.Why})",
            { Least: { } least } => $"at least {Shown(least)} ({Limit.Why})",
            _ => $"at most {Shown(Limit.Most ?? 0)} ({Limit.Why})",
        };

    /// <summary>A value of this series with its unit.</summary>
    public string Shown(double value) => $"{Sum.N(value * Key.What.Scale())} {Key.What.Unit()}".TrimEnd();

    /// <summary>The series of a circuit from everything that was measured on it.</summary>
    /// <param name="circuit">The circuit as it is now.</param>
    /// <param name="values">Measured values in any order.</param>
    /// <param name="replaced">When each device was replaced last, by tag.</param>
    public static ImmutableArray<Series> Of(
        Circuit circuit,
        IEnumerable<SeriesValue> values,
        IReadOnlyDictionary<string, DateTimeOffset> replaced
    ) =>
        [
            .. values
                .GroupBy(v => v.Key)
                .Select(g => Of(circuit, g.Key, [.. g.OrderBy(v => v.At)], replaced))
                .OrderBy(s => s.Key.What)
                .ThenBy(s => s.Key.Device, StringComparer.Ordinal)
                .ThenBy(s => s.Key.Points, StringComparer.Ordinal),
        ];

    private static Series Of(
        Circuit circuit,
        SeriesKey key,
        ImmutableArray<SeriesValue> values,
        IReadOnlyDictionary<string, DateTimeOffset> replaced
    )
    {
        DateTimeOffset? since = replaced.TryGetValue(key.Device, out var at) ? at : null;
        var current = Since(values, since);
        var limit = LimitOf(circuit, key, current[0].Value);
        var trend = Trend.Through(key.What, [.. current.Select(v => (v.At, v.Value))]);
        return new Series(key, values, since, limit, trend, limit is null ? null : trend?.Reaches(limit));
    }

    private static ImmutableArray<SeriesValue> Since(ImmutableArray<SeriesValue> values, DateTimeOffset? replaced)
    {
        ImmutableArray<SeriesValue> current = [.. values.Where(v => replaced is null || v.At >= replaced)];
        return current.IsEmpty ? values : current;
    }

    private static SeriesLimit? LimitOf(Circuit circuit, SeriesKey key, double first) =>
        key.What switch
        {
            Followed.CoilOhms or Followed.WindingOhms => new SeriesLimit(
                (1 - CopperShare) * first,
                (1 + CopperShare) * first,
                "15 % from its own first value; a warm cabinet makes less"
            ),
            Followed.Insulation => new SeriesLimit(InsulationAtForty.Least * 1e6, null, "IEEE 43, machines below 1 kV"),
            Followed.RunningAmps => RatedLineAmps(circuit) is { } rated ? new SeriesLimit(null, rated, "the motor's plate") : null,
            Followed.AmpsUnbalance => new SeriesLimit(null, MostAmpsUnbalance, "common practice"),
            Followed.VoltsUnbalance => new SeriesLimit(null, MostVoltsUnbalance, "NEMA MG 1"),
            Followed.LineVolts => circuit.Supply.Kind.SourceOf(circuit.Supply)!.LineVolts.Value is var volts
                ? new SeriesLimit((1 - SupplyBand) * volts, (1 + SupplyBand) * volts, "10 %, IEC 60038")
                : null,
            Followed.Starts => new SeriesLimit(null, first + ContactLife, "a million starts, AC-3; the maker's figure comes first"),
            Followed.TripTime => new SeriesLimit(TripCurve.Soonest, TripCurve.Latest, "its class, IEC 60947-4-1"),
            _ => null,
        };

    /// <summary>What the only motor may draw in a line; null where there are several.</summary>
    private static double? RatedLineAmps(Circuit circuit) =>
        circuit.Devices.Select(d => d.Kind.PlateOf(d)).OfType<MotorPlate>().ToList() is [var plate]
            ? plate.LeadShare * plate.Amps.Value
            : null;

    private string Away(DateTimeOffset when)
    {
        var months = (when - Last.At).TotalDays / 30.44;
        return months switch
        {
            < 1.5 => "a month",
            < 18 => $"{months.ToString("0", CultureInfo.InvariantCulture)} months",
            _ => $"{(months / 12).ToString("0.#", CultureInfo.InvariantCulture)} years",
        };
    }
}
