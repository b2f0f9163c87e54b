using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A link or bridge piece that is fitted or taken out by hand, over a remote station that is taken away for example: its Stop is
/// bridged then.
/// </summary>
internal sealed partial class Link : CompleteKind
{
    private const int Out = 0,
        Fitted = 1;

    /// <summary>What is printed on it, set or fitted.</summary>
    internal static class Plate
    {
        public static readonly WordSpec FoundIn = ParameterSpec.Word("foundIn", "How it normally is", "out", "out", "fitted") with
        {
            Group = PlateGroup.Expert,
        };
    }

    public override string Id => "link";
    public override Wording Name => "link";

    public override LadderShape LadderShapeOf(Element? element) => LadderShape.Blade;

    public override ImmutableArray<ParameterSpec> Parameters { get; } = [Plate.FoundIn];

    private protected override ImmutableArray<Element> OwnElements(Device device) => [new("1", "2", ElementRole.NormallyOpen)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Positions(Device device) => ["out", "fitted"];

    public override int InitialPosition(Device device) => device[Plate.FoundIn] == "fitted" ? Fitted : Out;

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("out", "Take the link out", false, DeadOnly: true), new("fitted", "Fit the link", false, DeadOnly: true)];

    public override ImmutableArray<Look> Looks(Device device) => [new("link", $"Link {device.Tag}", "out", "fitted")];
}
