namespace Fehler.Core.Circuits;

/// <summary>What a device with poles is for.</summary>
public enum Duty
{
    /// <summary>It switches a motor that may be starting (utilization category AC-3).</summary>
    SwitchesMotor,

    /// <summary>It carries the current, and is opened without a load.</summary>
    Carries,

    /// <summary>It protects against short circuits and has to let the start pass.</summary>
    Fuses,
}

/// <summary>The current that a device's poles are rated for.</summary>
/// <param name="Amps">As printed on it.</param>
/// <param name="Element">The first of its poles.</param>
/// <param name="Duty">What it is for.</param>
public sealed record PoleRating(Amps Amps, Element Element, Duty Duty);
