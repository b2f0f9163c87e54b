using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>What hand-operated devices with main poles have in common.</summary>
public abstract class SwitchingDevice : DeviceKind
{
    public override ImmutableArray<ParameterSpec> Parameters =>
    [
        ParameterSpec.Number("poles", "Number of poles", "", 3, 1, 4),
        ParameterSpec.Number("ratedAmps", "Rated current", "A", 25, 0.1, 1600),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
        [.. Enumerable.Range(0, (int)device.Number("poles")).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole))];

    public override int InitialPosition(Device device) => 1;

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (var pole in Elements(device).Where(e => e.Role == ElementRole.Pole))
        {
            yield return Common.Open(device, pole, $"Pole {pole.Name} of the {Term} {device.Tag} does not close", 0.4, $"Replace the {Term} {device.Tag}, same type and rating.");
        }

        foreach (var pole in Elements(device).Where(e => e.Role == ElementRole.Pole))
        {
            foreach (var mode in Common.HighResistance(device, pole, $"Pole {pole.Name} of the {Term} {device.Tag} is burnt (high resistance)", 0.15, $"Replace the {Term} {device.Tag}, same type and rating.", power: true))
            {
                yield return mode;
            }
        }
    }
}
