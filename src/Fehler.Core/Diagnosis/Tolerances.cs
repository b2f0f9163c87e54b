using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Diagnosis;

/// <summary>How exactly a reading can be foretold.</summary>
internal static class Tolerances
{
    /// <summary>
    /// Standard deviation of the supply, and of the meter on it, before anything was measured: +-10 % is two of them (IEC 60038, from memory). All volts
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

    /// <summary>A motor's load is seldom known; its no-load current is a third of the plate's and more (common practice).</summary>
    private const double LoadShare = 0.2;

    /// <summary>Insulation moves with temperature and damp from hour to hour.</summary>
    private const double InsulationShare = 0.3;

    /// <summary>Three digits of a usual meter, and the resistance of its leads.</summary>
    private const double VoltDigits = 1.2,
        OhmDigits = 0.25,
        DcDigits = 0.4,
        ClampDigits = 0.05;

    public static Prediction Volts(Solution solution, TerminalId from, TerminalId to, Solution? twin)
    {
        var value = solution.Volts(from, to).Magnitude;
        if (!solution.IsFirm(from, to))
        {
            return new Prediction(PredictionKind.Stray, value);
        }

        return new Prediction(
            PredictionKind.Value,
            value,
            Math.Sqrt(Square(VoltShare * value) + Square(VoltDigits)),
            twin is null ? 0 : Math.Abs(twin.Volts(from, to).Magnitude - value)
        );
    }

    public static Prediction DcVolts(Solution solution, TerminalId from, TerminalId to, Solution? twin)
    {
        var value = solution.DcVolts(from, to).Magnitude.Value;
        return solution.IsFirmDirect(from, to)
            ? new Prediction(
                PredictionKind.Value,
                value,
                Math.Sqrt(Square(VoltShare * value) + Square(DcDigits)),
                twin is null ? 0 : Math.Abs(twin.DcVolts(from, to).Magnitude.Value - value)
            )
            : new Prediction(PredictionKind.Stray, value);
    }

    /// <summary>Current by a clamp around the lead at a terminal.</summary>
    public static Prediction Amps(Solution solution, TerminalId at, Solution? twin)
    {
        var value = solution.Amps(at).Value;
        return new Prediction(
            PredictionKind.Value,
            value,
            Math.Sqrt(Square(LoadShare * value) + Square(ClampDigits)),
            twin is null ? 0 : Math.Abs(twin.Amps(at).Value - value)
        );
    }

    /// <param name="value">By the description, ohm.</param>
    /// <param name="twin">With the fault of another size, ohm.</param>
    /// <param name="more">With one standard deviation more copper in the windings, ohm.</param>
    /// <param name="own">What this very circuit was measured at before, as a multiple of the description; null when it was not.</param>
    public static Prediction Ohms(double value, double twin, double more, double? own = null)
    {
        if (double.IsInfinity(value))
        {
            return new Prediction(PredictionKind.OverLimit);
        }

        var known = value * (own ?? 1);
        return new Prediction(
            PredictionKind.Value,
            known,
            Math.Sqrt(Square((own is null ? OhmShare : MeasuredShare) * known) + Square(OhmDigits)),
            Math.Sqrt(
                Square(double.IsInfinity(twin) ? known : twin - value)
                    + Square(
                        own is not null ? 0
                        : double.IsInfinity(more) ? known
                        : more - value
                    )
            )
        );
    }

    /// <summary>Insulation is known to a factor, not to a share; what is above the meter's range is as good as infinite.</summary>
    public static Prediction Insulation(double value, double twin) =>
        double.IsInfinity(value)
            ? new Prediction(PredictionKind.OverLimit)
            : new Prediction(
                PredictionKind.Value,
                value,
                Math.Sqrt(Square(InsulationShare * value) + Square(OhmDigits)),
                double.IsInfinity(twin) ? value : Math.Abs(twin - value)
            );

    private static double Square(double x) => x * x;
}
