using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Fehler.Data;

/// <summary>A point in time as UTC ticks: a number that sorts.</summary>
internal sealed class UtcTicksConverter()
    : ValueConverter<DateTimeOffset, long>(time => time.UtcTicks, ticks => new DateTimeOffset(ticks, TimeSpan.Zero));
