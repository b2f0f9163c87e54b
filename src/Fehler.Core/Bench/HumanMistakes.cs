using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Bench;

/// <summary>What is not as the journal says, now and then: leads elsewhere, a button not quite pressed, an entry forgotten.</summary>
/// <param name="circuit">The circuit.</param>
/// <param name="panel">The panel that is measured.</param>
/// <param name="options">How often, and the seed.</param>
internal sealed class HumanMistakes(Circuit circuit, SimulatedPanel panel, GuidedRunOptions options)
{
    private readonly Random _chance = new(options.Seed);

    /// <summary>How the next operation is not what the journal says; mostly it is.</summary>
    public Mistake Next() =>
        options.MistakenShare > 0 && _chance.NextDouble() < options.MistakenShare ? (Mistake)(1 + _chance.Next(3)) : Mistake.None;

    /// <summary>One of the things that changed is remembered as it was before.</summary>
    public ImmutableSortedDictionary<string, string> Misremembered(
        ImmutableSortedDictionary<string, string> before,
        ImmutableSortedDictionary<string, string> seen
    )
    {
        var changed = seen.Where(s => before.GetValueOrDefault(s.Key) != s.Value && before.ContainsKey(s.Key)).Select(s => s.Key).ToList();
        if (changed.Count == 0)
        {
            return seen;
        }

        var tag = changed[_chance.Next(changed.Count)];
        return seen.SetItem(tag, before[tag]);
    }

    /// <summary>What the meter shows; now and then that of another pair of points, of nothing, or ten times it.</summary>
    public ReadingValue Reading(Proposal proposal)
    {
        var value = panel.Measure(proposal.Quantity, proposal.From, proposal.To, proposal.Setup.Held);
        if (_chance.NextDouble() >= options.WrongShare)
        {
            return value;
        }

        return (_chance.Next(3), proposal.Quantity.IsLive(), value.Kind) switch
        {
            (0, true, _) or (1, _, ReadingKind.OverLimit) => ReadingValue.Of(0),
            (0, false, _) when value.Kind == ReadingKind.Number => new ReadingValue(ReadingKind.OverLimit),
            (1, _, ReadingKind.Number) => ReadingValue.Of(10 * value.Number),
            _ => Elsewhere(proposal),
        };
    }

    /// <summary>One lead on a neighbouring terminal.</summary>
    private ReadingValue Elsewhere(Proposal proposal)
    {
        var terminals = circuit
            .Device(proposal.From.Device)
            .Kind.Terminals(circuit.Device(proposal.From.Device))
            .Where(t => t != proposal.From.Name && proposal.From.Device + ":" + t != proposal.To.ToString())
            .ToList();
        var from =
            terminals.Count == 0 || proposal.From == proposal.To
                ? proposal.From
                : new TerminalId(proposal.From.Device, terminals[_chance.Next(terminals.Count)]);
        return panel.Measure(proposal.Quantity, from, proposal.To, proposal.Setup.Held);
    }
}

/// <summary>How an operation is not what the journal says.</summary>
internal enum Mistake
{
    None,
    NotQuitePressed,
    NotWrittenDown,
    Misremembered,
}
