using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>A circuit of the register with its newest version.</summary>
public sealed record FoundCircuit(CircuitRow Row, Guid VersionId, int Number, CompiledCircuit Compiled)
{
    public Circuit Circuit => Compiled.Circuit;
}
