namespace Fehler.Core.Diagnosis;

/// <summary>Ways of working; practitioners differ, the physics does not.</summary>
public enum Strategy
{
    /// <summary>Most information for the effort.</summary>
    MostTelling,

    /// <summary>From the supply down the path, in order.</summary>
    FromSupply,

    /// <summary>Isolate first, measure resistance.</summary>
    DeadFirst,

    /// <summary>The voltage to the return that halves what is still suspected, whatever it costs: the classical rule of thumb.</summary>
    Halving,
}
