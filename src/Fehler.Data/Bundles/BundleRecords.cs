using System.Text.Json;
using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>The files of a bundle, docs/formats/bundle.md.</summary>
internal sealed record BundleManifest(string Format, int Version);

internal sealed record BundledCircuit(Guid Id, string Tag, DateTimeOffset CreatedAt, List<BundledVersion> Versions);

internal sealed record BundledVersion(Guid Id, int Number, DateTimeOffset CreatedAt, JsonElement File);

internal sealed record BundledJob(
    Guid Id,
    Guid CircuitId,
    Guid CircuitVersionId,
    string Title,
    DateTimeOffset OpenedAt,
    List<JournalEntry> Journal
);

internal sealed record BundledBenchCheck(
    Guid Id,
    Guid CircuitId,
    Guid CircuitVersionId,
    DateTimeOffset At,
    string Who,
    int Passed,
    int Failed,
    JsonElement Items
);

/// <param name="Bytes">The picture as it is kept.</param>
internal sealed record BundledPhoto(Guid Id, Guid JobId, byte[] Bytes);

internal sealed record BundledRound(
    Guid Id,
    string CircuitTag,
    string? Rule,
    DateTimeOffset At,
    string? Who,
    string? Text,
    double Minutes,
    string? Working,
    List<JournalEntry>? Entries
);

internal sealed record BundledFollowUp(
    Guid Id,
    string CircuitTag,
    Guid? JobId,
    string? Text,
    DateOnly Due,
    string? Who,
    DateTimeOffset CreatedAt,
    DateTimeOffset? DoneAt,
    string? DoneBy
);
