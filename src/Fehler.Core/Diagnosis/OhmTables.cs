using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Tables of resistances of the healthy circuit by state; most hypotheses share a handful of states.
/// </summary>
/// <remarks>Safe for use by several threads at once.</remarks>
internal sealed class OhmTables(Network healthy, Network more) : IHoldsMemory
{
    /// <summary>A table holds a response of every node to a current into each: a few hundred kilobytes.</summary>
    private const long MostBytes = 16_000_000;

    private readonly BoundedMemory<(CircuitState State, bool UnderVoltage), OhmTable> _tables = new(MostBytes, t => t.Bytes);

    public Network Healthy { get; } = healthy;

    public long Bytes => _tables.Bytes;

    /// <summary>The table of a state. What an insulation tester finds does not depend on copper.</summary>
    public OhmTable Of(CircuitState state, bool underVoltage = false) =>
        _tables.GetOrAdd((state, underVoltage), key => new OhmTable(Healthy, key.State, key.UnderVoltage, key.UnderVoltage ? null : more));
}

/// <summary>Tables of resistances as one job sees them: with what was measured before of this very circuit.</summary>
internal sealed class OwnOhmTables(OhmTables shared)
{
    private ImmutableDictionary<(TerminalId From, TerminalId To), double> _own = ImmutableDictionary<
        (TerminalId From, TerminalId To),
        double
    >.Empty;

    /// <summary>
    /// By how much a resistance of this very circuit differs from the description's, where it has been measured before; null where it has
    /// not.
    /// </summary>
    public double? Own((TerminalId From, TerminalId To) pair) =>
        _own.TryGetValue(pair, out var factor) ? factor
        : _own.TryGetValue((pair.To, pair.From), out factor) ? factor
        : null;

    /// <summary>Takes over what good coils and windings of this circuit were measured at.</summary>
    public void Know(IEnumerable<KeyValuePair<string, double>> ohms, CircuitState dead)
    {
        var healthy = shared.Healthy;
        var measured = ohms.Select(o => (Pair: History.Pair(o.Key), Ohms: o.Value))
            .Where(o => healthy.Has(o.Pair.From) && healthy.Has(o.Pair.To))
            .Select(o => (o.Pair, Factor: o.Ohms / healthy.Ohms(dead, o.Pair.From, o.Pair.To).Value));
        // Far from the description it was not the coil by itself, or a fault.
        _own = measured.Where(m => m.Factor is > 0.6 and < 1.7).ToImmutableDictionary(m => m.Pair, m => m.Factor);
    }

    public OhmTable Of(CircuitState state, bool underVoltage = false) => shared.Of(state, underVoltage);
}
