using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>What the physics adds to a compiled circuit.</summary>
public static class ElectricalParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>The healthy circuit as nodes and branches.</summary>
        public Network Network => compiled.Part(static c => Network.Of(c.Circuit));
    }
}
