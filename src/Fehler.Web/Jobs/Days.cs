using System.Globalization;
using Fehler.Core.Circuits;

namespace Fehler.Web.Jobs;

/// <summary>Days as they stand in an address.</summary>
internal static class Days
{
    /// <summary>A day like 2026-11-26; null for none.</summary>
    /// <exception cref="RefusedException">It is no day.</exception>
    public static DateOnly? Read(string? day) =>
        string.IsNullOrEmpty(day) ? null
        : DateOnly.TryParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var known) ? known
        : throw new RefusedException("Write a day as 2026-11-26.");
}
