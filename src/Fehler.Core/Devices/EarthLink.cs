using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>The removable link that earths one side of a control supply; without it the first earth fault is silent.</summary>
internal sealed class EarthLink : DeviceKind
{
    public override string Id => "earth-link";
    public override string Term => "earthing link";
    public override ImmutableArray<Element> Elements(Device device) => [new("1", "2", ElementRole.Link)];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        [Common.Open(device, Elements(device)[0], $"Earthing link {device.Tag} is open: the control supply floats", 0.2, $"Close and tighten the earthing link {device.Tag}.")];
}
