using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Families;

namespace Fehler.Core.Devices;

/// <summary>
/// A programmable controller with relay outputs. Its program is one of a starter: Stop on I0 (a broken wire stops), Start on I1
/// and, reversing, I2; then the overload's contact, the contactors' auxiliary contacts and the breaker's. Feedback that stays away for a
/// second is a fault until Stop is pressed. Two further outputs may follow the contactors': a shunt release that is worked when a contactor
/// stays in although it is let go, and a lamp that blinks while a run-down lock-out lasts.
/// </summary>
internal sealed partial class Controller : CompleteKind
{
    private const int Stopped = 0,
        Forward = 1,
        Reverse = 2,
        Fault = 3,
        RunDown = 4,
        Releasing = 5;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec Program = ParameterSpec.Word("program", "What it does", "direct", "direct", "reversing") with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec InputVolts = ParameterSpec.Number("inputVolts", "Input voltage, direct current", "V", 24, 5, 230);
        public static readonly WordSpec TripInput = ParameterSpec.Word(
            "tripInput",
            "The overload's contact: nc reads a broken wire as a trip, no does not notice it, none has no input",
            "nc",
            "nc",
            "no",
            "none"
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec Feedback = ParameterSpec.Word(
            "feedback",
            "Whether the contactors' auxiliary contacts are watched",
            "yes",
            "yes",
            "no"
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec BreakerInput = ParameterSpec.Word(
            "breakerInput",
            "The breaker's auxiliary contact: no is made while it is on, so that a broken wire reads as tripped; nc is made while it is off",
            "none",
            "nc",
            "no",
            "none"
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly WordSpec ShuntOutput = ParameterSpec.Word(
            "shuntOutput",
            "An output works a shunt release when a contactor stays in",
            "no",
            "yes",
            "no"
        ) with
        {
            Group = PlateGroup.Setting,
        };
        public static readonly NumberSpec LockOutSeconds = ParameterSpec.Number(
            "lockOutSeconds",
            "Blocks starts after a run until the load has run down, with an output for a lamp; 0: does not",
            "s",
            0,
            0,
            600
        ) with
        {
            Group = PlateGroup.Setting,
        };
    }

    public override string Id => "controller";
    public override Wording Name => "controller";
    public override string Letters => "PLC";

    public override LadderShape LadderShapeOf(Element? element) =>
        element?.Role == ElementRole.Load ? LadderShape.Box : base.LadderShapeOf(element);

    public override bool SharesTerminals => true;

    public override bool HasDelays => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [Plate.Program, Plate.InputVolts, Plate.TripInput, Plate.Feedback, Plate.BreakerInput, Plate.ShuntOutput, Plate.LockOutSeconds];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["stop", "forward", "reverse", "fault", "run-down", "release"];

    public override ImmutableArray<string> Appearances => ["stop", "run", "run reverse", "fault", "run-down", "release"];

    /// <summary>Which input and output is which; -1 for what there is none of.</summary>
    private readonly record struct Channels(
        bool IsReversing,
        int Trip,
        int Feedback,
        int Breaker,
        int Inputs,
        int Shunt,
        int Lamp,
        int Outputs
    );

    private static Channels ChannelsOf(Device device)
    {
        var reversing = device[Plate.Program] == "reversing";
        var contactors = reversing ? 2 : 1;
        var inputs = 1 + contactors;
        int Next(bool has, ref int next, int count = 1) => has ? (next += count) - count : -1;
        var trip = Next(device[Plate.TripInput] != "none", ref inputs);
        var feedback = Next(device[Plate.Feedback] == "yes", ref inputs, contactors);
        var breaker = Next(device[Plate.BreakerInput] != "none", ref inputs);
        var outputs = contactors;
        var shunt = Next(device[Plate.ShuntOutput] == "yes", ref outputs);
        var lamp = Next(device[Plate.LockOutSeconds] > 0, ref outputs);
        return new Channels(reversing, trip, feedback, breaker, inputs, shunt, lamp, outputs);
    }

    private protected override ImmutableArray<Element> OwnElements(Device device)
    {
        var channels = ChannelsOf(device);
        return
        [
            .. Enumerable.Range(0, channels.Inputs).Select(i => new Element($"I{i}", "IM", ElementRole.Load)),
            .. Enumerable.Range(0, channels.Outputs).Select(o => new Element("QL", $"Q{o}", ElementRole.NormallyOpen)),
        ];
    }

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        ChannelsOf(device) is var channels
        && int.Parse(element.OwnB.AsSpan(1), System.Globalization.CultureInfo.InvariantCulture) is var output
        && state.Position switch
        {
            Forward => output == 0,
            Reverse => output == 1 && channels.IsReversing,
            RunDown => output == channels.Lamp,
            Releasing => output == channels.Shunt,
            _ => false,
        };

    public override ImmutableArray<Look> Looks(Device device) =>
        [
            new("indicator", $"State shown by {device.Tag}", [.. Appearances]),
            .. Elements(device)
                .Select(e => new Look(
                    Channel(e),
                    $"Indicator of {(e.IsContact ? "output" : "input")} {Channel(e)} of {device.Tag}",
                    "lit",
                    "dark"
                )
                {
                    Measured = true,
                }),
        ];

    /// <summary>The terminal that an input or output has for itself.</summary>
    private static string Channel(Element element) => element.IsContact ? element.B : element.A;
}
