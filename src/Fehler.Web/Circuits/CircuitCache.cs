using System.Collections.Concurrent;
using Fehler.Core.Circuits;

namespace Fehler.Web.Circuits;

/// <summary>Circuits read from their versions; a version never changes, so neither does what is kept here.</summary>
internal sealed class CircuitCache
{
    private readonly ConcurrentDictionary<Guid, CompiledCircuit> _circuits = new();

    public CompiledCircuit Get(Guid version, string json) => _circuits.GetOrAdd(version, _ => CircuitFile.Read(json).Compile());
}
