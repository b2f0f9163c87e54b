using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <summary>
/// A control transformer: two windings on a core, with their resistance and leakage and a magnetising branch, so that it gives
/// some 5 % above its rated voltage unloaded and sags under a pull-in.
/// </summary>
internal sealed partial class ControlTransformer : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec PrimaryVolts = ParameterSpec.Number("primaryVolts", "Rated primary voltage", "V", 400, 20, 1000);
        public static readonly NumberSpec SecondaryVolts = ParameterSpec.Number(
            "secondaryVolts",
            "Rated secondary voltage at full load",
            "V",
            230,
            5,
            690
        );
        public static readonly NumberSpec Va = ParameterSpec.Number("va", "Rated power", "VA", 160, 10, 10000);
        public static readonly NumberSpec OhmsFactor = ParameterSpec.Number(
            "ohmsFactor",
            "Ohms of its windings over what its VA lead to",
            "",
            1,
            0.1,
            10
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec PrimaryOhms = ParameterSpec.Number(
            "primaryOhms",
            "Primary as an ohmmeter reads it; 0: from its VA",
            "ohm",
            0,
            0,
            5000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly NumberSpec SecondaryOhms = ParameterSpec.Number(
            "secondaryOhms",
            "Secondary, end to end, as an ohmmeter reads it; 0: from its VA",
            "ohm",
            0,
            0,
            5000
        ) with
        {
            Group = PlateGroup.Expert,
        };
        public static readonly WordSpec Tap = ParameterSpec.Word(
            "tap",
            "Whether the secondary has a centre tap (terminal 0)",
            "none",
            "none",
            "centre"
        );
    }

    public override string Id => "control-transformer";
    public override Wording Name => "control transformer";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Windings;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [Plate.PrimaryVolts, Plate.SecondaryVolts, Plate.Va, Plate.Tap, Plate.PrimaryOhms, Plate.SecondaryOhms, Plate.OhmsFactor, Copper.Known];

    public override double? TransformerVaOf(Device device) => device[Plate.Va];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [
            new("1", "~p", ElementRole.Link),
            new("3", "~s", ElementRole.Link),
            .. HasTap(device) ? [new Element("0", "~t", ElementRole.Link)] : Array.Empty<Element>(),
        ];

    private static readonly string[] Marked = ["1", "2", "3", "4", "0"];

    public override ImmutableArray<string> Terminals(Device device) => [.. Marked.Take(HasTap(device) ? 5 : 4).Select(device.Printed)];

    public override Device AsInstalled(Device device, Scatter scatter) =>
        scatter.Multiplied(
            scatter.Multiplied(device, Plate.OhmsFactor, Copper.Spread(device, Copper.OfTransformer)),
            Plate.SecondaryVolts,
            1.02
        );

    public override Device WithMoreCopper(Device device) =>
        device.With(Plate.OhmsFactor.Name, device[Plate.OhmsFactor] * Copper.Spread(device, Copper.OfTransformer));

    private static bool HasTap(Device device) => device[Plate.Tap] == "centre";
}
