namespace Fehler.Core.Diagnosis;

/// <summary>
/// The same for each of many, at once, on the threads that the whole was given: whoever gives a diagnosis threads of its own decides how many
/// they are and what goes before them.
/// </summary>
internal static class AtOnce
{
    /// <summary>No scheduler named: that of the caller.</summary>
    private static readonly ParallelOptions Here = new() { TaskScheduler = null };

    public static void For(int count, Action<int> work) => Parallel.For(0, count, Here, work);

    public static void Each<T>(IEnumerable<T> items, Action<T> work) => Parallel.ForEach(items, Here, work);

    /// <summary>What comes of each, in their order.</summary>
    public static TResult[] Of<T, TResult>(IReadOnlyList<T> items, Func<T, TResult> work)
    {
        var made = new TResult[items.Count];
        For(items.Count, i => made[i] = work(items[i]));
        return made;
    }
}
