using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>A setting of the meter as it is offered for a reading.</summary>
/// <param name="Quantity">What is measured.</param>
/// <param name="Label">As it stands on a meter's dial.</param>
/// <param name="Name">In words.</param>
/// <param name="IsClamp">A clamp goes around one lead: one terminal instead of two.</param>
/// <param name="Touches">Answers that are one touch.</param>
public sealed record MeterSetting(Quantity Quantity, string Label, string Name, bool IsClamp, ImmutableArray<string> Touches)
{
    /// <summary>Every setting, the commonest first.</summary>
    public static ImmutableArray<MeterSetting> All { get; } =
    [
        new(Quantity.Volts, "V~", "volts", false, ["0", "full", "stray"]),
        new(Quantity.DcVolts, "V=", "volts DC", false, ["0", "full", "stray"]),
        new(Quantity.Ohms, "Ω", "ohms", false, ["0", "OL", "stray"]),
        new(Quantity.Continuity, "beep", "continuity", false, ["beep", "no beep"]),
        new(Quantity.Amps, "A~", "amps by clamp", true, ["0"]),
        new(Quantity.StartingAmps, "A start", "starting amps by clamp", true, ["0"]),
        new(Quantity.Insulation, "MΩ", "insulation at 500 V", false, ["0", "OL"]),
    ];
}
