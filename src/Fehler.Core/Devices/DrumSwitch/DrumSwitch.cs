using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A drum (cam) reversing switch: off, forward, reverse by hand. It must not make or break the load.</summary>
internal sealed partial class DrumSwitch : CompleteKind
{
    private const int Forward = 1,
        Reverse = 2;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec RatedAmps = ParameterSpec.Number("ratedAmps", "Rated current", "A", 16, 0.1, 400);
    }

    public override string Id => "drum-switch";
    public override Wording Name => "drum switch";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Blade;

    public override bool SharesTerminals => true;
    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.RatedAmps];

    /// <summary>Straight through forward; the first two lines exchanged in reverse; the third made in both.</summary>
    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            new("1", "2", ElementRole.Pole),
            new("3", "4", ElementRole.Pole),
            new("5", "6", ElementRole.Pole),
            new("1", "4", ElementRole.Pole),
            new("3", "2", ElementRole.Pole),
        ];

    public override PoleRating? RatingOf(Device device) =>
        Elements(device).FirstOrDefault(e => e.Role == ElementRole.Pole) is { } first
            ? new(new Amps(device[Plate.RatedAmps]), first, Duty.SwitchesMotor)
            : null;

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) =>
        [.. Elements(device).Take(3).Select(e => (e.A, e.B))];

    public override ImmutableArray<string> Positions(Device device) => ["off", "forward", "reverse"];

    public override ImmutableArray<string> Appearances => ["off", "forward", "reverse"];

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        element.Name switch
        {
            "5-6" => state.Position != 0,
            "1-2" or "3-4" => state.Position == Forward,
            _ => state.Position == Reverse,
        };

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Turn to off", false), new("forward", "Turn to forward", false), new("reverse", "Turn to reverse", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", "off", "forward", "reverse")];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [
            $"{device.Tag} must not make or break the load: stop the motor first, wait until it stands, then turn.",
            $"{device.Tag} stays where it is through a power cut: the motor starts by itself when the supply comes back.",
        ];
}
