using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Operation;

/// <summary>What can be asked of a circuit: which steps it knows, and how many and how long at a time.</summary>
public static class StepRules
{
    /// <summary>Most steps of one operation, and the longest it may take, s: nobody watches a starter for longer than a week.</summary>
    public const int MostSteps = 200;
    public const double LongestWait = 86_400,
        LongestInAll = 7 * 86_400;

    /// <summary>
    /// The step that lets go of what the last of these holds; null when that goes on by itself, stays where it was put, or nothing was done.
    /// </summary>
    public static Step? Released(Circuit circuit, ImmutableArray<Step> steps) =>
        !steps.IsEmpty
        && circuit.FindDevice(steps[^1].Device) is { } device
        && device.Kind.Actuations(device).Any(a => a.Returns && a.Position == steps[^1].Position)
            ? Rested(circuit, steps[^1])
            : null;

    /// <summary>The step that puts a device back where it stands at rest.</summary>
    public static Step Rested(Circuit circuit, Step step)
    {
        var device = circuit.Device(step.Device);
        return step with { Position = device.Kind.Positions(device)[device.Kind.InitialPosition(device)] };
    }

    /// <summary>
    /// The step after a reading that ends what was kept up for it: a button is let go, a switch or a float put back where it stood before.
    /// </summary>
    public static Step PutBack(Circuit circuit, CircuitState before, Step kept) =>
        kept.Device.Length == 0 ? kept
        : Stays(circuit, kept) ? kept with { Position = before.PositionOf(circuit, circuit.Device(kept.Device)) }
        : Rested(circuit, kept);

    /// <summary>It stays where it was put when the hand is taken off: a selector, a float, an emergency stop; not a reset.</summary>
    public static bool Stays(Circuit circuit, Step step) =>
        circuit.FindDevice(step.Device) is { } device
        && device.Kind.Actuations(device).Any(a => a is { Returns: false, Resets: false } && a.Position == step.Position);

    /// <summary>It brings back what operated by itself: a tripped overload, a blown fuse.</summary>
    public static bool IsReset(Circuit circuit, Step step) =>
        circuit.FindDevice(step.Device) is { } device && device.Kind.Actuations(device).Any(a => a.Resets && a.Position == step.Position);

    /// <summary>The test trip of each device that trips and has one.</summary>
    public static IEnumerable<Step> TestTrips(Circuit circuit) =>
        circuit.Devices.SelectMany(d => d.Kind.Actuations(d).Where(a => a.Position == Tripped).Select(a => new Step(d.Tag, a.Position)));

    private const string Tripped = "tripped";

    /// <summary>Why the circuit cannot do this step, in words that say what to do; null when it can.</summary>
    public static string? Refuse(Circuit circuit, Step? step)
    {
        if (step?.Device is null || step.Position is null)
        {
            return "A step names a device and its position, or only seconds to wait.";
        }

        if (step.Device.Length == 0)
        {
            return step.Position.Length == 0 && step.Seconds is > 0 and <= LongestWait
                ? null
                : "Waiting takes more than 0 s and at most a day.";
        }

        if (circuit.FindDevice(step.Device) is not { } device)
        {
            return $"The circuit has no device {Short(step.Device)}.";
        }

        var positions = device.Kind.Positions(device);
        return positions.Contains(step.Position)
            ? null
            : $"{step.Device} has no position '{Short(step.Position)}'; it has: {string.Join(", ", positions)}.";
    }

    /// <summary>The same for several steps in a row.</summary>
    public static string? Refuse(Circuit circuit, IReadOnlyCollection<Step> steps) =>
        steps.Count > MostSteps
            ? $"{steps.Count} steps are too many at once; at most {MostSteps} are taken."
            : steps.Select(s => Refuse(circuit, s)).FirstOrDefault(r => r is not null)
                ?? (steps.Sum(s => s.Seconds) > LongestInAll ? "Waiting takes at most a week in all." : null);

    /// <exception cref="RefusedException">The circuit cannot do them; says which and why.</exception>
    public static void Require(Circuit circuit, IReadOnlyCollection<Step> steps)
    {
        if (Refuse(circuit, steps) is { } reason)
        {
            throw new RefusedException(reason);
        }
    }

    private static string Short(string text) => text.Length > CircuitLimits.Name ? text[..CircuitLimits.Name] + "..." : text;
}
