namespace Fehler.Data;

/// <summary>What taking a bundle in has added; all zero when everything was there already.</summary>
/// <param name="SetAside">What was not taken, each with its reason.</param>
public sealed record BundleResult(int Circuits, int Versions, int Jobs, int Entries, int BenchChecks, IReadOnlyList<string> SetAside);
