namespace Fehler.Core.Jobs;

/// <summary>What is done to a panel for a time and has to be undone before it is handed back.</summary>
public enum MakeshiftKind
{
    /// <summary>A cover is off, a door is open that is closed in use.</summary>
    CoverOff,

    /// <summary>A wire bridges two points that belong apart.</summary>
    Bridge,

    /// <summary>A button or an armature is held by tape or a wedge.</summary>
    Taped,
}

/// <summary>Something was done to the panel for a time.</summary>
/// <param name="Kind">What.</param>
/// <param name="Where">Where, in words: "KM1 13-14", "door of the panel".</param>
public sealed record Makeshift(MakeshiftKind Kind, string Where) : JournalEntry
{
    /// <summary>
    /// Whether the circuit then is another one than it is drawn: what is measured, tried or seen meanwhile is kept, and is no evidence.
    /// </summary>
    public bool ChangesCircuit => Kind != MakeshiftKind.CoverOff;

    /// <summary>How it stands, as a short clause without a full stop.</summary>
    public string Stands =>
        Kind switch
        {
            MakeshiftKind.CoverOff => $"Cover off: {Where}",
            MakeshiftKind.Bridge => $"Bridge in: {Where}",
            _ => $"Held by tape or a wedge: {Where}",
        };

    /// <summary>Whether this entry undoes it.</summary>
    public bool IsUndoneBy(MakeshiftUndone undone) =>
        undone.Kind == Kind && string.Equals(undone.Where.Trim(), Where.Trim(), StringComparison.OrdinalIgnoreCase);
}

/// <summary>What was done for a time is undone.</summary>
public sealed record MakeshiftUndone(MakeshiftKind Kind, string Where) : JournalEntry;
