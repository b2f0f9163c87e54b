namespace Fehler.Core.Circuits;

/// <summary>Something a person can do to a device.</summary>
/// <param name="Position">Name of the position it brings the device to, e.g. <c>pressed</c>.</param>
/// <param name="Verb">What the person does, e.g. "Press and hold".</param>
/// <param name="Returns">It goes back by itself when let go.</param>
/// <param name="DeadOnly">Only on an isolated circuit.</param>
/// <param name="Resets">Brings back what operated by itself (a tripped overload), for another try.</param>
public sealed record Actuation(string Position, string Verb, bool Returns, bool DeadOnly = false, bool Resets = false)
{
    /// <summary>With the cover off, past the operator that usually does it (a contact block pressed with a finger).</summary>
    public bool IsPastOperator { get; init; }

    /// <summary>Hard on what runs (a phase taken away): only done to try what watches for it, and with everything at rest.</summary>
    public bool IsHarsh { get; init; }
}
