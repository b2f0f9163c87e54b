namespace Fehler.Core.Circuits;

/// <summary>
/// A two-terminal piece of a device that current passes through: a contact, a pole, a coil, a winding's lead.
/// </summary>
/// <param name="Name">Its terminals as written, <c>13-14</c>.</param>
/// <param name="A">Terminal on the side the drawing enters by. Names that begin with <c>~</c> are inside the device.</param>
/// <param name="B">The other terminal.</param>
/// <param name="Role">What it is.</param>
public sealed record Element(string A, string B, ElementRole Role)
{
    public string Name => $"{A}-{B}";

    /// <summary>A contact or pole, closed or open; anything else conducts by its own law.</summary>
    public bool IsContact => Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed or ElementRole.Pole;
}

public enum ElementRole
{
    /// <summary>Auxiliary or button contact, open at rest.</summary>
    NormallyOpen,

    /// <summary>Auxiliary or button contact, closed at rest.</summary>
    NormallyClosed,

    /// <summary>A main contact of a contactor, isolator or breaker; open when out or off.</summary>
    Pole,

    /// <summary>A fuse link, an overload heater, the lead of a winding: conducts unless faulty or blown.</summary>
    Link,

    /// <summary>Coil or lamp: the part the path exists for.</summary>
    Load,

    /// <summary>A supply phase.</summary>
    Source,
}
