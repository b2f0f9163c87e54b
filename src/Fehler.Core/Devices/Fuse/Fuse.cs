using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>One fuse or a set of fuses in their holder. Position is a bit mask of the blown ones.</summary>
internal sealed partial class Fuse : CompleteKind
{
    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly NumberSpec Poles = ParameterSpec.Number("poles", "Number of fuses in the set", "", 1, 1, 4);
        public static readonly NumberSpec RatedAmps = ParameterSpec.Number("ratedAmps", "Rated current", "A", 6, 0.05, 1250);
        public static readonly WordSpec Indicator = ParameterSpec.Word("indicator", "Whether a blown fuse shows itself", "no", "yes", "no");
    }

    public override string Id => "fuse";
    public override Wording Name => "fuse";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Fuse;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.Poles, Plate.RatedAmps, Plate.Indicator];

    private protected override ImmutableArray<Element> OwnElements(Device device) =>
        [.. Enumerable.Range(0, (int)device[Plate.Poles]).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Link))];

    public override PoleRating? RatingOf(Device device) =>
        Elements(device).FirstOrDefault(e => e.Role == ElementRole.Link) is { } first
            ? new(new Amps(device[Plate.RatedAmps]), first, Duty.Fuses)
            : null;

    public override ImmutableArray<string> Positions(Device device) => ["sound"];

    public override ImmutableArray<Look> Looks(Device device) =>
        device[Plate.Indicator] == "yes" ? [new("indicator", $"Fuse indicators of {device.Tag}", "all sound", "blown")] : [];
}
