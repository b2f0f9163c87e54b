using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>A reading of a journal with what it belongs to.</summary>
/// <param name="Circuit">Designation of the circuit.</param>
/// <param name="Job">The job.</param>
/// <param name="Title">Its title.</param>
/// <param name="Reading">The entry.</param>
/// <param name="IsStruck">It was struck out.</param>
public sealed record ReadingLine(string Circuit, Guid Job, string Title, Reading Reading, bool IsStruck);
