using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Families;

namespace Fehler.Core.Devices;

/// <summary>
/// A programmable controller with relay outputs. Its program is one of a starter: Stop on I0 (a broken wire stops), Start on I1
/// and, reversing, I2; trip and feedback of the contactors after them. Feedback that stays away for a second is a fault until
/// Stop is pressed.
/// </summary>
internal sealed partial class Controller : CompleteKind
{
    // Position: bit 0 forward commanded, bit 1 reverse commanded, bit 2 feedback missing.
    private const int Forward = 1,
        Reverse = 2,
        Fault = 4;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec Program = ParameterSpec.Word("program", "What it does", "direct", "direct", "reversing");
        public static readonly NumberSpec InputVolts = ParameterSpec.Number("inputVolts", "Input voltage, direct current", "V", 24, 5, 230);
        public static readonly WordSpec TripInput = ParameterSpec.Word(
            "tripInput",
            "The overload's contact: nc reads a broken wire as a trip, no does not notice it, none has no input",
            "nc",
            "nc",
            "no",
            "none"
        );
        public static readonly WordSpec Feedback = ParameterSpec.Word(
            "feedback",
            "Whether the contactors' auxiliary contacts are watched",
            "yes",
            "yes",
            "no"
        );
    }

    public override string Id => "controller";
    public override Wording Name => "controller";
    public override string Letters => "PLC";

    public override LadderShape LadderShapeOf(Element? element) =>
        element?.Role == ElementRole.Load ? LadderShape.Box : base.LadderShapeOf(element);

    public override bool SharesTerminals => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Program, Plate.InputVolts, Plate.TripInput, Plate.Feedback];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) =>
        ["stop", "forward", "reverse", "both", "fault", "fault, forward", "fault, reverse", "fault, both"];

    public override ImmutableArray<string> Appearances => ["stop", "run", "run reverse", "fault"];

    private protected override ImmutableArray<Element> OwnElements(Device device)
    {
        var reversing = device[Plate.Program] == "reversing";
        var inputs =
            2
            + (reversing ? 1 : 0)
            + (device[Plate.TripInput] == "none" ? 0 : 1)
            + (
                device[Plate.Feedback] == "yes"
                    ? reversing
                        ? 2
                        : 1
                    : 0
            );
        return
        [
            .. Enumerable.Range(0, inputs).Select(i => new Element($"I{i}", "IM", ElementRole.Load)),
            new("QL", "Q0", ElementRole.NormallyOpen),
            .. reversing ? [new Element("QL", "Q1", ElementRole.NormallyOpen)] : Array.Empty<Element>(),
        ];
    }

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        (state.Position & Fault) == 0 && (state.Position & (element.OwnB == "Q0" ? Forward : Reverse)) != 0;

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("indicator", $"State shown by {device.Tag}", "stop", "run", "run reverse", "fault")];
}
