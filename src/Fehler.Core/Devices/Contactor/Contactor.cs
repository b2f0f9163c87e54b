using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>A contactor: main poles and auxiliary contacts on one armature, perhaps locked mechanically against another's.</summary>
internal sealed partial class Contactor : CoilOperated
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Poles = ParameterSpec.Number("poles", "Main poles", "", 3, 0, 4);
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Auxiliary contacts by terminal numbers; last digits 3-4 close, 1-2 open",
            "13-14"
        );
        public static readonly NumberSpec RatedAmps = ParameterSpec.Number("ratedAmps", "Rated current AC-3", "A", 12, 1, 1600);
        public static readonly WordSpec InterlockedWith = ParameterSpec.Word(
            "interlockedWith",
            "Contactor that a mechanical interlock locks this one against; none when empty",
            ""
        ) with
        {
            Group = PlateGroup.Contacts,
        };
    }

    public override string Id => "contactor";
    public override Wording Name => "contactor";

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } =
    [Plate.Poles, Plate.Contacts, Plate.RatedAmps, Plate.InterlockedWith];

    private protected override ImmutableArray<Element> Contacts(Device device) =>
        [
            .. Enumerable.Range(0, (int)device[Plate.Poles]).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole)),
            .. device[Plate.Contacts].Select(Element.FromContact),
        ];

    public override PoleRating? RatingOf(Device device) =>
        Elements(device).FirstOrDefault(e => e.Role == ElementRole.Pole) is { } first
            ? new(new Amps(device[Plate.RatedAmps]), first, Duty.SwitchesMotor)
            : null;

    public override IEnumerable<string> CoupledTo(Device device) => device[Plate.InterlockedWith] is { Length: > 0 } other ? [other] : [];

    public override IEnumerable<Wording> Cautions(Device device) =>
        [
            "Pressing the armature in by hand closes the main poles: the motor starts unless the circuit is isolated.",
            .. CoupledTo(device)
                .Select(other =>
                    $"Never press {device.Tag} and {other} in together: with the supply on that is a short circuit between phases."
                ),
        ];
}
