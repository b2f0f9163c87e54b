using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>The removable link that earths one side of a control supply; without it the first earth fault is silent.</summary>
internal sealed partial class EarthLink : CompleteKind
{
    public override string Id => "earth-link";
    public override Wording Name => $"{Term.Earthing} link";

    private protected override ImmutableArray<Element> OwnElements(Device device) => [new("1", "2", ElementRole.Link)];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
}
