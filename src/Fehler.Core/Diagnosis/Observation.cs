using System.Collections.Immutable;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>A journal entry as evidence: what each hypothesis foretold and how well it fits, hypothesis by hypothesis.</summary>
internal sealed class Observation(JournalEntry entry, int hypotheses)
{
    public JournalEntry Entry { get; } = entry;

    /// <summary>Likelihood by hypothesis.</summary>
    public double[] Fit { get; private set; } = new double[hypotheses];

    /// <summary>What each hypothesis foretold, in words.</summary>
    public string[] Foretold { get; private set; } = new string[hypotheses];

    /// <summary>What a healthy circuit would have shown.</summary>
    public string Healthy { get; set; } = "";

    /// <summary>How well a healthy circuit fits.</summary>
    public double HealthyFit { get; set; }

    /// <summary>Keeps the first <paramref name="count"/> hypotheses and puts those of another look at the same entry behind them.</summary>
    public void Extend(int count, Observation more)
    {
        Fit = [.. Fit.Take(count), .. more.Fit];
        Foretold = [.. Foretold.Take(count), .. more.Foretold];
    }

    public string What => Entry switch
    {
        Reading { Quantity: Quantity.Amps } r => $"Current at {r.From}{Words.WithHeld(r.Held)}",
        Reading r => $"{r.From} to {r.To}{Words.WithHeld(r.Held)}",
        LookSeen l => $"{l.Device} {l.Look}",
        OperationSeen o => Words.Of(o.Steps),
        FunctionTested f => $"function test {f.Step}",
        _ => "",
    };

    public string Observed => Entry switch
    {
        Reading r => r.Value.Show(r.Quantity),
        LookSeen l => l.Answer,
        OperationSeen o => Words.Of(o.Seen),
        FunctionTested f => Words.Of(f.Seen),
        _ => "",
    };
}
