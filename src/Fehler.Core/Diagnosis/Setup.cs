using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Diagnosis;

/// <summary>The state a reading is taken in: live or isolated, and what is held meanwhile.</summary>
/// <param name="Change">Steps that isolate or switch on, when that has to happen first.</param>
/// <param name="Held">Devices operated during the reading.</param>
/// <param name="Dead">The circuit is isolated during the reading.</param>
public sealed record Setup(SetupChange Change, ImmutableArray<Step> Held, bool Dead)
{

    /// <summary>Everything to do before the reading.</summary>
    public IEnumerable<Step> Steps(Circuit circuit) =>
        (Change == SetupChange.None ? [] : Change == SetupChange.Isolate ? Isolation.Of(circuit).Off : Isolation.Of(circuit).On).Concat(Held);

    public bool Equals(Setup? other) => other is not null && Change == other.Change && Dead == other.Dead && Held.SequenceEqual(other.Held);

    public override int GetHashCode() => HashCode.Combine(Change, Held.Length, Held.IsEmpty ? null : Held[0]);
}

public enum SetupChange
{
    /// <summary>The circuit stays as it is.</summary>
    None,

    /// <summary>It has to be isolated and proved dead first.</summary>
    Isolate,

    /// <summary>It has to be switched on first.</summary>
    Energise,
}
