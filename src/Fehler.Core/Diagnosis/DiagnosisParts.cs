using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Diagnosis;

/// <summary>What the diagnosis adds to a compiled circuit.</summary>
internal static class DiagnosisParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>Where leads are worth putting.</summary>
        public TestPoints TestPoints => compiled.Part(static c => new TestPoints(c));

        /// <summary>Every suspect as it is found before anything is recorded.</summary>
        public StartingHypotheses StartingHypotheses => compiled.Part(static c => new StartingHypotheses(c));

        /// <summary>Resistances of the healthy circuit, by state and pairs of points.</summary>
        public OhmTables OhmTables => compiled.Part(static c => new OhmTables(c.Network, c.MoreCopper));
    }
}
