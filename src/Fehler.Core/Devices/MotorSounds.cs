using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>What is heard of a motor (common practice).</summary>
internal static class MotorSounds
{
    public static string Between(DeviceKind motor, string before, string after) =>
        motor.IsStalled(after) ? "a loud hum, and nothing turns"
        : motor.IsRough(after) ? "growls"
        : motor.IsWorking(after)
            ? motor.IsWorking(before) && after == before ? ""
                : "runs up"
        : motor.IsWorking(before) ? "runs out"
        : motor.IsStalled(before) ? "the hum stops"
        : "";
}
