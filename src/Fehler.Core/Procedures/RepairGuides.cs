using System.Collections.Concurrent;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Procedures;

/// <summary>The repair guides of a circuit, each written when it is first asked for.</summary>
public sealed class RepairGuides
{
    private readonly CompiledCircuit _compiled;
    private readonly ConcurrentDictionary<string, RepairGuide> _written = new();

    internal RepairGuides(CompiledCircuit compiled) => _compiled = compiled;

    /// <summary>The guide for a fault; of two faults at once, for the first.</summary>
    public RepairGuide Of(FaultMode fault)
    {
        var single = fault.Parts.IsEmpty ? fault : fault.Parts[0];
        return _written.GetOrAdd(single.Id, _ => RepairGuide.Written(_compiled, single));
    }
}
