using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Puts states, steps and predictions into the words of the trade.</summary>
internal static class Words
{
    public static string Of(IEnumerable<Step> steps) => string.Join(", then ", steps.Select(s => s.ToString()));

    public static string Of(IEnumerable<KeyValuePair<string, string>> seen) => string.Join(", ", seen.Select(s => $"{s.Key} {s.Value}"));

    /// <summary>A probability: what is not certain is never shown as certain.</summary>
    public static string Share(double probability) =>
        probability switch
        {
            > 0.99 => "> 99 %",
            < 0.01 => "< 1 %",
            _ => FormattableString.Invariant($"{100 * probability:0} %"),
        };

    /// <summary>What the meter is set to.</summary>
    public static string Of(Quantity quantity) =>
        quantity switch
        {
            Quantity.Volts => "Volts",
            Quantity.DcVolts => "Volts DC",
            Quantity.Amps => "Amps",
            Quantity.StartingAmps => "Starting amps",
            Quantity.Insulation => "Insulation",
            Quantity.Continuity => "Continuity",
            _ => "Ohms",
        };

    public static string WithHeld(ImmutableArray<Step> held) =>
        held.IsDefaultOrEmpty ? "" : $" with {string.Join(" and ", held.Select(h => $"{h.Device} {h.Position}"))}";

    public static string Of(Prediction prediction, Quantity quantity) =>
        prediction.Kind switch
        {
            PredictionKind.OverLimit => quantity == Quantity.Insulation ? "above 20 MΩ" : "OL",
            PredictionKind.Stray => prediction.Value < 20
                ? "nothing that holds (stray)"
                : $"nothing that holds (stray, perhaps {ReadingText.Digits(Rounded(prediction.Value, quantity))} V)",
            _ when quantity.IsVolts() => Math.Abs(prediction.Value) < 1.5
                ? "0 V"
                : $"about {ReadingText.Digits(Rounded(prediction.Value, quantity))} V",
            _ when quantity.IsAmps() => Math.Abs(prediction.Value) < 0.03
                ? "0 A"
                : $"about {ReadingText.Digits(Rounded(prediction.Value, quantity))} A",
            _ => prediction.Value < 0.5 ? "about 0 Ω" : $"about {ReadingText.Show(new Ohms(Rounded(prediction.Value, quantity)))}",
        };

    public static string Point(Circuit circuit, TerminalId terminal)
    {
        var wire = circuit.WireAt(terminal);
        return wire.Length > 0 ? $"{terminal} (wire {wire})" : terminal.ToString();
    }

    public static string Unit(Circuit circuit, string unit)
    {
        if (circuit.FindDevice(unit) is { } device)
        {
            return $"{device.Kind.Name} {device.Tag}";
        }

        var conductor = circuit.Conductors.FirstOrDefault(c => c.Id == unit);
        return conductor is null ? unit : $"wire {conductor.Wire} from {conductor.From} to {conductor.To}";
    }

    public static string Setup(Circuit circuit, Setup setup)
    {
        var state = setup.Dead ? "isolated and proved dead" : "supply on";
        state +=
            setup.LiftedEnd is { } one
                ? $", wire {circuit.WireAt(one.End)} to {circuit.Conductors.First(c => c.Id == one.Conductor).FarFrom(one.End)} lifted off {one.End}"
            : setup.HasLifts ? $", wires lifted off {setup.LiftedAt}"
            : "";
        return setup.Held.IsEmpty ? state : $"{state}, {string.Join(", then ", setup.Held.Select(h => Trial.Held(circuit, h)))}";
    }

    /// <summary>
    /// As much as a prediction is worth: volts to about what a meter's 1 % and three digits are, so that 400, 401 and 404 V are one thing;
    /// anything else to three figures.
    /// </summary>
    public static double Rounded(double value, Quantity quantity)
    {
        if (value == 0)
        {
            return 0;
        }

        if (quantity.IsVolts())
        {
            var step =
                Math.Abs(value) > 180 ? 5
                : Math.Abs(value) > 50 ? 1
                : 0.5;
            return step * Math.Round(value / step);
        }

        var scale = Math.Pow(10, Math.Floor(Math.Log10(Math.Abs(value))) - 1);
        return Math.Round(value / scale) * scale;
    }
}
