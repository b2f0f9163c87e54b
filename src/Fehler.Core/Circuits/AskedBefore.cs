using Fehler.Core.Jobs;

namespace Fehler.Core.Circuits;

/// <summary>
/// Whether something has been asked for before, without keeping what it was: what is asked for once only is not worth remembering. Now and
/// then it says yes too early, which costs nothing but a little memory.
/// </summary>
/// <remarks>A bit for each hash, cleared when a quarter are set. Safe for use by several threads at once.</remarks>
internal sealed class AskedBefore
{
    private const int Bits = 1 << 16;

    private readonly int[] _bits = new int[Bits / 32];
    private int _set;

    /// <summary>Notes the question, and says whether it has been noted before.</summary>
    public bool Note(int hash)
    {
        var (word, bit) = ((hash & (Bits - 1)) >> 5, 1 << (hash & 31));
        if ((Interlocked.Or(ref _bits[word], bit) & bit) != 0)
        {
            return true;
        }

        if (Interlocked.Increment(ref _set) > Bits / 4)
        {
            Array.Clear(_bits);
            Interlocked.Exchange(ref _set, 0);
        }

        return false;
    }
}
