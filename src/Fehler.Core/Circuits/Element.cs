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

    /// <summary>Its terminals as the kind calls them, whatever is printed on this device.</summary>
    public string OwnA { get; init; } = A;
    public string OwnB { get; init; } = B;

    /// <summary>A description lists it, with the names that are printed at it.</summary>
    public bool IsListed { get; init; }

    /// <summary>It acts after a delay.</summary>
    public bool IsDelayed { get; init; }

    /// <summary>Positions in which it is made, apart by spaces, where a description says so; empty for what follows from its role.</summary>
    public string MadeIn { get; init; } = "";

    /// <summary>
    /// A contact as a description lists it: its terminals, then what it does. Where that is left out it follows from the digits: the second
    /// one 1-2 opens, 3-4 closes, 5-6 and 7-8 the same after a delay (EN 50005, from memory).
    /// </summary>
    /// <param name="listed">For example <c>13-14</c>, <c>3-5 nc</c>, <c>7-8 no delayed</c>, <c>1-2 left right</c>.</param>
    public static Element FromContact(string listed)
    {
        var words = listed.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var ends = words[0].Split('-');
        var positions = string.Join(' ', words.Skip(1).Where(w => w is not ("no" or "nc" or "delayed")));
        var opens = words.Contains("nc") || (!words.Contains("no") && positions.Length == 0 && ends[1][^1] is '2' or '6');
        return new Element(ends[0], ends[1], opens ? ElementRole.NormallyClosed : ElementRole.NormallyOpen)
        {
            IsListed = true,
            IsDelayed = words.Contains("delayed") || (words.Length == 1 && ends[1][^1] is '6' or '8'),
            MadeIn = positions,
        };
    }

    /// <summary>The element with the names that are printed on a device.</summary>
    internal Element On(Device device) => IsListed ? this : this with { A = device.Printed(A), B = device.Printed(B) };

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
