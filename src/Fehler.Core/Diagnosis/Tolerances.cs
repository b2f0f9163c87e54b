using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Diagnosis;

/// <summary>How exactly a reading can be foretold.</summary>
internal static class Tolerances
{
    /// <summary>Standard deviation of the supply when it has not been measured: +-10 % is two of them.</summary>
    private const double SupplyShare = 0.05;

    /// <summary>Coils and windings +-20 % unless history or plate says better.</summary>
    private const double CopperShare = 0.10;

    /// <summary>A motor's load is seldom known; its no-load current is a third of the plate's and more (common practice).</summary>
    private const double LoadShare = 0.2;

    /// <summary>Three digits of a usual meter, and the resistance of its leads.</summary>
    private const double VoltDigits = 1.2, OhmDigits = 0.25, DcDigits = 0.4, ClampDigits = 0.05;

    public static Prediction Volts(Solution solution, TerminalId from, TerminalId to, Solution? twin)
    {
        var value = solution.Volts(from, to).Magnitude;
        if (!solution.IsFirm(from, to))
        {
            return new Prediction(PredictionKind.Stray, value);
        }

        return new Prediction(PredictionKind.Value, value, Math.Sqrt(Square(SupplyShare * value) + Square(VoltDigits)), twin is null ? 0 : Math.Abs(twin.Volts(from, to).Magnitude - value));
    }

    public static Prediction DcVolts(Solution solution, TerminalId from, TerminalId to, Solution? twin)
    {
        var value = Math.Abs(solution.DcVolts(from, to));
        return solution.IsFirmDirect(from, to)
            ? new Prediction(PredictionKind.Value, value, Math.Sqrt(Square(SupplyShare * value) + Square(DcDigits)), twin is null ? 0 : Math.Abs(Math.Abs(twin.DcVolts(from, to)) - value))
            : new Prediction(PredictionKind.Stray, value);
    }

    /// <summary>Current by a clamp around the lead at a terminal.</summary>
    public static Prediction Amps(Solution solution, TerminalId at, Solution? twin)
    {
        var value = solution.Amps(at);
        return new Prediction(PredictionKind.Value, value, Math.Sqrt(Square(LoadShare * value) + Square(ClampDigits)), twin is null ? 0 : Math.Abs(twin.Amps(at) - value));
    }

    public static Prediction Ohms(double value, double twin) => double.IsInfinity(value)
        ? new Prediction(PredictionKind.OverLimit)
        : new Prediction(PredictionKind.Value, value, Math.Sqrt(Square(CopperShare * value) + Square(OhmDigits)), double.IsInfinity(twin) ? value : Math.Abs(twin - value));

    private static double Square(double x) => x * x;
}
