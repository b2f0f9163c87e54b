using System.Collections.Concurrent;

namespace Fehler.Data;

/// <summary>
/// One after the other for the same key: entries of one job, imports of one circuit. Different keys do not wait for each other.
/// </summary>
public sealed class Turns
{
    private readonly ConcurrentDictionary<string, Turn> _turns = new();

    public async Task<T> InTurnAsync<T>(string key, Func<Task<T>> work, CancellationToken cancellation)
    {
        var turn = Enter(key);
        try
        {
            await turn.Gate.WaitAsync(cancellation);
            try
            {
                return await work();
            }
            finally
            {
                turn.Gate.Release();
            }
        }
        finally
        {
            Leave(key, turn);
        }
    }

    private Turn Enter(string key)
    {
        while (true)
        {
            var turn = _turns.GetOrAdd(key, _ => new Turn());
            lock (turn)
            {
                if (turn.Users >= 0)
                {
                    turn.Users++;
                    return turn;
                }
            }
        }
    }

    private void Leave(string key, Turn turn)
    {
        lock (turn)
        {
            if (--turn.Users == 0)
            {
                turn.Users = -1;
                _turns.TryRemove(key, out _);
                turn.Gate.Dispose();
            }
        }
    }

    private sealed class Turn
    {
        public SemaphoreSlim Gate { get; } = new(1, 1);

        /// <summary>Who is in or waits; below 0 once it has been given up.</summary>
        public int Users { get; set; }
    }
}
