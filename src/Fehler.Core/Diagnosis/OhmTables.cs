using System.Collections.Concurrent;
using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Tables of resistances by state; most hypotheses share a handful of states. A list of pairs is known by being the same list.</summary>
internal interface IOhmTables
{
    OhmTable Of(CircuitState state, ImmutableArray<(TerminalId From, TerminalId To)> pairs, bool underVoltage = false);

    /// <summary>By how much a resistance of this very circuit differs from the description's, where it has been measured before; null where it has not.</summary>
    double? Own((TerminalId From, TerminalId To) pair);
}

internal sealed class OhmTables(Network healthy) : IOhmTables
{
    private const int MostKept = 200;

    private readonly ConcurrentDictionary<(CircuitState State, ImmutableArray<(TerminalId From, TerminalId To)> Pairs, bool UnderVoltage), OhmTable> _tables = new();

    private ImmutableDictionary<(TerminalId From, TerminalId To), double> _own = ImmutableDictionary<(TerminalId From, TerminalId To), double>.Empty;

    public double? Own((TerminalId From, TerminalId To) pair) => _own.TryGetValue(pair, out var factor) ? factor : _own.TryGetValue((pair.To, pair.From), out factor) ? factor : null;

    /// <summary>Takes over what good coils and windings of this circuit were measured at.</summary>
    public void Know(IEnumerable<KeyValuePair<string, double>> ohms, CircuitState dead)
    {
        var measured = ohms.Select(o => (Pair: History.Pair(o.Key), Ohms: o.Value)).Where(o => healthy.Has(o.Pair.From) && healthy.Has(o.Pair.To))
            .Select(o => (o.Pair, Factor: o.Ohms / healthy.Ohms(dead, o.Pair.From, o.Pair.To)));
        // Far from the description it was not the coil by itself, or a fault.
        _own = measured.Where(m => m.Factor is > 0.6 and < 1.7).ToImmutableDictionary(m => m.Pair, m => m.Factor);
    }

    public OhmTable Of(CircuitState state, ImmutableArray<(TerminalId From, TerminalId To)> pairs, bool underVoltage = false)
    {
        if (_tables.Count > MostKept)
        {
            _tables.Clear();
        }

        return pairs.Length == 1
            ? new OhmTable(healthy, state, pairs, underVoltage)
            : _tables.GetOrAdd((state, pairs, underVoltage), key => new OhmTable(healthy, key.State, key.Pairs, key.UnderVoltage));
    }
}
