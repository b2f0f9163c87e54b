using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>A place where devices sit, and how far its cable runs from the panel.</summary>
/// <param name="Id">Short id used by devices, e.g. <c>panel</c>.</param>
/// <param name="Name">What people call it, e.g. "Infeed desk".</param>
/// <param name="Type">Enclosure, field station or motor.</param>
/// <param name="CableMetres">Length of the cable from the panel, metres; 0 for the panel itself.</param>
public sealed record Location(string Id, string Name, LocationType Type, double CableMetres)
{
    /// <summary>A wire inside a panel or a station: 0.3 to 1 m (common practice).</summary>
    private const double WithinMetres = 0.5;

    /// <summary>A cable whose length nobody states, m.</summary>
    private const double UnknownCableMetres = 5;

    /// <summary>Length of a wire from one place to another on the same way from the panel, or within one, metres.</summary>
    public static double MetresBetween(Location a, Location b) =>
        a.Id == b.Id ? WithinMetres : Cable(Math.Abs(a.CableMetres - b.CableMetres));

    /// <summary>Length of a wire from the panel to here, metres.</summary>
    public double MetresFromPanel => Cable(CableMetres);

    private static double Cable(double metres) => metres > 0 ? metres : UnknownCableMetres;
}

/// <summary>The sort of place; conductors and terminals in the field fail more often than in a panel (common practice).</summary>
public enum LocationType
{
    Enclosure,
    FieldStation,
    Motor,
}
