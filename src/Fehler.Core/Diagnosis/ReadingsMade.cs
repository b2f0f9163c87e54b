using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// Readings that have been made of the circuit as it is: since something was last repaired, with the same wires lifted and the same held.
/// None of them is asked for again, but for one that what was recorded since speaks against.
/// </summary>
internal sealed class ReadingsMade
{
    private readonly Circuit _circuit;
    private readonly ImmutableHashSet<ConductorEnd> _lifted;
    private readonly Dictionary<(TerminalId From, TerminalId To, string Held, Quantity Quantity, string Lifted), List<Reading>> _made = [];
    private readonly HashSet<(string, string, string Held, Quantity Quantity)> _unsure = [];

    public ReadingsMade(Circuit circuit, JobState job)
    {
        _circuit = circuit;
        _lifted = [];
        foreach (var entry in job.Valid)
        {
            switch (entry)
            {
                case Repair or Tightened:
                    _made.Clear();
                    break;
                case WireLifted lifted:
                    _lifted = _lifted.Add(new ConductorEnd(lifted.Conductor, lifted.End));
                    break;
                case WireLanded landed:
                    _lifted = [.. _lifted.Where(l => l.Conductor != landed.Conductor)];
                    break;
                case Reading { Value.Kind: ReadingKind.NotSure } unsure:
                    _unsure.Add(Wires(unsure.From, unsure.To, unsure.Held, unsure.Quantity));
                    Add(unsure);
                    break;
                case Reading reading:
                    Add(reading);
                    break;
            }
        }
    }

    /// <summary>Readings of the same points in the same state, whichever lead is where; the first one first.</summary>
    public IReadOnlyList<Reading> Of(Candidate candidate)
    {
        var (held, quantity) = (Held(candidate.Setup.Held, candidate.Quantity), Sort(candidate.Quantity));
        var lifted = Named(_lifted.Union(candidate.Setup.Lifts(_circuit).Select(l => l.Conductor.EndAt(l.End))));
        return [.. At(candidate.From, candidate.To), .. candidate.From == candidate.To ? [] : At(candidate.To, candidate.From)];

        List<Reading> At(TerminalId from, TerminalId to) => _made.GetValueOrDefault((from, to, held, quantity, lifted)) ?? [];
    }

    /// <summary>Who was not sure of two wires would not be at another of their terminals.</summary>
    public bool WasUnsureOf(Candidate candidate) =>
        _unsure.Contains(Wires(candidate.From, candidate.To, candidate.Setup.Held, candidate.Quantity));

    private void Add(Reading reading)
    {
        if (reading.FreeEnd.Length > 0)
        {
            return;
        }

        var alone = new Setup(SetupChange.None, [], true) { LiftedAt = reading.Alone ? reading.From.Device : "" };
        var lifted = Named(_lifted.Union(alone.Lifts(_circuit).Select(l => l.Conductor.EndAt(l.End))));
        var key = (reading.From, reading.To, Held(reading.Held, reading.Quantity), Sort(reading.Quantity), lifted);
        if (!_made.TryGetValue(key, out var same))
        {
            _made[key] = same = [];
        }

        same.Add(reading);
    }

    /// <summary>A wire that is off at its other end is another state: what leaks in it goes with it.</summary>
    private static string Named(IEnumerable<ConductorEnd> lifted) => string.Join('|', lifted.Select(l => $"{l.Conductor}@{l.End}").Order());

    /// <summary>A reading by its wires, whichever terminals of them the leads are on.</summary>
    private (string, string, string Held, Quantity Quantity) Wires(
        TerminalId from,
        TerminalId to,
        ImmutableArray<Step> held,
        Quantity quantity
    )
    {
        var (a, b) = (_circuit.WireAt(from), _circuit.WireAt(to));
        return (string.CompareOrdinal(a, b) <= 0 ? a : b, string.CompareOrdinal(a, b) <= 0 ? b : a, Held(held, quantity), Sort(quantity));
    }

    /// <summary>What is held meanwhile; a clamp shows the same of a motor that runs whether Start is still held or has been let go.</summary>
    private static string Held(ImmutableArray<Step> held, Quantity quantity) =>
        held.IsDefaultOrEmpty || quantity == Quantity.Amps ? "" : string.Join(", ", held);

    /// <summary>Ohms and the beep are one reading.</summary>
    private static Quantity Sort(Quantity quantity) => quantity == Quantity.Continuity ? Quantity.Ohms : quantity;
}
