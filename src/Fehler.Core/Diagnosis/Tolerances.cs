using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Diagnosis;

/// <summary>How exactly a reading can be foretold.</summary>
internal static class Tolerances
{
    /// <summary>
    /// Standard deviation of the supply, and of the meter on it, before anything was measured: +-10 % is two of them (IEC 60038, from
    /// memory). All volts
    /// of a panel share it.
    /// </summary>
    public const double SupplyShare = 0.045;

    /// <summary>What a voltage differs by beside that: drops, a transformer's regulation, the next glance at the meter.</summary>
    private const double VoltShare = 0.03;

    /// <summary>What a resistance differs by that is not copper of unknown make: meter, temperature, contacts, wires.</summary>
    private const double OhmShare = 0.06;

    /// <summary>
    /// What was measured before comes again but for temperature: copper moves 4 % in ten kelvin (IEC 60034-1, from memory: 1/235 a kelvin).
    /// </summary>
    private const double MeasuredShare = 0.04;

    /// <summary>
    /// A motor's load is seldom known; its no-load current is a third of the plate's and more (common practice). All currents of a motor share
    /// it.
    /// </summary>
    public const double LoadShare = 0.2;

    /// <summary>What the current of one line differs by beside that: the unbalance of supply and windings, and the clamp.</summary>
    private const double LineShare = 0.06;

    /// <summary>Insulation moves with temperature and damp from hour to hour.</summary>
    private const double InsulationShare = 0.3;

    /// <summary>Three digits of a usual meter, and the resistance of its leads.</summary>
    public const double VoltDigits = 1.2;

    private const double OhmDigits = 0.25,
        DcDigits = 0.4,
        ClampDigits = 0.05;

    /// <param name="solved">The circuit solved.</param>
    /// <param name="from">First lead.</param>
    /// <param name="to">Second lead.</param>
    /// <param name="size">What is known of the fault's size.</param>
    public static Prediction Volts(in SolvedAtSizes solved, TerminalId from, TerminalId to, FaultSize size)
    {
        var value = solved.Given.Volts(from, to).Magnitude;
        return solved.Given.IsFirm(from, to)
            ? Sized(
                new AtSizes(
                    value,
                    solved.Larger?.Volts(from, to).Magnitude ?? value,
                    solved.Smaller?.Volts(from, to).Magnitude ?? double.NaN
                ),
                size,
                VoltShare,
                VoltDigits
            )
            : new Prediction(PredictionKind.Stray, value);
    }

    public static Prediction DcVolts(in SolvedAtSizes solved, TerminalId from, TerminalId to, FaultSize size)
    {
        var value = solved.Given.DcVolts(from, to).Magnitude.Value;
        return solved.Given.IsFirmDirect(from, to)
            ? Sized(
                new AtSizes(
                    value,
                    solved.Larger?.DcVolts(from, to).Magnitude.Value ?? value,
                    solved.Smaller?.DcVolts(from, to).Magnitude.Value ?? double.NaN
                ),
                size,
                VoltShare,
                DcDigits
            )
            : new Prediction(PredictionKind.Stray, value);
    }

    /// <summary>Current by a clamp around the lead at a terminal.</summary>
    /// <param name="solved">The circuit solved.</param>
    /// <param name="at">The terminal.</param>
    /// <param name="size">What is known of the fault's size.</param>
    /// <param name="load">What is known of the load that this current shares with others; null where it shares none.</param>
    public static Prediction Amps(in SolvedAtSizes solved, TerminalId at, FaultSize size, SharedUnknown? load)
    {
        var given = solved.Given.Amps(at).Value;
        var value = new AtSizes(given, solved.Larger?.Amps(at).Value ?? given, solved.Smaller?.Amps(at).Value ?? double.NaN);
        return load is { } shared ? shared.On(Sized(value, size, LineShare, ClampDigits)) : Sized(value, size, LoadShare, ClampDigits);
    }

    /// <param name="value">By the description, ohm.</param>
    /// <param name="more">With one standard deviation more copper in the windings, ohm.</param>
    /// <param name="size">What is known of the fault's size.</param>
    /// <param name="own">What this very circuit was measured at before, as a multiple of the description; null when it was not.</param>
    /// <param name="copper">What is known of the copper that this reading shares with others; null where it shares none.</param>
    public static Prediction Ohms(AtSizes value, double more, FaultSize size, double? own = null, SharedUnknown? copper = null)
    {
        if (double.IsInfinity(value.Given))
        {
            return new Prediction(PredictionKind.OverLimit);
        }

        var given = value.Given;
        if (copper is { } shared && own is null && given > 0 && more > given && !double.IsInfinity(more))
        {
            return shared.On(Sized(value, size, OhmShare, OhmDigits), Math.Log(more / given));
        }

        var spread =
            own is not null ? 0
            : double.IsInfinity(more) ? given
            : more - given;
        var sized = Sized((own ?? 1) * value, size, own is null ? OhmShare : MeasuredShare, OhmDigits);
        return sized with { Spread = Math.Sqrt(Square(sized.Spread) + Square(spread)) };
    }

    /// <summary>Insulation is known to a factor, not to a share; what is above the meter's range is as good as infinite.</summary>
    public static Prediction Insulation(AtSizes value, FaultSize size) =>
        double.IsInfinity(value.Given) ? new Prediction(PredictionKind.OverLimit) : Sized(value, size, InsulationShare, OhmDigits);

    private static Prediction Sized(AtSizes all, FaultSize size, double share, double digits)
    {
        var (value, spread, slope) = size.Of(all);
        return new Prediction(PredictionKind.Value, value, Math.Sqrt(Square(share * value) + Square(digits)), spread) { SizeSlope = slope };
    }

    private static double Square(double x) => x * x;
}
