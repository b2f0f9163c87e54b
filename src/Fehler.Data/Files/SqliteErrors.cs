using Microsoft.Data.Sqlite;

namespace Fehler.Data;

/// <summary>What SQLite said, below whatever wraps it.</summary>
public static class SqliteErrors
{
    /// <summary>The exception of SQLite in a chain of them; null when it said nothing.</summary>
    public static SqliteException? Of(Exception? e) =>
        e switch
        {
            null => null,
            SqliteException sqlite => sqlite,
            _ => Of(e.InnerException),
        };
}
