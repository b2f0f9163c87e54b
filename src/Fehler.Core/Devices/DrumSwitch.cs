using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A drum (cam) reversing switch: off, forward, reverse by hand. It must not make or break the load.</summary>
internal sealed class DrumSwitch : DeviceKind
{
    private const int Forward = 1, Reverse = 2;

    public override string Id => "drum-switch";
    public override string Term => "drum switch";
    public override bool SharesTerminals => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [ParameterSpec.Number("ratedAmps", "Rated current", "A", 16, 0.1, 400)];

    /// <summary>Straight through forward; the first two lines exchanged in reverse; the third made in both.</summary>
    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("1", "2", ElementRole.Pole), new("3", "4", ElementRole.Pole), new("5", "6", ElementRole.Pole),
        new("1", "4", ElementRole.Pole), new("3", "2", ElementRole.Pole),
    ];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [("1", "2"), ("3", "4"), ("5", "6")];
    public override ImmutableArray<string> Positions(Device device) => ["off", "forward", "reverse"];
    public override ImmutableArray<string> Appearances => ["off", "forward", "reverse"];
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];

    public override bool IsMade(Device device, Element element, DeviceState state) => element.Name switch
    {
        "5-6" => state.Position != 0,
        "1-2" or "3-4" => state.Position == Forward,
        _ => state.Position == Reverse,
    };

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Turn to off", false), new("forward", "Turn to forward", false), new("reverse", "Turn to reverse", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", "off", "forward", "reverse")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (var contact in Elements(device))
        {
            yield return Common.Open(device, contact, $"Cam contact {contact.Name} of {device.Tag} does not make", 0.6, $"Replace the drum switch {device.Tag}.");
            foreach (var mode in Common.HighResistance(device, contact, $"Cam contact {contact.Name} of {device.Tag} is burnt (high resistance)", 0.3, $"Replace the drum switch {device.Tag}.", power: true))
            {
                yield return mode;
            }
        }
    }

    public override IEnumerable<string> Cautions(Device device) =>
    [
        $"{device.Tag} must not make or break the load: stop the motor first, wait until it stands, then turn.",
        $"{device.Tag} stays where it is through a power cut: the motor starts by itself when the supply comes back.",
    ];
}
