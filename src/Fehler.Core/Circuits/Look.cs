namespace Fehler.Core.Circuits;

/// <summary>Something that can be seen on a device with hands out of the panel.</summary>
/// <param name="Id">Short name within the device, e.g. <c>flag</c>.</param>
/// <param name="Question">What to look at.</param>
/// <param name="Answers">What may be seen, at least two.</param>
public sealed record Look(string Id, string Question, params string[] Answers)
{
    /// <summary>Hands or eyes go where it is only safe on an isolated circuit.</summary>
    public bool DeadOnly { get; init; }

    /// <summary>
    /// Position that it is pressed to by hand, with the supply isolated; empty where nothing is touched. The first answer is that it goes there
    /// and comes back, the second that it does not go, the third that it is there and stays.
    /// </summary>
    public string PressedTo { get; init; } = "";

    /// <summary>Resetting the device wipes what is seen here.</summary>
    public bool WipedByReset { get; init; }

    /// <summary>Goes by the voltages and currents at the moment, not by where the mechanism stands; only with the supply on.</summary>
    public bool Measured { get; init; }

    /// <summary>Effort, minutes.</summary>
    public double Minutes { get; init; } = 0.3;
}
