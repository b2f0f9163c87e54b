using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>What the fault catalogue adds to a compiled circuit.</summary>
public static class FaultParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>Every fault mode of every device and conductor.</summary>
        public FaultCatalogue Faults => compiled.Part(static c => FaultCatalogue.Of(c.Circuit));
    }
}
