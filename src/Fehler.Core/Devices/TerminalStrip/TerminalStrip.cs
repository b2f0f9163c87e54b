using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Devices;

/// <summary>
/// A terminal strip. It has the clamps that conductors are landed on, no more; a clamp passes its wire through, and
/// its looseness is a fault of the conductor under it.
/// </summary>
internal sealed class TerminalStrip : CompleteKind
{
    public override string Id => "terminal-strip";
    public override Wording Name => "terminal strip";
    public override bool IsStrip => true;

    private protected override ImmutableArray<Element> OwnElements(Device device) => [];

    public override ImmutableArray<string> Terminals(Device device) => [];

    public override bool HasTerminal(Device device, string terminal) => true;
}
