using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>What was to be a circuit of its own has the designation of one that is in the register.</summary>
public sealed class DesignationTakenException : RefusedException
{
    public DesignationTakenException()
        : this("That designation is in the register already; give it another.") { }

    public DesignationTakenException(string message)
        : base(message) { }

    public DesignationTakenException(string message, Exception inner)
        : base(message, inner) { }

    internal static DesignationTakenException Of(string tag) => new($"{tag} is in the register already; give it another designation.");
}
