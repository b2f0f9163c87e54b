using System.Collections.Immutable;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Core.Bench;

/// <summary>How a guided run is made.</summary>
public sealed record GuidedRunOptions
{
    public Strategy Strategy { get; init; } = Strategy.MostTelling;

    /// <summary>Seed of the meter's scatter and of the mistakes.</summary>
    public int Seed { get; init; } = 1;

    /// <summary>The panel differs from its description as panels do.</summary>
    public bool Differs { get; init; }

    /// <summary>The fault is not there at first: it strikes while the machine runs.</summary>
    public bool StrikesWhileRunning { get; init; }

    /// <summary>
    /// Share of operations that are not what the journal says: a button not quite pressed, an entry forgotten, what was seen misremembered;
    /// 0 to 1.
    /// </summary>
    public double MistakenShare { get; init; }

    /// <summary>Somebody started it before anything was written down: the first entry is how it stands.</summary>
    public bool BeginsRunning { get; init; }

    /// <summary>What people told when the job was opened.</summary>
    public ImmutableArray<Told> Told { get; init; } = [];

    /// <summary>Share of readings that are simply wrong, 0 to 1.</summary>
    public double WrongShare { get; init; }
}
