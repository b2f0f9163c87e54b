using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A timing relay. On-delay: the delayed contacts change over when the coil has been energised for the set time. Off-delay: they
/// change at once and go back after it. Star-delta: 17-18 makes at once (star), opens after the time, and after the
/// dwell 17-28 makes (delta).
/// </summary>
internal sealed partial class TimerRelay : CoilOperated
{
    private const int Rest = 0,
        Running = 1,
        Done = 2,
        Dwelling = 3;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec Function = ParameterSpec.Word(
            "function",
            "What is delayed",
            "on-delay",
            "on-delay",
            "off-delay",
            "star-delta"
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly ContactsSpec Contacts = ParameterSpec.Contacts(
            "contacts",
            "Contacts by terminal numbers; last digits 5-6 open delayed, 7-8 close delayed, 1-2 and 3-4 act at once",
            "57-58"
        );
        public static readonly NumberSpec Seconds = ParameterSpec.Number("seconds", "Time set on the dial", "s", 6, 0.05, 3600) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec DwellSeconds = ParameterSpec.Number(
            "dwellSeconds",
            "Star-delta: pause between star and delta",
            "s",
            0.05,
            0,
            10
        ) with
        {
            Group = PlateGroup.Setting,
        };
    }

    public override string Id => "timer-relay";
    public override Wording Name => $"{Term.TimeRelay}";

    /// <summary>Last digits 5-6 and 7-8 act after a delay (EN 50005, from memory), and so do the outputs of a star-delta timer.</summary>
    public override bool IsDelayed(Element element) => element.IsDelayed;

    public override bool HasDelays => true;

    public override LadderShape LadderShapeOf(Element? element) =>
        element is not null && IsDelayed(element) ? LadderShape.DelayedContact : base.LadderShapeOf(element);

    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 4, 4);
    public override bool SharesTerminals => true;

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } =
    [Plate.Function, Plate.Contacts, Plate.Seconds, Plate.DwellSeconds];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "timing", "timed out", "dwell"];

    public override ImmutableArray<Actuation> Actuations(Device device) => [];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Appearances => ["off", "timing", "on"];

    private protected override ImmutableArray<Element> Contacts(Device device) =>
        device[Plate.Function] == "star-delta"
            ?
            [
                new("17", "18", ElementRole.NormallyOpen) { IsDelayed = true },
                new("17", "28", ElementRole.NormallyOpen) { IsDelayed = true },
            ]
            : [.. device[Plate.Contacts].Select(Element.FromContact)];

    private protected override bool IsClosed(DeviceState state) => state.Position != Rest;

    public override bool IsMade(Device device, Element element, DeviceState state)
    {
        if (device[Plate.Function] == "star-delta")
        {
            return element.OwnB == "18" ? state.Position == Running : state.Position == Done;
        }

        var delayed = element.IsDelayed;
        var operated = state.Position == Done || (state.Position == Running && (!delayed || device[Plate.Function] == "off-delay"));
        return operated == (element.Role == ElementRole.NormallyOpen);
    }

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            .. base.Looks(device),
            new(
                "dial",
                FormattableString.Invariant($"Dial of {device.Tag}: set to {device[Plate.Seconds]:0.##} s?"),
                "as it should be",
                "shorter",
                "longer"
            ),
        ];
}
