using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class HeaterBank
{
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        device[Plate.Kilowatts] * 1000 / Math.Pow(device[Plate.Volts], 2);

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        var watts =
            Enumerable.Range(0, 3).Sum(k => Math.Pow(Magnitude(meter.Amps(k)), 2))
            / device[Plate.Kilowatts]
            / 1000
            * Math.Pow(device[Plate.Volts], 2)
            / device[Plate.Kilowatts]
            / 1000;
        return watts switch
        {
            > 0.7 => "heats",
            > 0.1 => "heats weakly",
            _ => "cold",
        };
    }
}
