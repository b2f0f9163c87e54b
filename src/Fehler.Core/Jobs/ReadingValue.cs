using System.Globalization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>What is measured.</summary>
public enum Quantity
{
    /// <summary>Alternating voltage, V.</summary>
    Volts,

    /// <summary>Direct voltage, V.</summary>
    DcVolts,

    /// <summary>Resistance, ohm.</summary>
    Ohms,

    /// <summary>The beep: below about 30 ohm or not.</summary>
    Continuity,

    /// <summary>Current of a lead, by a clamp around what is landed on one terminal, A; both points are that terminal.</summary>
    Amps,

    /// <summary>The highest current of a lead while its motor starts, by a clamp that holds it, A; both points are that terminal.</summary>
    StartingAmps,

    /// <summary>Insulation resistance at 500 V direct, ohm.</summary>
    Insulation,
}

/// <summary>What quantities have in common.</summary>
public static class Quantities
{
    /// <summary>A voltage, alternating or direct: taken on the live circuit.</summary>
    public static bool IsVolts(this Quantity quantity) => quantity is Quantity.Volts or Quantity.DcVolts;

    /// <summary>Taken on the live circuit.</summary>
    public static bool IsLive(this Quantity quantity) => quantity.IsVolts() || quantity.IsAmps();

    /// <summary>A current by a clamp around one lead.</summary>
    public static bool IsAmps(this Quantity quantity) => quantity is Quantity.Amps or Quantity.StartingAmps;
}

/// <summary>What the meter showed.</summary>
public enum ReadingKind
{
    /// <summary>A number in V or ohm.</summary>
    Number,

    /// <summary>OL: above the meter's range.</summary>
    OverLimit,

    /// <summary>"Full": the control voltage, near enough, without the number.</summary>
    Full,

    /// <summary>The continuity test beeped.</summary>
    Beep,

    /// <summary>The continuity test stayed silent.</summary>
    Silent,

    /// <summary>A wandering value, as on a point that nothing holds.</summary>
    Unsteady,

    /// <summary>It could not be taken, or nobody would swear to it: no evidence, and not asked for again.</summary>
    NotSure,
}

/// <summary>A meter reading as a person takes it down: a number, or one of the words of the trade.</summary>
/// <param name="Kind">What sort of reading.</param>
/// <param name="Number">V or ohm when <paramref name="Kind"/> is a number; otherwise 0.</param>
public readonly record struct ReadingValue(ReadingKind Kind, double Number = 0)
{
    public static ReadingValue Of(double number) => new(ReadingKind.Number, number);
}
