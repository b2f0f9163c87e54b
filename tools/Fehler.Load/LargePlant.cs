using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Fehler.Load;

/// <summary>The demo plant many times over, in its own database file: register, jobs without their journals, followed values, upkeep.</summary>
internal static class LargePlant
{
    private const long Second = 10_000_000;

    /// <summary>Copies circuits and jobs until there are so many.</summary>
    public static void Grow(string database, int circuits, int jobs)
    {
        using var sqlite = new SqliteConnection($"Data Source={database};Pooling=False");
        sqlite.Open();
        Do(sqlite, "PRAGMA foreign_keys = OFF; PRAGMA synchronous = OFF; BEGIN");
        var random = new Random(1);
        var known = Rows(sqlite, "SELECT * FROM Circuits");
        var copies = new List<(object Of, string Id)>();
        for (var round = 1; known.Count + copies.Count < circuits; round++)
        {
            foreach (var row in known)
            {
                var id = NewId(random);
                copies.Add((row["Id"]!, id));
                row.TryGetValue("Tag", out var tag);
                Insert(
                    sqlite,
                    "Circuits",
                    row,
                    new()
                    {
                        ["Id"] = id,
                        ["Tag"] = $"{tag}-{round}",
                        ["SearchText"] = $"{row["SearchText"]} {round}",
                        ["OpenJobId"] = null,
                    }
                );
            }
        }

        var byOriginal = copies.ToLookup(c => c.Of, c => c.Id);
        var closed = Rows(sqlite, "SELECT * FROM Jobs WHERE Exercise IS NULL AND ClosedAt IS NOT NULL");
        for (var made = 0; made < jobs; made++)
        {
            var row = closed[made % closed.Count];
            var mine = byOriginal[row["CircuitId"]!].ToList();
            var opened = Convert.ToInt64(row["OpenedAt"], CultureInfo.InvariantCulture) - random.NextInt64(0, 1_000_000_00 * Second / 100);
            Insert(
                sqlite,
                "Jobs",
                row,
                new()
                {
                    ["Id"] = NewId(random),
                    ["CircuitId"] = mine[random.Next(mine.Count)],
                    ["OpenedAt"] = opened,
                    ["ClosedAt"] = opened + random.Next(1000, 10_000) * Second,
                }
            );
        }

        Do(sqlite, "COMMIT");
    }

    private static string NewId(Random random)
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        return new Guid(bytes).ToString().ToUpperInvariant();
    }

    private static List<Dictionary<string, object?>> Rows(SqliteConnection sqlite, string sql)
    {
        using var command = sqlite.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var rows = new List<Dictionary<string, object?>>();
        while (reader.Read())
        {
            rows.Add(
                Enumerable.Range(0, reader.FieldCount).ToDictionary(reader.GetName, i => reader.IsDBNull(i) ? null : reader.GetValue(i))
            );
        }

        return rows;
    }

    private static void Insert(SqliteConnection sqlite, string table, Dictionary<string, object?> row, Dictionary<string, object?> changed)
    {
        using var command = sqlite.CreateCommand();
        var names = row.Keys.ToList();
        command.CommandText =
            $"INSERT INTO \"{table}\" ({string.Join(',', names.Select(n => $"\"{n}\""))}) VALUES "
            + $"({string.Join(',', names.Select((_, i) => $"$p{i}"))})";
        for (var i = 0; i < names.Count; i++)
        {
            command.Parameters.AddWithValue(
                $"$p{i}",
                (changed.TryGetValue(names[i], out var value) ? value : row[names[i]]) ?? DBNull.Value
            );
        }

        command.ExecuteNonQuery();
    }

    private static void Do(SqliteConnection sqlite, string sql)
    {
        using var command = sqlite.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
