namespace Fehler.Core.Circuits;

/// <summary>
/// What somebody gave cannot be taken; the message says why and what to do, in words for a person. Everything else that is thrown is a
/// mistake of the program.
/// </summary>
public class RefusedException : Exception
{
    public RefusedException()
        : this("This cannot be taken.") { }

    public RefusedException(string message)
        : base(message) { }

    public RefusedException(string message, Exception inner)
        : base(message, inner) { }
}
