using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class PilotLamp
{
    /// <summary>A cold filament has about a tenth of its hot resistance (common practice).</summary>
    private const double ColdShare = 0.1;

    /// <summary>An LED lamp's electronics do not conduct at an ohmmeter's voltage.</summary>
    private const double LedOhms = 100e6;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        var hot = Math.Pow(device[Plate.Volts], 2) / device[Plate.Watts];
        return domain != Domain.Ohms ? 1 / hot
            : device[Plate.Lamp] == "led" ? 1 / LedOhms
            : 1 / (ColdShare * hot);
    }

    /// <summary>It is its current that makes a lamp burn: a dead one has its voltage and stays dark.</summary>
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        (Math.Max(Magnitude(meter.Amps(0)), Math.Abs(meter.DcAmps(0))) * device[Plate.Volts] / device[Plate.Watts]) switch
        {
            >= 0.7 => device[Plate.Light] == "flashing" ? "flashes" : "on",
            >= 0.3 => "dim",
            _ => "off",
        };
}
