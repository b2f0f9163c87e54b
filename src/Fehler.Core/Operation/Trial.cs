using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Operation;

/// <summary>Something that is kept up while a reading is taken, in words.</summary>
public sealed record Trial(string Label, ImmutableArray<Step> Steps)
{
    /// <summary>What can be held while a reading is taken.</summary>
    /// <param name="circuit">The circuit.</param>
    /// <param name="isDead">It is isolated and proved dead: armatures may be pressed in by hand.</param>
    public static IEnumerable<Trial> Holdable(Circuit circuit, bool isDead) =>
        circuit.Devices.SelectMany(d =>
            d.Kind.Actuations(d)
                .Where(a => a.Returns ? !a.DeadOnly || isDead : IsSetFor(d, a))
                .Select(a => new Step(d.Tag, a.Position))
                .Select(s => new Trial(Held(circuit, s), [s]))
        );

    /// <summary>
    /// A selector, a float, a limit that is put elsewhere for a reading and back after it: not what isolates, what trips and has to be reset, or
    /// what is hard on what runs.
    /// </summary>
    internal static bool IsSetFor(Device device, Actuation actuation) =>
        actuation is { Returns: false, IsHarsh: false, DeadOnly: false }
        && !device.Kind.Actuations(device).Any(a => a.Resets)
        && device.Kind.IsolatingPositions is null
        && !device.Kind.IsSupply
        && actuation.Position != device.Kind.Positions(device)[device.Kind.InitialPosition(device)];

    /// <summary>A step that is kept up during a reading, in words.</summary>
    public static string Held(Circuit circuit, Step step)
    {
        var device = circuit.Device(step.Device);
        var byHand = device.Kind.Actuations(device).FirstOrDefault(a => a.Position == step.Position)?.DeadOnly == true;
        return byHand && step.Position == "in" ? $"armature of {device.Tag} pressed in by hand" : $"{Named(device)} {step.Position}";
    }

    private static string Named(Device device) => $"{(device.Function.Length > 0 ? device.Function : device.Kind.Name)} {device.Tag}";
}
