using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>Something in the database cannot be read any more; it is set aside, and the rest works. The message names it.</summary>
public sealed class SetAsideException : Exception
{
    public SetAsideException()
        : this("It cannot be read and was set aside.") { }

    public SetAsideException(string message)
        : base(message) { }

    public SetAsideException(string message, Exception inner)
        : base(message, inner) { }

    internal static SetAsideException Of(string what, Exception inner) =>
        new(
            $"{what} cannot be read and is set aside: {(inner is RefusedException ? inner.Message : "it is damaged")}. The rest "
                + "works; restore it from a backup.",
            inner
        );
}
