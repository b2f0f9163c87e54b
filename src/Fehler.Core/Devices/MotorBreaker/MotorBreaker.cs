using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A motor-protective circuit-breaker (also the manual motor starter): thermal trip on the dial, magnetic trip at about
/// thirteen times it, trip-free, and it breaks the motor's current itself. Off, then on, to reset.
/// </summary>
internal sealed partial class MotorBreaker : CompleteKind
{
    private const int Off = 0,
        On = 1,
        Tripped = 2;
    private const double PoleOhms = 0.03;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec SettingAmps = ParameterSpec.Number("settingAmps", "Current on the dial", "A", 8, 0.05, 630) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec TripClass = ParameterSpec.Number("tripClass", "Trip class", "", 10, 5, 40) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Auxiliary contacts that follow the poles; last digits 3-4 close, 1-2 open",
            "13-14"
        );
        public static readonly WordSpec TripContact = ParameterSpec.Word(
            "tripContact",
            "Change-over signal of a trip at 97-98 and 95-96",
            "no",
            "yes",
            "no"
        ) with
        {
            Group = PlateGroup.Contacts,
        };
    }

    public override string Id => "motor-breaker";
    public override Wording Name => "motor-protective breaker";

    public override LadderShape LadderShapeOf(Element? element) =>
        element?.Role == ElementRole.Pole ? LadderShape.Breaker : base.LadderShapeOf(element);

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [Plate.SettingAmps, Plate.TripClass, Plate.Contacts, Plate.TripContact];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            .. Enumerable.Range(0, 3).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole)),
            .. device[Plate.Contacts].Select(Element.FromContact),
            .. device[Plate.TripContact] == "yes"
                ? [new Element("95", "96", ElementRole.NormallyClosed), new Element("97", "98", ElementRole.NormallyOpen)]
                : Array.Empty<Element>(),
        ];

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        element.OwnA switch
        {
            "95" => state.Position != Tripped,
            "97" => state.Position == Tripped,
            _ => element.Role == ElementRole.NormallyClosed ? state.Position != On : state.Position == On,
        };

    public override Dial? DialOf(Device device) =>
        new(new Amps(device[Plate.SettingAmps]), Elements(device)[0], Plate.SettingAmps.Name) { TripClass = device[Plate.TripClass] };

    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "tripped"];

    public override int InitialPosition(Device device) => On;

    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 1);
    public override ImmutableArray<string> Appearances => ["on", "off", "tripped"];

    public override string Heard(string before, string after) => after == before ? "" : "a snap";

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Switch off", false), new("on", "Switch on", false), new("tripped", "Operate the test trip", false)];

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            new("toggle", $"Knob of {device.Tag}", "on", "off", "tripped"),
            new(
                "dial",
                FormattableString.Invariant($"Dial of {device.Tag}: set to {device[Plate.SettingAmps]:0.##} A?"),
                "as it should be",
                "lower",
                "higher"
            ),
        ];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [$"{device.Tag} stays made through a power cut: what it feeds directly starts by itself when the supply comes back."];
}
