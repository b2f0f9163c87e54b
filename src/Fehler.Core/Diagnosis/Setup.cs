using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>The state a reading is taken in: live or isolated, and what is held meanwhile.</summary>
/// <param name="Change">Steps that isolate or switch on, when that has to happen first.</param>
/// <param name="Held">Devices operated during the reading.</param>
/// <param name="Dead">The circuit is isolated during the reading.</param>
public sealed record Setup(SetupChange Change, ImmutableArray<Step> Held, bool Dead)
{
    /// <summary>Nothing is changed, nothing held.</summary>
    public static Setup AsItIs { get; } = new(SetupChange.None, [], false);

    /// <summary>
    /// Device off which every wire is lifted first, so that it and its cable are measured by themselves; none when empty.
    /// </summary>
    public string LiftedAt { get; init; } = "";

    /// <summary>The one conductor that is lifted first, so that what is on either side of it is measured by itself; none when null.</summary>
    public ConductorEnd? LiftedEnd { get; init; }

    /// <summary>Whether anything is lifted for it.</summary>
    public bool HasLifts => LiftedAt.Length > 0 || LiftedEnd is not null;

    /// <summary>The same with every wire on.</summary>
    public Setup WithWiresOn() => this with { LiftedAt = "", LiftedEnd = null };

    /// <summary>Conductors that are lifted for it, with the terminal each is lifted off. Protective conductors stay on.</summary>
    public IEnumerable<(Conductor Conductor, TerminalId End)> Lifts(Circuit circuit) =>
        LiftedEnd is { } one ? [(circuit.Conductors.First(c => c.Id == one.Conductor), one.End)]
        : LiftedAt.Length == 0 ? []
        : circuit
            .Conductors.Where(c => (c.From.Device == LiftedAt) != (c.To.Device == LiftedAt) && !circuit.IsProtective(c))
            .Select(c => (c, c.From.Device == LiftedAt ? c.From : c.To));

    /// <summary>Everything to do before the reading.</summary>
    public IEnumerable<Step> Steps(CompiledCircuit compiled) =>
        (
            Change == SetupChange.None ? []
            : Change == SetupChange.Isolate ? compiled.Isolation.Off
            : compiled.Isolation.On
        ).Concat(Held);

    public bool Equals(Setup? other) =>
        other is not null
        && Change == other.Change
        && Dead == other.Dead
        && LiftedAt == other.LiftedAt
        && LiftedEnd == other.LiftedEnd
        && Held.SequenceEqual(other.Held);

    public override int GetHashCode() => HashCode.Combine(Change, LiftedAt, LiftedEnd, Held.Length, Held.IsEmpty ? null : Held[0]);
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
