namespace Fehler.Core.Circuits;

/// <summary>The dial of what protects a motor by the current it takes.</summary>
/// <param name="Amps">Where it stands.</param>
/// <param name="Element">The element that carries the current it is set for.</param>
/// <param name="Parameter">Name of the parameter that holds it.</param>
public sealed record Dial(Amps Amps, Element Element, string Parameter)
{
    /// <summary>How quickly it trips: its class, IEC 60947-4-1.</summary>
    public required double TripClass { get; init; }
}
