using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>What changes whether a circuit may be touched.</summary>
public enum SafetyStep
{
    /// <summary>Working on the live circuit is agreed to.</summary>
    LiveTests,

    /// <summary>The isolating devices are opened and locked.</summary>
    Isolate,

    /// <summary>Absence of voltage is proved at the point of work.</summary>
    ProveDead,

    /// <summary>The circuit is switched on again.</summary>
    SwitchOn,
}

/// <summary>A safety step as it is asked for.</summary>
/// <param name="Step">Which.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Notes">What to know before it.</param>
/// <param name="Checklist">What has to be so; each is confirmed by itself.</param>
/// <param name="Confirm">What a person says when it is done.</param>
public sealed record SafetyProcedure(
    SafetyStep Step,
    string Title,
    ImmutableArray<string> Notes,
    ImmutableArray<string> Checklist,
    string Confirm
)
{
    /// <summary>What is measured for it, each pair of points with its reading; empty for a step that rests on no reading.</summary>
    public ImmutableArray<ProvingPoint> Table { get; init; } = [];
}

/// <summary>
/// What has to come first before a circuit is measured or touched, and what can be done now: the one place where this is decided. Common
/// practice; local codes, site rules and licensed practice come first.
/// </summary>
public static class SafetyRules
{
    /// <summary>What has to come first before this is measured; null when nothing.</summary>
    public static SafetyStep? Before(JobState job, Quantity quantity) => quantity.IsLive() ? BeforeLive(job) : BeforeDead(job);

    /// <summary>What has to come first before anything is done on the dead circuit.</summary>
    public static SafetyStep? BeforeDead(JobState job) =>
        job.Liveness switch
        {
            Liveness.ProvedDead => null,
            Liveness.IsolatedNotProved => SafetyStep.ProveDead,
            _ => SafetyStep.Isolate,
        };

    /// <summary>
    /// Why work is done without isolating where it is (common practice); anything else can be said as well. Nothing to ask once it is proved
    /// dead.
    /// </summary>
    public static ImmutableArray<string> RepairedLive(JobState job) =>
        BeforeDead(job) is null
            ? []
            :
            [
                "A setting or a reset from outside",
                "A switch or a valve was put where it belongs",
                "The supply was put right elsewhere",
                "It was isolated and proved dead, and nobody recorded that",
            ];

    /// <summary>What has to come first before the live circuit is measured or operated.</summary>
    public static SafetyStep? BeforeLive(JobState job) => job.IsIsolated || job.LiveAcknowledged ? null : SafetyStep.LiveTests;

    /// <summary>What can be done now, in the order in which it is usually done.</summary>
    public static IEnumerable<SafetyProcedure> Possible(JobState job)
    {
        if (job.Closing is not null)
        {
            yield break;
        }

        if (!job.IsIsolated)
        {
            if (!job.LiveAcknowledged)
            {
                yield return Of(job, SafetyStep.LiveTests);
            }

            yield return Of(job, SafetyStep.Isolate);
            yield break;
        }

        if (job.Liveness == Liveness.IsolatedNotProved)
        {
            yield return Of(job, SafetyStep.ProveDead);
        }

        yield return Of(job, SafetyStep.SwitchOn);
    }

    /// <summary>Something was found, and nothing was repaired since.</summary>
    private static bool IsUnrepaired(JobState job) =>
        job.Valid.Reverse().FirstOrDefault(e => e is Finding or Repair) is Finding { Unit.Length: > 0 };

    private static string Named(Circuit circuit, string tag) =>
        circuit.Device(tag) is { Function.Length: > 0 } device ? $"{tag} ({device.Function})" : tag;

    /// <summary>What keeps its position while the supply is away starts again with it.</summary>
    private static IEnumerable<string> StandsAgain(JobState job) =>
        job
            .Circuit.Devices.Where(d => d.Kind.KeepsPosition)
            .Select(d =>
                $"{d.Tag} keeps its position while the supply is away: stopped by its own button first, or it starts again when the "
                + $"supply comes back."
            );

    /// <summary>Points by device that have voltage with every isolating device open, those of a second supply included.</summary>
    private static string StaysLive(JobState job)
    {
        var live = job
            .Compiled.Isolation.LiveTerminals.Where(t => !job.Circuit.Device(t.Device).Kind.IsStrip)
            .GroupBy(t => t.Device, StringComparer.Ordinal)
            .OrderBy(g => g.Key, StringComparer.Ordinal)
            .Select(g => $"{g.Key} {string.Join(", ", g.Select(t => t.Name).Order(StringComparer.Ordinal))}")
            .ToList();
        return live.Count == 0
            ? "What is above the isolating devices stays live."
            : $"Stays live all the same: {string.Join("; ", live)}. A wire of another supply may pass through the panel: look for it.";
    }

    private const string ComesFirst = "Local codes, site rules and licensed practice come first.";

    private static SafetyProcedure Of(JobState job, SafetyStep step) =>
        step switch
        {
            SafetyStep.LiveTests => new(
                step,
                "Live tests",
                [ComesFirst],
                [
                    "I am authorised for live testing here, and local rules allow it",
                    "Insulated probes, eye protection, no loose metal; the motor may start",
                ],
                "I work live"
            ),
            SafetyStep.Isolate => new(
                step,
                "Isolate and lock off",
                [StaysLive(job), .. StandsAgain(job), ComesFirst],
                [
                    "The machine was stopped by its own Stop and stands still",
                    .. job.Compiled.Isolation.Points.Select(p => $"{Named(job.Circuit, p)} is open; my own lock and tag are on it"),
                    "Stored energy is dealt with: load, fan, brake, capacitors",
                ],
                "It is isolated and locked"
            ),
            SafetyStep.ProveDead => new(
                step,
                "Prove dead at the point of work",
                ["Measure with a two-pole tester where you have one: it settles what only leaks in.", ComesFirst],
                ["Voltage detector checked on a known source before", "Detector checked on the known source again after"],
                "It is dead"
            )
            {
                Table = job.Compiled.AbsenceOfVoltage.Points,
            },
            _ => new(
                step,
                "Switch on again",
                job.Lifted.Count == 0 ? [ComesFirst] : [$"Still lifted: {string.Join(", ", job.Lifted.Keys)}.", ComesFirst],
                [
                    "Nobody is at the machine or in the panel, and everyone there has been told",
                    "Test leads, bridges and tools are out; fuses are in; covers are on where they can be",
                    "My own lock is off, and nobody else's hangs there",
                    .. job.Lifted.Count == 0
                        ? Array.Empty<string>()
                        :
                        [
                            $"The lifted ends of {string.Join(", ", job.Lifted.Keys)} are insulated, and it is meant to be tried without them",
                        ],
                    .. job.Makeshifts.Where(m => m.ChangesCircuit).Select(m => $"{m.Stands}: it is meant to be tried with that"),
                    .. IsUnrepaired(job) ? ["What was found is repaired, or it is meant to be tried with it"] : Array.Empty<string>(),
                ],
                "It is switched on"
            ),
        };
}
