using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>A journal entry as evidence.</summary>
/// <param name="entry">The entry.</param>
/// <param name="place">Number of the observation, from 0: where its judgement stands with each hypothesis.</param>
internal sealed class Observation(JournalEntry entry, int place)
{
    public JournalEntry Entry { get; } = entry;

    public int Place { get; } = place;

    /// <summary>How well a hypothesis fits it; null for one that was left behind.</summary>
    public double? FitOf(Hypothesis hypothesis) => Place < hypothesis.Judged.Count ? hypothesis.Judged[Place].Fit : null;

    /// <summary>It fits this hypothesis so badly that it would have been a mistake.</summary>
    public bool IsMistakeTo(Hypothesis hypothesis) => FitOf(hypothesis) < MistakenBelow;

    private const double MistakenBelow = 0.02;

    public Judgement By(Hypothesis hypothesis) => hypothesis.Judged[Place];

    public string What =>
        Entry switch
        {
            Reading { Quantity: Quantity.Amps or Quantity.StartingAmps } r => $"{Words.Of(r.Quantity)} at {r.From}{Words.WithHeld(r.Held)}",
            Reading { Quantity: Quantity.Insulation } r => $"Insulation of {r.From} to {r.To}",
            Tightened t => $"screw of {t.Terminal}",
            ConductorsCounted c => $"conductors under {c.Terminal}",
            Reading { FreeEnd.Length: > 0 } r => $"free end of {r.FreeEnd} to {r.To}{Words.WithHeld(r.Held)}",
            Reading { Alone: true } r => $"{r.From} to {r.To} by itself{Words.WithHeld(r.Held)}",
            Reading r => $"{r.From} to {r.To}{Words.WithHeld(r.Held)}",
            Told => "Told",
            LookSeen l => $"{l.Device} {l.Look}",
            OperationSeen { Steps.IsEmpty: true } => "As it stands",
            OperationSeen o => Words.Of(o.Steps),
            FunctionTested f => $"function test {f.Step}",
            _ => "",
        };

    public string Observed =>
        Entry switch
        {
            Reading r => ReadingText.Show(r.Value, r.Quantity),
            Told t => Circumstances.Of(t),
            LookSeen l => l.Answer,
            Tightened t => t.WasLoose ? "loose" : "tight",
            ConductorsCounted c => c.Found.ToString(System.Globalization.CultureInfo.InvariantCulture),
            OperationSeen o => Words.Of(o.Seen),
            FunctionTested f => Words.Of(f.Seen),
            _ => "",
        };
}
