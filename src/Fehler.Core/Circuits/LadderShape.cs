using Fehler.Core.Devices;

namespace Fehler.Core.Circuits;

/// <summary>Shapes of the North American ladder (NEMA ICS 19, from memory) that kinds of device choose from.</summary>
public enum LadderShape
{
    /// <summary>Two bars; a stroke through them when it opens.</summary>
    Contact,

    /// <summary>A contact with the arrow of a delay.</summary>
    DelayedContact,

    /// <summary>A circle.</summary>
    Coil,

    /// <summary>A circle with rays.</summary>
    Lamp,

    /// <summary>Two points and a bar under a button.</summary>
    Button,

    /// <summary>A button with a mushroom head.</summary>
    MushroomButton,

    /// <summary>Two points and a blade with a handle.</summary>
    Selector,

    /// <summary>Two points and a blade that something moves.</summary>
    ProcessSwitch,

    Fuse,

    /// <summary>Two half circles: the heater of an overload relay.</summary>
    Heater,

    /// <summary>A blade that opens: a disconnect.</summary>
    Blade,

    /// <summary>An arc: a pole of a breaker.</summary>
    Breaker,

    /// <summary>Two windings and their iron.</summary>
    Windings,

    /// <summary>A box, with the kind's letters if it has any.</summary>
    Box,
}
