using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Bench;

/// <summary>A lesson of the practice path: a kind of fault, and what to notice when it is searched.</summary>
/// <param name="Id">Stable name; also the code by which everybody gets the same fault.</param>
/// <param name="Title">What it is about.</param>
/// <param name="Notice">What to notice.</param>
/// <param name="Difficulty">What kind of exercise it is.</param>
public sealed record Lesson(string Id, string Title, string Notice, Difficulty Difficulty)
{
    /// <summary>Whether a fault of a circuit is one that this lesson is about.</summary>
    internal Func<Circuit, FaultMode, bool> IsAbout { get; init; } = (_, _) => true;

    /// <summary>In the order of the work: from the supply to what is behind it.</summary>
    public static ImmutableArray<Lesson> Path { get; } =
    [
        new(
            "supply",
            "Supply first",
            "Phase to phase, then across each fuse: a blown one shows the volts that are missing behind it.",
            Difficulty.Supply
        )
        {
            IsAbout = (circuit, fault) => DeviceOf(circuit, fault)?.Kind.RatingOf(DeviceOf(circuit, fault)!)?.Duty == Duty.Fuses,
        },
        new(
            "control-path",
            "The control path",
            "One lead on the return, the other walked along the path: the fault lies between the last full reading and the first without.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) =>
                IsContact(circuit, fault, ElementRole.NormallyClosed, isCoil: false)
                && fault.Kind.EndsWith("-open", StringComparison.Ordinal),
        },
        new(
            "retaining",
            "Runs only while Start is held",
            "The coil and everything before it are good: only what keeps it in is left.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) =>
                IsContact(circuit, fault, ElementRole.NormallyOpen, isCoil: true) && fault.Kind.EndsWith("-open", StringComparison.Ordinal),
        },
        new(
            "interlock",
            "One direction only",
            "What both directions share is good; the other contactor's break contact stands in this one's way.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) =>
                IsContact(circuit, fault, ElementRole.NormallyClosed, isCoil: true)
                && fault.Kind.EndsWith("-open", StringComparison.Ordinal),
        },
        new(
            "stations",
            "Several stations",
            "Stops stand one after the other, starts beside each other: which station fails says where to look.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) =>
                circuit.Locations.Count(l => l.Type == LocationType.FieldStation) > 1
                && circuit.FindDevice(fault.Unit) is { } device
                && circuit.Location(device.Location).Type == LocationType.FieldStation
                && fault.Kind.EndsWith("-open", StringComparison.Ordinal),
        },
        new(
            "one-phase-lost",
            "Hums and trips",
            "A clamp first: the line that draws nothing is open, and the overload that tripped is only a consequence.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) =>
                fault.Kind.EndsWith("-open", StringComparison.Ordinal)
                && (
                    circuit.FindDevice(fault.Unit)?.Kind.PlateOf(circuit.FindDevice(fault.Unit)!) is not null
                    || IsContact(circuit, fault, ElementRole.Pole, isCoil: true)
                ),
        },
        new(
            "coil",
            "A coil that does not pull in",
            "Full volts across it and nothing moves: the coil. No volts: look before it. A coil is a value, never a beep.",
            Difficulty.Single
        )
        {
            IsAbout = (circuit, fault) => IsContact(circuit, fault, ElementRole.Load, isCoil: true),
        },
        new("setting", "A wrong setting", "Everything measures good and still it trips: dial, class, time.", Difficulty.Setting)
        {
            IsAbout = (_, _) => true,
        },
        new("wiring", "Not wired as it is drawn", "When nothing fits, count the wires under the screws and follow them.", Difficulty.Wiring)
        {
            IsAbout = (_, _) => true,
        },
        new(
            "two",
            "Two faults at once",
            "The first repair is not the end: the function test says whether something is left.",
            Difficulty.Two
        )
        {
            IsAbout = (_, _) => true,
        },
    ];

    /// <summary>The lesson of this name; null when there is none.</summary>
    public static Lesson? Find(string id) => Path.FirstOrDefault(l => l.Id == id);

    /// <summary>The exercise of this lesson on a circuit, the same for everybody; null where the circuit has nothing of the kind.</summary>
    public Exercise? On(CompiledCircuit compiled) => Exercise.Hidden(compiled, Difficulty, Id, true, f => IsAbout(compiled.Circuit, f));

    private static Device? DeviceOf(Circuit circuit, FaultMode fault) => circuit.FindDevice(fault.Unit);

    /// <summary>A fault of a contact, pole or coil of one role, on a device that a coil moves or on one that is moved by hand.</summary>
    private static bool IsContact(Circuit circuit, FaultMode fault, ElementRole role, bool isCoil) =>
        DeviceOf(circuit, fault) is { } device
        && device.Kind.CoilOf(device) is not null == isCoil
        && device.Kind.Elements(device).Any(e => e.Role == role && fault.Kind.StartsWith($"{e.Name}-", StringComparison.Ordinal));
}
