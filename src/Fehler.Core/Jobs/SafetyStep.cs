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
);

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
                [
                    $"Isolating devices of this circuit: {string.Join(", ", job.Compiled.Isolation.Points)}. What is above them "
                        + "stays live.",
                    ComesFirst,
                ],
                [
                    "The machine was stopped by its own Stop and stands still",
                    "Every isolating device named above is open",
                    "My own lock and tag are on",
                    "Stored energy is dealt with: load, fan, brake, capacitors",
                ],
                "It is isolated and locked"
            ),
            SafetyStep.ProveDead => new(
                step,
                "Prove dead at the point of work",
                ["An open protective conductor makes “dead to earth” worthless: test phase to phase too.", ComesFirst],
                [
                    "Voltage detector checked on a known source before",
                    "Dead phase to phase, to neutral and to earth, neutral to earth, and no foreign supply",
                    "Detector checked on the known source again after",
                ],
                "It is dead"
            ),
            _ => new(
                step,
                "Switch on again",
                job.Lifted.Count == 0 ? [ComesFirst] : [$"Still lifted: {string.Join(", ", job.Lifted.Keys)}.", ComesFirst],
                [
                    "Nobody is at the machine or in the panel",
                    "Test leads are off; covers are on where they can be",
                    .. job.Lifted.Count == 0
                        ? Array.Empty<string>()
                        :
                        [
                            $"The lifted ends of {string.Join(", ", job.Lifted.Keys)} are insulated, and it is meant to be tried without them",
                        ],
                    .. IsUnrepaired(job) ? ["What was found is repaired, or it is meant to be tried with it"] : Array.Empty<string>(),
                ],
                "It is switched on"
            ),
        };
}
