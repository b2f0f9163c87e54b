using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>Which of the circuit's electrical worlds is solved.</summary>
public enum Domain
{
    /// <summary>Phasors at supply frequency.</summary>
    Ac,

    /// <summary>Direct-current control supplies; alternating ones are open.</summary>
    Dc,

    /// <summary>The ohmmeter's: supplies open, windings as their direct-current resistance.</summary>
    Ohms,
}
