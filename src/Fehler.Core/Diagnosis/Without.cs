namespace Fehler.Core.Diagnosis;

/// <summary>Tests that cannot be made now; they are not proposed until they can.</summary>
[Flags]
public enum Without
{
    None = 0,

    /// <summary>Isolated work only: no voltage, no current.</summary>
    Live = 1,

    /// <summary>The circuit cannot be switched off now.</summary>
    Isolating = 2,

    /// <summary>Nothing may be started or stopped.</summary>
    Operating = 4,

    /// <summary>Nobody can get to what is outside the panel.</summary>
    Field = 8,

    /// <summary>There is no clamp meter.</summary>
    Clamp = 16,

    /// <summary>No wire may be lifted.</summary>
    Lifting = 32,

    /// <summary>There is no insulation tester.</summary>
    InsulationTester = 64,
}
