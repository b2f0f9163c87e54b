using System.Diagnostics.CodeAnalysis;

namespace Fehler.Core.Circuits;

/// <summary>
/// A circuit description that cannot be used: where it is wrong, what is wrong, and what was expected.
/// </summary>
public sealed class CircuitException : RefusedException
{
    /// <summary>What is quoted from a file may be as long as the file; a sentence that says what is wrong with it is not.</summary>
    private const int LongestSentence = 400;

    public CircuitException(string path, string message)
        : base($"{Short(path)}: {Short(message)}")
    {
        Path = Short(path);
        Problem = Short(message);
    }

    public CircuitException()
        : this("$", "The circuit description cannot be used.") { }

    public CircuitException(string message)
        : this("$", message) { }

    public CircuitException(string message, Exception inner)
        : base(message, inner) => Problem = message;

    /// <summary>JSON path of the place, or "line n" for text that is not JSON.</summary>
    public string Path { get; } = "$";

    /// <summary>What is wrong and what was expected, one sentence each.</summary>
    public string Problem { get; }

    private static string Short(string text) =>
        text.Length <= LongestSentence ? text : $"{text[..(LongestSentence / 2)]} … {text[^(LongestSentence / 2)..]}";

    /// <summary>Refuses what does not hold.</summary>
    /// <param name="condition">What must hold.</param>
    /// <param name="at">Place in the file.</param>
    /// <param name="message">What is wrong there and what would be right.</param>
    /// <exception cref="CircuitException">It does not hold.</exception>
    internal static void Require([DoesNotReturnIf(false)] bool condition, string at, string message)
    {
        if (!condition)
        {
            throw new CircuitException(at, message);
        }
    }
}
