using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>A place where devices sit, and how far its cable runs from the panel.</summary>
/// <param name="Id">Short id used by devices, e.g. <c>panel</c>.</param>
/// <param name="Name">What people call it, e.g. "Infeed desk".</param>
/// <param name="Type">Enclosure, field station or motor.</param>
/// <param name="CableMetres">Length of the cable from the panel, metres; 0 for the panel itself.</param>
public sealed record Location(string Id, string Name, LocationType Type, double CableMetres);

/// <summary>The sort of place; conductors and terminals in the field fail more often than in a panel (common practice).</summary>
public enum LocationType
{
    Enclosure,
    FieldStation,
    Motor,
}
