using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Drawing;

/// <summary>A circuit laid out.</summary>
internal sealed record DrawnCircuit(ImmutableArray<DrawingSheet> Sheets);

/// <summary>What the drawing adds to a compiled circuit.</summary>
public static class DrawnParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>Its drawing, power before control.</summary>
        public ImmutableArray<DrawingSheet> Sheets => compiled.Part(static c => new DrawnCircuit(DrawingLayout.Of(c.Circuit))).Sheets;
    }
}
