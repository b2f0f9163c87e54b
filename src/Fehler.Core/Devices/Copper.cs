using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>How well the resistance of a winding is known, by where it comes from.</summary>
internal static class Copper
{
    /// <summary>Whether the ohms of a description were read with a meter or follow from the plate.</summary>
    public static readonly WordSpec Known = ParameterSpec.Word(
        "ohmsKnown",
        "Where its ohms come from",
        "estimated",
        "estimated",
        "measured"
    ) with
    {
        Group = PlateGroup.Expert,
    };

    /// <summary>
    /// One standard deviation as a factor. An alternating-current coil reads 0.15 to 2 times what its pull-in data lead to, a motor's
    /// winding 0.6 to 1.7 times, a small transformer's 0.6 to 1.7 times, a direct-current coil follows its watts; what was measured comes
    /// again but for temperature (common practice; copper 0.4 % a kelvin).
    /// </summary>
    public const double OfAcCoil = 1.75,
        OfDcCoil = 1.15,
        OfMotor = 1.35,
        OfTransformer = 1.3,
        OfMeasured = 1.04;

    /// <summary>The factor of a device whose ohms are estimated to this one.</summary>
    public static double Spread(Device device, double estimated) => device[Known] == "measured" ? OfMeasured : estimated;
}
