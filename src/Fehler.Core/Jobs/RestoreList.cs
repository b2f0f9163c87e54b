using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>A thing to confirm before the circuit is handed back.</summary>
public sealed record RestoreItem(string Id, string Text);

/// <summary>What has to be put back after work in the panel (common practice).</summary>
public static class RestoreList
{
    public static ImmutableArray<RestoreItem> Of(Circuit circuit) =>
        [
            new("wires", "Every wire is back on its terminal and tight; count them against the drawing."),
            new("earth", "Protective conductors are connected and checked."),
            new("tools", "Tools and test leads are out of the panel."),
            new("covers", "Covers are on, and the button operators still reach their contacts with the covers on."),
            new("locks", "Personal locks are off, and everyone who worked here knows that it is switched on."),
        ];
}
