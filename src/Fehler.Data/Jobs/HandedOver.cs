using System.Collections.Immutable;

namespace Fehler.Data;

/// <summary>How a circuit was left to somebody else.</summary>
/// <param name="Job">The job that was handed over.</param>
/// <param name="Who">Who handed it over.</param>
/// <param name="At">When.</param>
/// <param name="Text">To whom and why.</param>
/// <param name="Leftovers">What was left behind, a sentence each.</param>
public sealed record HandedOver(Guid Job, string Who, DateTimeOffset At, string Text, ImmutableArray<string> Leftovers);
