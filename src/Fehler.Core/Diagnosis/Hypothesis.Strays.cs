using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <content>Ghost voltages that were read: a piece of circuit that nothing holds shows much the same wherever it is touched.</content>
internal sealed partial class Hypothesis
{
    /// <summary>
    /// What was seen once of a floating piece comes again nearly as surely as a held voltage does; in the same state it seldom changes.
    /// </summary>
    private const double RepeatedStrayFit = 0.7,
        ChangedStrayShare = 0.1;

    /// <summary>Joined points with less than this between them are one, V.</summary>
    private const double OnePointBelow = 2;

    private readonly List<Stray> _strays = [];

    /// <summary>
    /// Fit of a reading. Stray readings of one floating piece of circuit repeat each other: what has been seen once and fits again is no new
    /// evidence, and another value at what is the same point is hardly a ghost of this piece.
    /// </summary>
    public double Fit(Reading reading, ReadingValue value, Prediction prediction, Setup setup, double fullVolts, double straySpan)
    {
        var fit = Likelihood.OfReading(reading.Quantity, value, prediction, fullVolts, straySpan);
        if (prediction.Kind != PredictionKind.Stray || value.Kind != ReadingKind.Number)
        {
            return fit;
        }

        var (prepared, volts) = (Prepare(setup), Math.Abs(value.Number));
        var solution = prepared.Solve(Network);
        var (repeats, changed) = (false, false);
        foreach (var stray in _strays)
        {
            repeats |= stray.IsLike(volts) && stray.IsOfThesePieces(reading.From, reading.To, reading.Quantity, solution);
            changed |= stray.State.Equals(prepared.State) && stray.IsAtThesePoints(reading.From, reading.To, reading.Quantity, solution);
        }

        _strays.Add(new Stray(reading.From, reading.To, prepared.State, volts));
        return repeats ? Math.Max(fit, RepeatedStrayFit)
            : changed ? ChangedStrayShare * fit
            : fit;
    }

    /// <summary>Where nothing holds a point, what was read of it before in this state is the best guess: it is foretold again.</summary>
    private Prediction[] Remembered(
        Prediction[] foretold,
        Quantity quantity,
        ReadOnlySpan<(TerminalId From, TerminalId To)> pairs,
        Prepared prepared
    )
    {
        if (_strays.Count == 0 || !quantity.IsVolts())
        {
            return foretold;
        }

        var solution = prepared.Solve(Network);
        foreach (var stray in _strays)
        {
            if (!stray.State.Equals(prepared.State))
            {
                continue;
            }

            for (var i = 0; i < foretold.Length; i++)
            {
                if (foretold[i].Kind == PredictionKind.Stray && stray.IsAtThesePoints(pairs[i].From, pairs[i].To, quantity, solution))
                {
                    foretold[i] = Prediction.SeenBefore(stray.Volts);
                }
            }
        }

        return foretold;
    }

    /// <summary>A stray reading that was made.</summary>
    private sealed record Stray(TerminalId From, TerminalId To, CircuitState State, double Volts)
    {
        public bool IsLike(double volts) => Math.Abs(Volts - volts) < 0.15 * Math.Max(Volts, volts) + 2;

        /// <summary>Between the same two pieces of circuit, wherever they were touched.</summary>
        public bool IsOfThesePieces(TerminalId from, TerminalId to, Quantity quantity, Solution solution) =>
            (AreJoined(From, from, quantity, solution) && AreJoined(To, to, quantity, solution))
            || (AreJoined(From, to, quantity, solution) && AreJoined(To, from, quantity, solution));

        /// <summary>Between what are electrically the same two points.</summary>
        public bool IsAtThesePoints(TerminalId from, TerminalId to, Quantity quantity, Solution solution) =>
            (AreOne(From, from, quantity, solution) && AreOne(To, to, quantity, solution))
            || (AreOne(From, to, quantity, solution) && AreOne(To, from, quantity, solution));

        private static bool AreJoined(TerminalId a, TerminalId b, Quantity quantity, Solution solution) =>
            a == b || (quantity == Quantity.DcVolts ? solution.IsFirmDirect(a, b) : solution.IsFirm(a, b));

        private static bool AreOne(TerminalId a, TerminalId b, Quantity quantity, Solution solution) =>
            a == b
            || (
                AreJoined(a, b, quantity, solution)
                && solution.Volts(a, b).Magnitude + solution.DcVolts(a, b).Magnitude.Value < OnePointBelow
            );
    }
}
