using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Tables of resistances by state; most hypotheses share a handful of states. A list of pairs is known by being the same list.</summary>
internal interface IOhmTables
{
    OhmTable Of(CircuitState state, ImmutableArray<(TerminalId From, TerminalId To)> pairs);
}

internal sealed class OhmTables(Network healthy) : IOhmTables
{
    private const int MostKept = 200;

    private readonly ConcurrentDictionary<(CircuitState State, ImmutableArray<(TerminalId From, TerminalId To)> Pairs), OhmTable> _tables = new();

    public OhmTable Of(CircuitState state, ImmutableArray<(TerminalId From, TerminalId To)> pairs)
    {
        if (_tables.Count > MostKept)
        {
            _tables.Clear();
        }

        return pairs.Length == 1
            ? new OhmTable(healthy, state, pairs)
            : _tables.GetOrAdd((state, pairs), key => new OhmTable(healthy, key.State, key.Pairs));
    }
}
